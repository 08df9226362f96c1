<script lang="ts">
	/** Several films at once, on one clock: each shows what its page showed at that moment. */
	import { frameAt, type Film } from '$core/compare/film';
	import { formatDuration } from '$core/wording/format';
	import { FilmClock } from './filmClock.svelte';
	import FilmControls from './FilmControls.svelte';

	interface Props {
		films: readonly Film[];
		nameOf: (arm: number) => string;
		colourOf: (arm: number) => string;
	}
	let { films, nameOf, colourOf }: Props = $props();
	const endOf = ({ frames, lcpMs }: Film) => Math.max(frames.at(-1)?.atMs ?? 0, lcpMs ?? 0);
	const frameUrl = ({ load }: Film, index: number) => `/api/loads/${load}/frames/${index + 1}`;
	const endMs = $derived(Math.max(...films.map(endOf)));
	const clock = $derived(new FilmClock(endMs));
	const pictures = $derived(films.flatMap((film) => film.frames.map((_, i) => frameUrl(film, i))));
</script>

<div class="row films">
	{#each films as film (film.arm)}
		{@const index = frameAt(film, clock.at)}
		{@const painted = Math.round(film.frames[index]!.progress * 100)}
		<figure style:max-width="{film.width < film.height ? 190 : 320}px">
			<figcaption>
				<i class="swatch" style:background={colourOf(film.arm)}></i><b>{nameOf(film.arm)}</b>
				<span class="figures"
					>{painted} % painted{painted === 100 ? `, at ${formatDuration(film.frames[index]!.atMs)}` : ''}</span
				>
			</figcaption>
			<img
				src={frameUrl(film, index)}
				alt="{nameOf(film.arm)} after {formatDuration(clock.at)}"
				width={film.width}
				height={film.height}
			/>
		</figure>
	{/each}
</div>
<div class="controls">
	<FilmControls {clock} {pictures} />
	<p class="figures">{formatDuration(clock.at)}</p>
</div>

<style>
	.films {
		margin-bottom: var(--gap-5);
	}
	figure {
		margin: 0;
		flex: 1 1 8rem;
	}
	figcaption {
		display: grid;
		grid-template-columns: auto 1fr;
		align-items: baseline;
		column-gap: var(--gap-3);
		margin-bottom: var(--gap-3);
	}
	figcaption .figures {
		grid-column: 2;
		color: var(--muted);
		font-size: var(--type-3);
	}
	img {
		display: block;
		width: 100%;
		height: auto;
		border: 1px solid var(--rule);
		background: #fff;
	}
	.controls {
		max-width: 30rem;
	}
</style>
