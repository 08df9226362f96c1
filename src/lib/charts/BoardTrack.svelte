<script lang="ts">
	/** One mark on the axis of a shift board: the margin as a band, the interval as a bar, the estimate as a diamond. */
	import type { BoardMark } from '$core/trial/judge/board';
	import { trackMarkup } from './trackMarkup';

	interface Props {
		/** Null draws the axis alone. */
		mark: Omit<BoardMark, 'metric'> | null;
		height?: number;
	}
	let { mark, height = 22 }: Props = $props();
</script>

<!-- Numbers and names of our own alone. -->
<!-- eslint-disable svelte/no-at-html-tags -->
<svg class="track" width="100%" {height} aria-hidden="true" focusable="false"
	>{@html trackMarkup(mark, height)}</svg
>

<style>
	.track {
		display: block;
		overflow: visible;
	}
	.track :global(.band) {
		fill: var(--margin-band);
	}
	.track :global(.zero) {
		stroke: var(--rule-strong);
		stroke-width: 1.5;
	}
	.track :global(.better) {
		color: var(--better);
	}
	.track :global(.worse) {
		color: var(--worse);
	}
	.track :global(.quiet),
	.track :global(.open) {
		color: var(--same);
	}
	.track :global(.bar) {
		stroke: currentColor;
		stroke-width: 3.5;
	}
	.track :global(.bar.dotted) {
		stroke-dasharray: 3 3;
	}
	.track :global(path) {
		fill: currentColor;
	}
	.track :global(.diamond) {
		stroke: currentColor;
		stroke-width: 2;
	}
	.track :global(.diamond.hollow) {
		fill: var(--panel);
	}
</style>
