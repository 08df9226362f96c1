<script lang="ts">
	/** A thin band on a load's time axis: how much of the machine's processors went to something else. */
	import type { CalmRecord } from '$core/load/record/record';
	import { busyBars, placeOf } from './timelineLayout';

	interface Props {
		calm: CalmRecord;
		/** What it shows, in a sentence. */
		words: string;
		/** The last thing that is known of the load, ms. */
		endMs: number;
	}
	let { calm, words, endMs }: Props = $props();
	const HEIGHT = 18;
	const BAR = 10;
	/** Of the drawing, which is as wide as the axis. */
	const UNITS = 1000;
	const x = (ms: number) => placeOf(ms, endMs) * UNITS;
	const bars = $derived(busyBars(calm.track));
	/** Bars as one drawing: a long load has hundreds. */
	const pathOf = (some: typeof bars.bars) =>
		some
			.map(({ fromMs, toMs, share }) => {
				const [at, height] = [x(fromMs), share * BAR];
				const wide = Math.max(1, x(toMs) - at);
				return `M${at.toFixed(1)} ${(HEIGHT - 4).toFixed(1)}v${(-height).toFixed(1)}h${wide.toFixed(1)}v${height.toFixed(1)}z`;
			})
			.join('');
</script>

<!-- The analyst's: on a client's paper it would ask a question that nobody is there to answer. -->
<div class="band no-print">
	<span aria-hidden="true">Machine<i>&nbsp;busy elsewhere</i></span>
	<svg height={HEIGHT} viewBox="0 0 {UNITS} {HEIGHT}" preserveAspectRatio="none" role="img" aria-label={words}>
		<title>{words}</title>
		<line x1="0" x2={x(bars.endMs)} y1={HEIGHT - 4.5} y2={HEIGHT - 4.5} />
		<path d={pathOf(bars.bars.filter(({ isHigh }) => !isHigh))} />
		<path class="high" d={pathOf(bars.bars.filter(({ isHigh }) => isHigh))} />
	</svg>
</div>

<style>
	.band {
		display: grid;
		grid-template-columns: var(--left) minmax(0, 1fr);
		margin-right: var(--right);
		font-size: var(--type-1);
		line-height: 18px;
		color: var(--muted);
	}
	span {
		text-align: right;
		padding-right: 8px;
		white-space: nowrap;
	}
	i {
		font-style: normal;
	}
	svg {
		display: block;
		width: 100%;
	}
	line {
		stroke: var(--rule);
		vector-effect: non-scaling-stroke;
	}
	path {
		fill: var(--muted);
	}
	path.high {
		fill: var(--worse);
	}
	@container timeline (width < 620px) {
		i {
			display: none;
		}
	}
</style>
