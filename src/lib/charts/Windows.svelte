<script lang="ts">
	/** A history of windows: each a stroke over all its days, since neighbours share most of their visits. */
	import { csvText } from './csvText';
	import ChartMenu from './ChartMenu.svelte';
	import { placeDays, placeWindows, type Window } from './windowsLayout';

	interface Props {
		name: string;
		caption: string;
		windows: readonly Window[];
		thresholds: { good: number; poor: number } | null;
		format: (value: number) => string;
		dayWords: (day: string) => string;
		/** Changes with their first day. */
		markers?: readonly { id: number; day: string; words: string }[];
	}
	let { name, caption, windows, thresholds, format, dayWords, markers = [] }: Props = $props();
	const WIDTH = 560;
	const HEIGHT = 130;
	const LEFT = 58;
	let drawn = $state<SVGSVGElement>();
	const layout = $derived(placeWindows(windows, thresholds ? [thresholds.good, thresholds.poor] : []));
	const lines = $derived(
		thresholds ? [thresholds.good, thresholds.poor].filter((value) => value <= layout.top) : []
	);
	const newest = $derived(layout.placed.at(-1));
	const flags = $derived(placeDays(windows, markers));
	const yOf = (value: number) => (1 - value / layout.top) * HEIGHT;
	const csv = () =>
		csvText(
			['from', 'until', name],
			windows.map(({ from, until, value }) => [from, until, value])
		);
</script>

<figure>
	<figcaption>{caption} <ChartMenu name="windows" {csv} svg={() => drawn} /></figcaption>
	<svg bind:this={drawn} viewBox="0 0 {LEFT + WIDTH + 60} {HEIGHT + 26}" role="group" aria-label={caption}>
		<line class="axis" x1={LEFT} x2={LEFT + WIDTH} y1={HEIGHT} y2={HEIGHT} />
		{#each lines as value, i (i)}
			<line class="threshold" x1={LEFT} x2={LEFT + WIDTH} y1={yOf(value)} y2={yOf(value)} />
			<text x={LEFT - 6} y={yOf(value) + 4} text-anchor="end">{format(value)}</text>
		{/each}
		{#each layout.placed as { from, until, value, x, width, y } (until)}
			<g role="img" aria-label="{dayWords(from)} to {dayWords(until)}: {format(value)}">
				<title>{dayWords(from)} to {dayWords(until)}: {format(value)}</title>
				<line
					class="window"
					x1={LEFT + x * WIDTH}
					x2={LEFT + (x + width) * WIDTH}
					y1={y * HEIGHT}
					y2={y * HEIGHT}
				/>
			</g>
		{/each}
		{#each flags as { id, day, words, x } (id)}
			<g role="img" aria-label="{dayWords(day)}: {words}">
				<title>{dayWords(day)}: {words}</title>
				<line class="flag" x1={LEFT + x * WIDTH} x2={LEFT + x * WIDTH} y1="0" y2={HEIGHT} />
				<path class="pennant" d="M{LEFT + x * WIDTH},0h9l-3,4l3,4h-9z" />
			</g>
		{/each}
		{#if newest}
			<text class="newest" x={LEFT + WIDTH + 6} y={newest.y * HEIGHT + 4}>{format(newest.value)}</text>
			<text x={LEFT} y={HEIGHT + 18}>{dayWords(layout.placed[0]!.from)}</text>
			<text x={LEFT + WIDTH} y={HEIGHT + 18} text-anchor="end">{dayWords(newest.until)}</text>
		{/if}
	</svg>
</figure>

<style>
	svg {
		width: 100%;
		max-width: 44rem;
	}
	.axis {
		stroke: var(--rule);
	}
	.threshold {
		stroke: var(--muted);
		stroke-dasharray: 3 3;
	}
	.window {
		stroke: var(--ink);
		stroke-width: 5;
		stroke-opacity: 0.35;
	}
	.flag {
		stroke: var(--action);
	}
	.pennant {
		fill: var(--action);
	}
	/* The drawing shrinks with a narrow screen, its words should not. */
	@media (max-width: 40rem) {
		text {
			font-size: var(--type-6);
		}
	}
	.newest {
		fill: var(--ink);
		font-weight: 600;
	}
</style>
