<script lang="ts">
	/** The frames of the load: played, and one beside the other. */
	import { formatDuration } from '$core/wording/format';
	import type { PartProps } from './partProps';
	import Playback from '$lib/charts/Playback.svelte';
	import Scroller from '$lib/parts/Scroller.svelte';

	let { data, device, frameUrl }: PartProps<'frames'> = $props();
	const { record, frameNotes } = $derived(data);
</script>

<Playback
	frames={record.frames}
	{frameUrl}
	width={device.width}
	height={device.height}
	endMs={Math.max(record.frames.at(-1)!.atMs, record.figures.lcp ?? 0)}
/>
<Scroller label="Frames">
	<ol class="frames">
		{#each record.frames as frame, i (i)}
			{@const notes = frameNotes.filter((note) => note.frame === i).map((note) => note.words)}
			<li class:noted={notes.length}>
				<a href="/api/loads/{data.load.id}/frames/{i + 1}?format=png"
					><img
						src={frameUrl(i)}
						alt="The page after {formatDuration(frame.atMs)}"
						loading="lazy"
						width={device.width}
						height={device.height}
					/></a
				>
				<span class="figures"
					>{formatDuration(frame.atMs)}<br /><span class="muted"
						>{Math.round(frame.progress * 100)} % painted</span
					>{#if notes.length}<br /><b>{[...new Set(notes)].join(', ')}</b>{/if}</span
				>
			</li>
		{/each}
	</ol>
</Scroller>
<p class="muted small">
	Each distinct frame, with its time and how far its colours are from the finished page.
</p>

<style>
	.frames {
		list-style: none;
		display: flex;
		gap: var(--gap-4);
		padding: var(--gap-4) 0 var(--gap-3);
		margin: 0;
	}
	.frames li {
		flex: none;
		width: 118px;
		font-size: var(--type-3);
	}
	.frames img {
		width: 100%;
		height: auto;
		border: 1px solid var(--rule);
		background: #fff;
	}
	.frames .noted img {
		border: 2px solid var(--focus);
	}
</style>
