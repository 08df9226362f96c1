<script lang="ts">
	/** A history: readings with their spread, flags of what was marked, step lines where something moved beyond noise. */
	import { csvText } from './csvText';
	import TimeChart from './TimeChart.svelte';
	import { placeHistory, segmentsOf, type HistoryPoint } from './historyLayout';

	type Point = HistoryPoint & { loads: number; disturbed: number; isWild: boolean };
	interface Step {
		at: string;
		from: number;
		to: number;
		verdict: string;
		words: string;
	}
	interface Props {
		name: string;
		caption: string;
		points: readonly Point[];
		steps: readonly Step[];
		/** The lab changed: nothing is compared over them. */
		breaks: readonly { at: string; title: string }[];
		markers: readonly { day: string; words: string }[];
		thresholds: { good: number; poor: number } | null;
		format: (value: number) => string;
		dayWords: (day: string) => string;
	}
	let { name, caption, points, steps, breaks, markers, thresholds, format, dayWords }: Props = $props();
	const WIDTH = 760;
	const HEIGHT = 170;
	/** For the names of the bands. */
	const RIGHT = 62;
	const places = $derived(
		placeHistory(points, thresholds ? [thresholds.good, thresholds.poor] : [], WIDTH, HEIGHT)
	);
	const segments = $derived(
		segmentsOf(
			points,
			breaks.map(({ at }) => at)
		)
	);
	const wordsOf = (point: Point) =>
		[
			`${dayWords(point.at.slice(0, 10))}: ${format(point.middle)}`,
			`${point.loads} loads from ${format(point.low)} to ${format(point.high)}`,
			point.isWild ? 'far from its neighbours' : '',
			point.disturbed ? `${point.disturbed} on a busy machine` : ''
		]
			.filter(Boolean)
			.join(', ');
	const pathOf = (own: readonly Point[]) =>
		own
			.map(({ at, middle }, i) => `${i ? 'L' : 'M'}${places!.x(at).toFixed(1)} ${places!.y(middle).toFixed(1)}`)
			.join('');
	/** Where a step's new level ends: at the next step or break, or at the end. */
	const endOf = (at: string) =>
		[...steps.map((step) => step.at), ...breaks.map((one) => one.at), points.at(-1)?.at ?? at]
			.filter((other) => other > at)
			.sort()[0] ?? at;
	const startOf = (at: string) =>
		[...steps.map((step) => step.at), ...breaks.map((one) => one.at), points[0]?.at ?? at]
			.filter((other) => other < at)
			.sort()
			.at(-1) ?? at;
	/** No step before it on this side of a change of the lab: its level before has no line yet. */
	const isFirst = (at: string) => !steps.some((step) => step.at === startOf(at));
	const csv = () =>
		csvText(
			['at', name, 'lowest', 'highest', 'loads'],
			points.map(({ at, middle, low, high, loads }) => [at, middle, low, high, loads])
		);
</script>

<TimeChart
	name="history-{name}"
	{caption}
	{places}
	width={WIDTH}
	height={HEIGHT}
	right={RIGHT}
	{markers}
	{format}
	{dayWords}
	{csv}
>
	{#snippet children(places)}
		{#if thresholds}
			{#each [thresholds.good, thresholds.poor] as value, i (i)}
				{#if places.y(value) > 0}
					<line class="band b{i}" x1={WIDTH} x2={WIDTH + 8} y1={places.y(value)} y2={places.y(value)} />
					<text class="edge" x={WIDTH + 11} y={places.y(value) + 4}>{i ? 'poor above' : 'good'}</text>
				{/if}
			{/each}
		{/if}
		{#each breaks as { at, title } (at)}
			<g role="img" aria-label="{dayWords(at.slice(0, 10))}: {title}">
				<title>{dayWords(at.slice(0, 10))}: {title}</title>
				<line class="break" x1={places.x(at)} x2={places.x(at)} y1="-12" y2={HEIGHT} />
			</g>
		{/each}
		{#each segments as own, i (i)}<path class="line" d={pathOf(own)} />{/each}
		{#each points as point (point.at)}
			<g role="img" aria-label={wordsOf(point)}>
				<title>{wordsOf(point)}</title>
				<line
					class="spread"
					x1={places.x(point.at)}
					x2={places.x(point.at)}
					y1={places.y(point.low)}
					y2={places.y(point.high)}
				/>
				<circle class:wild={point.isWild} cx={places.x(point.at)} cy={places.y(point.middle)} r="3.2" />
				<rect class="target" x={places.x(point.at) - 6} y="0" width="12" height={HEIGHT} />
			</g>
		{/each}
		{#each steps as step (step.at)}
			<g role="img" aria-label={step.words}>
				<title>{step.words}</title>
				{#if isFirst(step.at)}<path
						class="step"
						d="M{places.x(startOf(step.at))} {places.y(step.from)}H{places.x(step.at)}"
					/>{/if}
				<path
					class="step {step.verdict}"
					d="M{places.x(step.at)} {places.y(step.from)}V{places.y(step.to)}H{places.x(endOf(step.at))}"
				/>
			</g>
		{/each}
	{/snippet}
</TimeChart>

<style>
	.line {
		fill: none;
		stroke: var(--ink);
		stroke-opacity: 0.25;
	}
	.spread {
		stroke: var(--ink);
		stroke-opacity: 0.28;
		stroke-width: 3;
	}
	circle {
		fill: var(--ink);
	}
	circle.wild {
		fill: var(--panel);
		stroke: var(--ink);
		stroke-width: 1.5;
	}
	.target {
		fill: transparent;
	}
	.break {
		stroke: var(--muted);
		stroke-dasharray: 2 3;
	}
	.band {
		stroke-width: 3;
	}
	.b0 {
		stroke: var(--better);
	}
	.b1 {
		stroke: var(--worse);
	}
	.edge {
		font-size: var(--type-3);
		fill: var(--muted);
	}
	.step {
		fill: none;
		stroke: var(--same);
		stroke-width: 2.2;
	}
	.step.better {
		stroke: var(--better);
	}
	.step.worse {
		stroke: var(--worse);
	}
</style>
