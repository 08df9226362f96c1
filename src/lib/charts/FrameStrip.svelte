<script lang="ts">
	/** Pictures along the time axis; each ends at the moment that it shows. Wider charts hold more of them. */
	import { frameAt } from '$core/compare/film';
	import type { FrameRecord } from '$core/load/record/record';
	import { formatDuration } from '$core/wording/format';
	import { CHART_WIDTHS, notesBetween, stripMoments } from './timelineLayout';

	interface Props {
		frames: FrameRecord[];
		frameUrl: (index: number) => string;
		frameNotes: { frame: number; words: string }[];
		/** The last thing that is known of the load, ms. */
		endMs: number;
		/** Of a picture, px. */
		width: number;
		height: number;
	}
	let { frames, frameUrl, frameNotes, endMs, width, height }: Props = $props();
	const strips = $derived(
		CHART_WIDTHS.map((chart) => ({ name: chart.name, moments: stripMoments(chart, endMs, width) }))
	);
	/** What happened since the picture before. */
	const noteOf = (moments: number[], i: number) =>
		notesBetween(frameNotes, frames, moments[i - 1] ?? -1, moments[i]!).join(', ');
</script>

{#each strips as { name, moments } (name)}
	<div
		class="strip {name}"
		style:grid-template-columns="repeat({moments.length}, minmax(0, 1fr))"
		aria-hidden="true"
	>
		{#each moments as at, i (at)}
			{@const note = noteOf(moments, i)}
			<div>
				<img
					src={frameUrl(frameAt({ frames }, at))}
					class:noted={note}
					alt=""
					loading="lazy"
					{width}
					{height}
				/>
				<span class="tick">{formatDuration(at)}</span>
				{#if note}<b>{note}</b>{/if}
			</div>
		{/each}
	</div>
{/each}

<style>
	.strip {
		display: none;
		margin: 0 var(--right) 4px var(--left);
		text-align: right;
		font-size: var(--type-1);
		line-height: 15px;
		font-variant-numeric: tabular-nums;
	}
	@container timeline (width < 620px) {
		.strip.narrow {
			display: grid;
		}
	}
	@container timeline (620px <= width < 820px) {
		.strip.wide {
			display: grid;
		}
	}
	@container timeline (width >= 820px) {
		.strip.widest {
			display: grid;
		}
	}
	img {
		display: block;
		margin-left: auto;
		box-sizing: border-box;
		object-fit: cover;
		object-position: top;
		border: 1px solid var(--rule);
		background: #fff;
	}
	img.noted {
		border-bottom: 3px solid var(--ink);
	}
	.tick,
	b {
		display: block;
		color: var(--muted);
		overflow: hidden;
		text-overflow: ellipsis;
		white-space: nowrap;
	}
	b {
		color: var(--ink);
	}
</style>
