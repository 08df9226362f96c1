<script lang="ts">
	/** Deletes a trial, once it was asked whether. */
	import { Button } from 'carbon-components-svelte';
	import { keepTyped } from '$lib/keepTyped';
	import Lazy from '$lib/parts/Lazy.svelte';

	interface Props {
		/** How many go with it. */
		loads: number;
	}
	let { loads }: Props = $props();
	let isAsking = $state(false);
	let form = $state<HTMLFormElement>();
</script>

<form method="POST" action="?/delete" class="no-print delete" use:keepTyped bind:this={form}>
	<Button kind="danger-ghost" size="small" on:click={() => (isAsking = true)}>Delete this trial…</Button>
</form>
{#if isAsking}
	<Lazy
		load={() => import('./DeleteTrial.svelte')}
		props={{
			loads,
			onconfirm: () => form?.requestSubmit(),
			oncancel: () => (isAsking = false)
		}}
	/>
{/if}
