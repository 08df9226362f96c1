<script lang="ts">
	/** Pictures along the time axis; each ends at the moment that it shows. */
	import type { ScaleLinear } from 'd3-scale';
	import type { FrameRecord } from '$core/load/record';
	import { formatDuration } from '$core/wording/format';
	import { frameAt, notesBetween, type StripSlot } from './timelineLayout';

	interface Props {
		frames: FrameRecord[];
		frameUrl: (index: number) => string;
		frameNotes: { frame: number; words: string }[];
		strip: StripSlot[];
		x: ScaleLinear<number, number>;
		/** Sizes in px: of the chart, of what stands above the strip, of a picture, between two pictures. */
		room: number;
		top: number;
		headHeight: number;
		stripHeight: number;
		frameWidth: number;
		slotWidth: number;
	}
	let {
		frames,
		frameUrl,
		frameNotes,
		strip,
		x,
		room,
		top,
		headHeight,
		stripHeight,
		frameWidth,
		slotWidth
	}: Props = $props();
	/** What happened since the picture before. */
	const noteOf = (slot: StripSlot, i: number) =>
		notesBetween(frameNotes, frames, strip[i - 1]?.at ?? -1, slot.at);
</script>

<svg width={room} height={top} viewBox="0 0 {room} {top}" aria-hidden="true">
	{#each strip as slot, i (slot.x)}
		<image
			href={frameUrl(frameAt(frames, slot.at))}
			x={slot.x}
			y={headHeight}
			width={frameWidth}
			height={stripHeight}
			preserveAspectRatio="xMidYMin slice"
		/>
		<rect
			x={slot.x}
			y={headHeight}
			width={frameWidth}
			height={stripHeight}
			class="frame"
			class:noted={noteOf(slot, i).length}
		/>
		<text x={slot.x + frameWidth} y={headHeight + stripHeight + 13} text-anchor="end" class="tick"
			>{formatDuration(slot.at)}</text
		>
		{#if noteOf(slot, i).length}<text
				x={slot.x + frameWidth}
				y={headHeight + stripHeight + 27}
				text-anchor="end"
				class="note"
				>{noteOf(slot, i)
					.join(', ')
					.slice(0, Math.floor(slotWidth / 6))}</text
			>{/if}
	{/each}
	{#if !strip.length}{#each x.ticks(6) as tick (tick)}<text x={x(tick)} y={top - 6} class="tick"
				>{formatDuration(tick)}</text
			>{/each}{/if}
</svg>

<style>
	svg {
		max-width: 100%;
		display: block;
	}
	text {
		font-family: var(--sans);
		font-variant-numeric: tabular-nums;
		fill: var(--ink);
	}
	.tick,
	.note {
		font-size: 11px;
		fill: var(--muted);
	}
	.note {
		fill: var(--ink);
		font-weight: 600;
	}
	.frame {
		fill: none;
		stroke: var(--rule);
	}
	.frame.noted {
		stroke: var(--focus);
		stroke-width: 2;
	}
</style>
