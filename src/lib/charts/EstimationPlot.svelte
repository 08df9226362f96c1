<script lang="ts">
	/**
	 * Every load as a dot per arm; beside it the shift of each arm from the baseline with its interval, against the
	 * band of shifts that are too small to matter.
	 */
	import { scaleLinear, scalePoint } from 'd3-scale';
	import { metricOf } from '$core/metrics/catalogue';
	import { median } from '$core/stats/summary';
	import type { ShiftResult } from '$core/trial/types';
	import { formatDifference, formatValue } from '$core/wording/format';
	import { wordShift, wordVerdict } from '$core/wording/shift';
	import { csvText } from './csvText';
	import ChartMenu from './ChartMenu.svelte';
	import { armColour } from './armColour';
	import { nameLines, roundOffset, shiftDomain, valueDomain } from './estimationLayout';

	interface Dot {
		load: number;
		arm: number;
		round: number;
		value: number;
		outlying: boolean;
	}
	interface Props {
		metric: string;
		title: string;
		arms: { id: number; name: string; baseline: boolean }[];
		dots: Dot[];
		results: ShiftResult[];
	}
	let { metric, title, arms, dots, results }: Props = $props();
	/** Drawn at the width it has, so that its letters keep their size; the first guess is for pages without scripts. */
	let room = $state(460);
	let drawn: SVGSVGElement | undefined = $state();
	const csv = () =>
		csvText(
			['arm', 'round', 'load', metric],
			dots.map((dot) => [name(dot.arm), dot.round, dot.load, dot.value])
		);
	const width = $derived(Math.max(300, room));

	const TOP = 14;
	const LEFT = 62;
	const height = 246;
	const bottom = $derived(height - 54);
	const others = $derived(arms.filter((arm) => !arm.baseline));
	/** The dots get more room the more arms there are. */
	const split = $derived(LEFT + (width - LEFT) * (arms.length / (arms.length + others.length + 0.9)));

	const values = $derived(dots.map((dot) => dot.value));
	const y = $derived(scaleLinear(valueDomain(values), [bottom, TOP]).nice(5));
	const x = $derived(
		scalePoint<number>(
			arms.map((arm) => arm.id),
			[LEFT + 14, split - 14]
		).padding(0.5)
	);

	const shown = $derived(results.filter((result) => result.shift));
	const shiftScale = $derived(scaleLinear(shiftDomain(shown), [bottom, TOP]).nice(5));
	const shiftX = $derived(
		scalePoint<number>(
			others.map((arm) => arm.id),
			[split + 78, width - 8]
		).padding(0.5)
	);
	const margin = $derived(shown[0]?.margin ?? 0);
	const name = (id: number) => arms.find((arm) => arm.id === id)?.name ?? '';
	const medianOf = (id: number) => {
		const own = dots.filter((dot) => dot.arm === id).map((dot) => dot.value);
		return own.length ? median(own) : null;
	};
	/** Spread the dots by round, so that a drift over the rounds can be seen. */
	const rounds = $derived(Math.max(1, ...dots.map((dot) => dot.round)));
	const jitter = (round: number) => roundOffset(round, rounds, x.step());
	/** A name in at most two lines of as many letters as fit between two arms. */
	const letters = $derived(Math.max(7, Math.floor(x.step() / 6.6)));
	const points = $derived(metricOf(metric).unit === 'points' ? ' (higher is better)' : '');
</script>

