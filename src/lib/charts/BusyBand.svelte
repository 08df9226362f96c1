<script lang="ts">
	/** A thin band on a load's time axis: how much of the machine's processors went to something else. */
	import type { ScaleLinear } from 'd3-scale';
	import type { CalmRecord } from '$core/load/record';
	import { busyBars } from './timelineLayout';

	interface Props {
		calm: CalmRecord;
		/** What it shows, in a sentence. */
		words: string;
		x: ScaleLinear<number, number>;
		/** Widths in px: of the chart, of what stands left of the axis. */
		room: number;
		left: number;
	}
	let { calm, words, x, room, left }: Props = $props();
	const HEIGHT = 18;
	const BAR = 10;
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
	const label = $derived(room < 620 ? 'Machine' : 'Machine busy elsewhere');
</script>

<svg class="plot" width={room} height={HEIGHT} viewBox="0 0 {room} {HEIGHT}" role="img" aria-label={words}>
	<title>{words}</title>
	<text x={left - 8} y={HEIGHT - 5} text-anchor="end">{label}</text>
	<line x1={left} x2={x(bars.endMs)} y1={HEIGHT - 4.5} y2={HEIGHT - 4.5} />
	<path d={pathOf(bars.bars.filter(({ isHigh }) => !isHigh))} />
	<path class="high" d={pathOf(bars.bars.filter(({ isHigh }) => isHigh))} />
</svg>

<style>
	path {
		fill: var(--muted);
	}
	path.high {
		fill: var(--worse);
	}
</style>
