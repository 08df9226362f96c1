<script lang="ts">
	/** Variants as rows, equal time steps as columns; LCP and shift frames underlined with words. */
	import { frameAt, type Film } from '$core/compare/film';
	import { formatDuration } from '$core/wording/format';

	interface Props {
		films: Film[];
		nameOf: (arm: number) => string;
		colourOf: (arm: number) => string;
	}
	let { films, nameOf, colourOf }: Props = $props();
	const MOST_COLUMNS = 10;
	const end = $derived(
		Math.max(...films.map((film) => Math.max(film.frames.at(-1)?.atMs ?? 0, film.lcpMs ?? 0)))
	);
	/** A round step that gives at most ten columns. */
	const step = $derived(
		[50, 100, 200, 250, 500, 1000, 2000, 5000, 10_000].find((size) => end / size <= MOST_COLUMNS - 1) ?? 20_000
	);
	const times = $derived(Array.from({ length: Math.ceil(end / step) + 1 }, (_, i) => i * step));
	function noteOf(film: Film, i: number): string {
		const [from, to] = [i === 0 ? -1 : times[i - 1]!, times[i]!];
		const within = (ms: number) => ms > from && ms <= to;
		const parts = [
			film.lcpMs !== null && within(film.lcpMs) && 'LCP',
			film.shiftsMs.some(within) && 'shift'
		].filter(Boolean);
		return parts.join(', ');
	}
</script>

<figure>
	<table>
		<thead
			><tr
				><th scope="col">Variant</th>{#each times as time (time)}<th scope="col" class="figures"
						>{formatDuration(time)}</th
					>{/each}</tr
			></thead
		>
		<tbody>
			{#each films as film (film.arm)}
				<tr>
					<th scope="row"
						><i class="swatch" style:background={colourOf(film.arm)}></i>{nameOf(film.arm)}<br /><a
							href="/loads/{film.load}#frames">this load</a
						></th
					>
					{#each times as time, i (time)}
						{@const index = frameAt(film, time)}
						{@const note = noteOf(film, i)}
						<td class:noted={note !== ''}>
							<img
								src="/api/loads/{film.load}/frames/{index + 1}"
								alt="{nameOf(film.arm)} after {formatDuration(time)}, {Math.round(
									film.frames[index]!.progress * 100
								)} % painted"
								width={film.width}
								height={film.height}
								loading="lazy"
								style:width="{film.width < film.height ? 60 : 96}px"
							/>
							<span>{note}</span>
						</td>
					{/each}
				</tr>
			{/each}
		</tbody>
	</table>
	<figcaption>
		The load in the middle of each variant, every {formatDuration(step)}; a word stands under the frame in which
		the largest element came or something moved.
	</figcaption>
</figure>

<style>
	table {
		border-collapse: collapse;
	}
	th,
	td {
		padding: 0 var(--gap-3) var(--gap-4) 0;
		vertical-align: top;
		font-size: var(--type-2);
		font-weight: 400;
		text-align: left;
	}
	thead th {
		color: var(--muted);
	}
	th[scope='row'] {
		min-width: 7rem;
		max-width: 10rem;
		font-weight: 600;
	}
	th a {
		font-weight: 400;
	}
	img {
		display: block;
		height: auto;
		border: 1px solid var(--rule);
		background: #fff;
	}
	.noted img {
		border-bottom: 3px solid var(--ink);
	}
	span {
		font-weight: 600;
	}
</style>
