<script lang="ts">
	import { Modal } from 'carbon-components-svelte';

	let { onclose }: { onclose: () => void } = $props();
	const KEYS = [
		['n', 'New trial'],
		['r', 'The main action of the screen'],
		['/', 'Search'],
		['j  k', 'Next row, row before'],
		['?', 'This list']
	];
</script>

<Modal open on:close={onclose} passiveModal size="xs" modalHeading="Keys">
	<dl class="keys">
		{#each KEYS as [key, meaning] (key)}
			<dt><kbd>{key}</kbd></dt>
			<dd>{meaning}</dd>
		{/each}
	</dl>
</Modal>

<style>
	.keys {
		display: grid;
		grid-template-columns: 4rem 1fr;
		gap: var(--gap-3);
		margin: 0;
	}
	kbd {
		font-family: var(--sans);
		font-weight: 600;
	}
</style>
