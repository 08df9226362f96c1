<script lang="ts">
	import { onMount } from 'svelte';

	let { close }: { close: () => void } = $props();
	let dialog: HTMLDialogElement;
	const KEYS = [
		['n', 'New trial'],
		['r', 'The main action of the screen'],
		['/', 'Search the list'],
		['j  k', 'Next row, row before'],
		['?', 'This list']
	];
	onMount(() => dialog.showModal());
</script>

<dialog bind:this={dialog} onclose={close} aria-labelledby="keys-title">
	<h2 id="keys-title">Keys</h2>
	<dl>
		{#each KEYS as [key, meaning] (key)}
			<dt><kbd>{key}</kbd></dt>
			<dd>{meaning}</dd>
		{/each}
	</dl>
	<button onclick={() => dialog.close()}>Close</button>
</dialog>

<style>
	dialog {
		background: var(--panel);
		color: var(--ink);
		border: 1px solid var(--rule);
		padding: 1.2rem 1.4rem;
		min-width: 20rem;
		margin: auto;
	}
	dl {
		display: grid;
		grid-template-columns: 4rem 1fr;
		gap: 0.3rem;
		margin: 0 0 1rem;
	}
	dd {
		margin: 0;
	}
	kbd {
		font-family: var(--sans);
		font-weight: 600;
	}
	button {
		background: var(--action);
		color: var(--on-action);
		border: 0;
		padding: 0.4rem 0.9rem;
		cursor: pointer;
	}
</style>