{#snippet label(at: number, arm: number, text: string)}
	<text x={at} y={height - 34} class="arm" text-anchor="middle" fill={armColour(arms, arm)}>
		{#each nameLines(text, letters) as line, i (i)}<tspan x={at} dy={i * 14}>{line}</tspan>{/each}<title
			>{text}</title
		>
	</text>
{/snippet}

<figure bind:clientWidth={room}>
	<svg
		bind:this={drawn}
		viewBox="0 0 {width} {height}"
		role="group"
		aria-label="{title}: {metricOf(metric).name} of every load, and the shift of each arm from the baseline"
	>
		{#each y.ticks(5) as tick (tick)}
			<line x1={LEFT} x2={split} y1={y(tick)} y2={y(tick)} class="rule" />
			<text x={LEFT - 6} y={y(tick)} dy="0.32em" class="tick" text-anchor="end"
				>{formatValue(metric, tick)}</text
			>
		{/each}
		{#each arms as arm (arm.id)}
			{@const middle = medianOf(arm.id)}
			{@render label(x(arm.id)!, arm.id, arm.name)}
			{#if middle !== null}
				<line
					x1={x(arm.id)! - 26}
					x2={x(arm.id)! + 26}
					y1={y(middle)}
					y2={y(middle)}
					stroke={armColour(arms, arm.id)}
					class="median"
				/>
			{/if}
		{/each}
		{#each dots as dot (dot.load)}
			{#if dot.outlying}<circle
					cx={x(dot.arm)! + jitter(dot.round)}
					cy={y(dot.value)}
					r="7"
					class="ring"
				/>{/if}
			<a
				href="/loads/{dot.load}"
				aria-label="{name(dot.arm)}, round {dot.round}: {formatValue(metric, dot.value)}"
			>
				<circle
					cx={x(dot.arm)! + jitter(dot.round)}
					cy={y(dot.value)}
					r="3.6"
					fill={armColour(arms, dot.arm)}
					class="dot"
				>
					<title
						>{name(dot.arm)}, round {dot.round}: {formatValue(metric, dot.value)}{dot.outlying
							? ' (far from the others)'
							: ''}</title
					>
				</circle>
			</a>
		{/each}
		{#if shown.length}
			<rect
				x={split + 68}
				width={width - split - 68}
				y={shiftScale(margin)}
				height={shiftScale(-margin) - shiftScale(margin)}
				class="margin"
			/>
			<line x1={split + 68} x2={width} y1={shiftScale(0)} y2={shiftScale(0)} class="zero" />
			{#each shiftScale.ticks(5) as tick (tick)}
				<text x={split + 62} y={shiftScale(tick)} dy="0.32em" class="tick" text-anchor="end"
					>{formatDifference(metric, tick)}</text
				>
			{/each}
			{#each shown as result (result.arm)}
				{@const cx = shiftX(result.arm) ?? 0}
				{@const shift = result.shift!}
				{#if shift.low !== null && shift.high !== null}
					<line
						x1={cx}
						x2={cx}
						y1={shiftScale(shift.low)}
						y2={shiftScale(shift.high)}
						stroke={armColour(arms, result.arm)}
						class="interval"
					/>
				{/if}
				<path d="M{cx} {shiftScale(shift.estimate) - 6} l6 6 l-6 6 l-6 -6 z" fill={armColour(arms, result.arm)}>
					<title>{name(result.arm)}: {wordShift({ ...result, shift })}, {wordVerdict(result)}</title>
				</path>
				{@render label(cx, result.arm, name(result.arm))}
			{/each}
		{/if}
		<text x={LEFT} y={height - 2} class="axis">Each load{points}</text>
		{#if shown.length}<text x={split + 68} y={height - 2} class="axis">Shift from the baseline</text>{/if}
	</svg>
	<figcaption>
		{#if shown.length}
			{#each shown as result (result.arm)}
				<span
					>{name(result.arm)}: {wordShift({ ...result, shift: result.shift! })}{#if result.primary}: <b
							>{wordVerdict(result)}</b
						>{/if}.
				</span>
			{/each}
			The shaded band holds shifts that are too small to matter{dots.some((dot) => dot.outlying)
				? '; ringed loads lie far from the others of their arm and still count'
				: ''}.
		{:else}
			{dots.length
				? 'One arm has been loaded so far: there is nothing to compare yet.'
				: 'No load has ended yet.'}
		{/if}
		<ChartMenu {csv} svg={() => drawn} name="loads-{metric}" />
	</figcaption>
</figure>

<style>
	svg {
		width: 100%;
		height: auto;
		display: block;
		overflow: visible;
	}
	text {
		font-family: var(--sans);
		font-variant-numeric: tabular-nums;
	}
	.arm {
		font-size: var(--type-2);
		font-weight: 600;
	}
	.rule {
		stroke: var(--rule);
	}
	.zero {
		stroke: var(--ink);
	}
	.median {
		stroke-width: 2.5;
	}
	.interval {
		stroke-width: 3;
	}
	.ring {
		fill: none;
		stroke: var(--muted);
	}
	.dot {
		fill-opacity: 0.72;
	}
	.margin {
		fill: var(--margin-band);
	}
	figcaption b {
		color: var(--ink);
		font-weight: 600;
	}
</style>
