<script lang="ts">
	/** One mark on the axis of a shift board: the margin as a band, the interval as a bar, the estimate as a diamond. */
	import type { BoardMark } from '$core/trial/board';
	import { MARGIN_BAND, placeMark } from './shiftBoardLayout';

	interface Props {
		/** Null draws the axis alone. */
		mark: Omit<BoardMark, 'metric'> | null;
		height?: number;
	}
	let { mark, height = 22 }: Props = $props();
	const placed = $derived(mark && placeMark(mark));
	const middle = $derived(height / 2);
	const size = $derived(Math.min(6, height / 3));
	const percent = (share: number) => `${(share * 100).toFixed(2)}%`;
</script>

<svg class="track" width="100%" {height} aria-hidden="true" focusable="false">
	<rect
		class="band"
		x={percent(MARGIN_BAND.from)}
		width={percent(MARGIN_BAND.to - MARGIN_BAND.from)}
		y="0"
		{height}
	/>
	<line class="zero" x1="50%" x2="50%" y1="0" y2={height} />
	{#if placed}
		<g class={placed.tone}>
			{#if placed.bar}
				<line
					class="bar"
					class:dotted={placed.isDotted}
					x1={percent(placed.bar.from)}
					x2={percent(placed.bar.to)}
					y1={middle}
					y2={middle}
				/>
			{/if}
			{#if placed.leaves.left}<svg x="0" y={middle} overflow="visible"><path d="M0,0l6,-4v8z" /></svg>{/if}
			{#if placed.leaves.right}<svg x="100%" y={middle} overflow="visible"><path d="M0,0l-6,-4v8z" /></svg>{/if}
			<svg x={percent(placed.at)} y={middle} overflow="visible">
				<path class="diamond" class:hollow={!placed.isSolid} d="M{-size},0L0,{-size}L{size},0L0,{size}Z" />
			</svg>
		</g>
	{/if}
</svg>

<style>
	.track {
		display: block;
		overflow: visible;
	}
	.band {
		fill: var(--margin-band);
	}
	.zero {
		stroke: var(--rule-strong);
		stroke-width: 1.5;
	}
	.better {
		color: var(--better);
	}
	.worse {
		color: var(--worse);
	}
	.quiet,
	.open {
		color: var(--same);
	}
	.bar {
		stroke: currentColor;
		stroke-width: 3.5;
	}
	.bar.dotted {
		stroke-dasharray: 3 3;
	}
	path {
		fill: currentColor;
	}
	.diamond {
		stroke: currentColor;
		stroke-width: 2;
	}
	.diamond.hollow {
		fill: var(--panel);
	}
</style>
