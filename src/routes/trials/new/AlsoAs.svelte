<script lang="ts">
	/** Sweeps: visitor states in which each page is loaded too. */
	import type { Writable } from 'svelte/store';
	import { Checkbox } from 'carbon-components-svelte';
	import type { TypedTrial } from '$lib/server/rooms/trials/form';

	interface Props {
		draft: Writable<TypedTrial>;
		states: readonly { id: number; name: string }[];
	}
	let { draft, states }: Props = $props();
</script>

{#if states.length}
	<fieldset>
		<legend class="muted small">Each page is loaded for an anonymous visitor, and also for one</legend>
		{#each states as { id, name } (id)}<Checkbox
				name="alsoAs"
				value={String(id)}
				labelText={name}
				bind:group={$draft.alsoAs}
			/>{/each}
	</fieldset>
{/if}

<style>
	fieldset {
		border: 0;
		padding: 0;
		margin: 0 0 var(--gap-5);
	}
</style>
