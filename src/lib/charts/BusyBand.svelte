<script lang="ts">
	/** A thin band on a load's time axis: how much of the machine's processors went to something else. */
	import type { ScaleLinear } from 'd3-scale';
	import type { CalmRecord } from '$core/load/record';
	import { wordCalm } from '$core/wording/calm';
	import { busyBars } from './timelineLayout';

	interface Props {
		calm: CalmRecord;
		x: ScaleLinear<number, number>;
		/** Widths in px: of the chart, of what stands left of the axis. */
		room: number;
		left: number;
	}
	let { calm, x, room, left }: Props = $props();
	const HEIGHT = 18;
	const BAR = 10;
	const bars = $derived(busyBars(calm.track));
	const label = $derived(room < 620 ? 'Machine' : 'Machine busy elsewhere');
</script>

<svg
	class="plot"
	width={room}
	height={HEIGHT}
	viewBox="0 0 {room} {HEIGHT}"
	role="img"
	aria-label={wordCalm(calm)}
>
	<title>{wordCalm(calm)}</title>
	<text x={left - 8} y={HEIGHT - 5} text-anchor="end">{label}</text>
	<line x1={left} x2={x(bars.endMs)} y1={HEIGHT - 4.5} y2={HEIGHT - 4.5} />
	{#each bars.bars as bar (bar.fromMs)}
		<rect
			x={x(bar.fromMs)}
			y={HEIGHT - 4 - bar.share * BAR}
			width={Math.max(1, x(bar.toMs) - x(bar.fromMs))}
			height={bar.share * BAR}
			class:high={bar.isHigh}
		/>
	{/each}
</svg>

<style>
	rect {
		fill: var(--muted);
	}
	rect.high {
		fill: var(--worse);
	}
</style>
