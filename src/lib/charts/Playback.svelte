<script lang="ts">
	/** The frames at true speed and slowed, as one film. */
	import type { FrameRecord } from '$core/load/record';
	import { formatDuration } from '$core/wording/format';

	interface Props {
		frames: FrameRecord[];
		frameUrl: (index: number) => string;
		width: number;
		height: number;
		/** Where the film ends, ms. */
		endMs: number;
	}
	let { frames, frameUrl, width, height, endMs }: Props = $props();

	const SPEEDS = [
		[1, 'True speed'],
		[0.5, 'Half speed'],
		[0.25, 'Quarter speed']
	] as const;
	let speed = $state(1);
	// svelte-ignore state_referenced_locally
	let at = $state(endMs);
	let playing = $state(false);
	const index = $derived(
		Math.max(
			0,
			frames.findLastIndex((frame) => frame.atMs <= at)
		)
	);

	/** All pictures are there before the film runs, else it would show the network of the analyst. */
	async function play() {
		if (playing) return void (playing = false);
		await Promise.all(
			frames.map(
				(_, i) =>
					new Promise((done) => Object.assign(new Image(), { onload: done, onerror: done, src: frameUrl(i) }))
			)
		);
		if (at >= endMs) at = 0;
		playing = true;
		let last = performance.now();
		const tick = (now: number) => {
			if (!playing) return;
			at = Math.min(endMs, at + (now - last) * speed);
			last = now;
			if (at >= endMs) playing = false;
			else requestAnimationFrame(tick);
		};
		requestAnimationFrame(tick);
	}
</script>

<div class="film">
	<img
		src={frameUrl(index)}
		alt="The page after {formatDuration(at)}"
		{width}
		{height}
		style:max-width="{width < height ? 190 : 360}px"
	/>
	<div class="controls">
		<div class="row">
			<button onclick={play}>{playing ? 'Pause' : at >= endMs ? 'Play again' : 'Play'}</button>
			<label
				>Speed <select bind:value={speed}
					>{#each SPEEDS as [value, name] (value)}<option {value}>{name}</option>{/each}</select
				></label
			>
		</div>
		<label class="time"
			>Moment <input
				type="range"
				min="0"
				max={endMs}
				step={Math.max(1, Math.round(endMs / 400))}
				bind:value={at}
				oninput={() => {
					playing = false;
				}}
				aria-valuetext={formatDuration(at)}
			/></label
		>
		<p class="figures">{formatDuration(at)}, {Math.round((frames[index]?.progress ?? 0) * 100)} % painted</p>
		<p class="muted small">{frames.length} distinct frames in {formatDuration(endMs)}.</p>
	</div>
</div>

<style>
	.film {
		display: flex;
		gap: 1.4rem;
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
	.row {
		display: flex;
		gap: 1rem;
		align-items: center;
		flex-wrap: wrap;
		margin-bottom: 0.6rem;
	}
	button {
		background: var(--action);
		border: 0;
		color: var(--on-action);
		padding: 0.4rem 1.1rem;
		cursor: pointer;
	}
	label {
		color: var(--muted);
		font-size: 0.9rem;
	}
	.time input {
		width: 100%;
		accent-color: var(--action);
	}
	.small {
		font-size: 0.86rem;
	}
</style>
