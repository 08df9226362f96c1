<script lang="ts">
	/** The frames of the load: played, and one beside the other. */
	import { formatDuration } from '$core/wording/format';
	import type { LoadView } from '$lib/server/rooms/loads/view';
	import Playback from '$lib/charts/Playback.svelte';
	import Scroller from '$lib/parts/Scroller.svelte';

	interface Props {
		data: LoadView;
		device: { width: number; height: number };
		frameUrl: (index: number) => string;
		frameNotes: { frame: number; words: string }[];
	}
	let { data, device, frameUrl, frameNotes }: Props = $props();
	const record = $derived(data.record);
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
		gap: 0.6rem;
		padding: 0.6rem 0 0.4rem;
		margin: 0;
	}
	.frames li {
		flex: none;
		width: 118px;
		font-size: 0.84rem;
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
