<script lang="ts">
	/** The frames at true speed and slowed, as one film. */
	import { Button, Select, SelectItem, Slider } from 'carbon-components-svelte';
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
			<Button size="small" on:click={play}>{playing ? 'Pause' : at >= endMs ? 'Play again' : 'Play'}</Button>
			<Select labelText="Speed" inline size="sm" bind:selected={speed}>
				{#each SPEEDS as [value, name] (value)}<SelectItem {value} text={name} />{/each}
			</Select>
		</div>
		<Slider
			labelText="Moment, ms"
			hideTextInput
			fullWidth
			min={0}
			max={Math.ceil(endMs)}
			step={Math.max(1, Math.round(endMs / 400))}
			value={Math.round(at)}
			on:input={(event) => {
				if (Math.abs(event.detail - at) < 1) return;
				playing = false;
				at = event.detail;
			}}
		/>
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
	.small {
		font-size: 0.86rem;
	}
</style>
