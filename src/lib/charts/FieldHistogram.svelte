<script lang="ts">
	/** What visitors had: their shares by value, with the 75th percentile and the thresholds. */
	import { csvText } from './csvText';
	import ChartMenu from './ChartMenu.svelte';
	import { barsOf } from './fieldBars';

	interface Props {
		name: string;
		caption: string;
		bins: readonly (readonly [from: number, share: number])[];
		p75: number;
		thresholds: { good: number; poor: number };
		format: (value: number) => string;
	}
	let { name, caption, bins, p75, thresholds, format }: Props = $props();
	const WIDTH = 420;
	const HEIGHT = 90;
	let drawn = $state<SVGSVGElement>();
	const layout = $derived(barsOf(bins, p75, thresholds));
	const csv = () => csvText(['from', 'share'], bins);
</script>

<figure>
	<figcaption>{caption} <ChartMenu {name} {csv} svg={() => drawn} /></figcaption>
	<svg bind:this={drawn} viewBox="0 0 {WIDTH} {HEIGHT + 34}" role="img" aria-label={caption}>
		{#each layout.bars as { x, width, height, band } (x)}
			<rect
				class={band}
				x={x * WIDTH}
				width={Math.max(0.5, width * WIDTH - 0.6)}
				y={HEIGHT * (1 - height)}
				height={HEIGHT * height}
			/>
		{/each}
		<line class="axis" x1="0" x2={WIDTH} y1={HEIGHT} y2={HEIGHT} />
		<line class="p75" x1={layout.p75 * WIDTH} x2={layout.p75 * WIDTH} y1="0" y2={HEIGHT + 4} />
		<text class="strong" x={layout.p75 * WIDTH} y={HEIGHT + 16} text-anchor="middle">p75 {format(p75)}</text>
		<text class="lower" x={layout.good * WIDTH} y={HEIGHT + 30} text-anchor="middle"
			>good up to {format(thresholds.good)}</text
		>
	</svg>
</figure>

<style>
	svg {
		width: 100%;
		max-width: 30rem;
	}
	.axis {
		stroke: var(--rule);
	}
	.good {
		fill: var(--better);
	}
	.needs {
		fill: var(--middling);
	}
	.poor {
		fill: var(--worse);
	}
	.p75 {
		stroke: var(--ink);
		stroke-width: 1.5;
	}
	.strong {
		fill: var(--ink);
		font-weight: 600;
	}
	/* The drawing shrinks with a narrow screen, its words should not. */
	@media (max-width: 40rem) {
		svg {
			overflow: visible;
		}
		text {
			font-size: var(--type-3);
		}
		.lower {
			transform: translateY(4px);
		}
	}
</style>
