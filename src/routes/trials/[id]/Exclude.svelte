<script lang="ts">
	/** Why a load is excluded. */
	import { Button } from 'carbon-components-svelte';
	import { keepTyped } from '$lib/keepTyped';
	import Field from '$lib/parts/Field.svelte';
	import Hidden from '$lib/parts/Hidden.svelte';

	let { load, done }: { load: number; done: () => void } = $props();
</script>

<form method="POST" action="?/exclude" use:keepTyped={{ done }} class="exclude">
	<Hidden name="load" value={load} />
	<Field label="Reason to exclude load {load}" hideLabel name="reason" placeholder="Why?" required size="sm" />
	<Button type="submit" kind="tertiary" size="small">Exclude</Button>
</form>

<style>
	.exclude {
		display: flex;
		gap: var(--gap-3);
		min-width: 15rem;
	}
</style>
