<script lang="ts">
	/** The frames at true speed and slowed, as one film. */
	import { frameAt } from '$core/compare/film';
	import type { FrameRecord } from '$core/load/record/record';
	import { formatDuration } from '$core/wording/format';
	import { FilmClock } from './filmClock.svelte';
	import FilmControls from './FilmControls.svelte';

	interface Props {
		frames: FrameRecord[];
		frameUrl: (index: number) => string;
		width: number;
		height: number;
		/** Where the film ends, ms. */
		endMs: number;
	}
	let { frames, frameUrl, width, height, endMs }: Props = $props();
	const clock = $derived(new FilmClock(endMs));
	const index = $derived(frameAt({ frames }, clock.at));
</script>

<div class="film">
	<img
		src={frameUrl(index)}
		alt="The page after {formatDuration(clock.at)}"
		{width}
		{height}
		style:max-width="{width < height ? 190 : 360}px"
	/>
	<div class="controls">
		<FilmControls {clock} pictures={frames.map((_, i) => frameUrl(i))} />
		<p class="figures">
			{formatDuration(clock.at)}, {Math.round((frames[index]?.progress ?? 0) * 100)} % painted
		</p>
		<p class="muted small">{frames.length} distinct frames in {formatDuration(endMs)}.</p>
	</div>
</div>

<style>
	.film {
		display: flex;
		gap: var(--gap-7);
		flex-wrap: wrap;
		align-items: start;
	}
	img {
		width: 100%;
		height: auto;
		border: 1px solid var(--rule);
		background: #fff;
	}
	.controls {
		flex: 1;
		min-width: 14rem;
		max-width: 30rem;
	}
	.small {
		font-size: var(--type-3);
	}
</style>
