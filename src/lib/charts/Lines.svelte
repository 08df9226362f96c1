<script lang="ts">
	/** One figure of several pages over time, each with its name at its end. */
	import ChartMenu from './ChartMenu.svelte';
	import { csvText } from './csvText';
	import { placeHistory } from './historyLayout';

	interface Line {
		name: string;
		colour: string;
		points: readonly { at: string; value: number }[];
	}
	interface Props {
		name: string;
		caption: string;
		lines: readonly Line[];
		markers: readonly { day: string; words: string }[];
		format: (value: number) => string;
		dayWords: (day: string) => string;
	}
	let { name, caption, lines, markers, format, dayWords }: Props = $props();
	const WIDTH = 620;
	const HEIGHT = 190;
	const LEFT = 62;
	const TOP = 16;
	const RIGHT = 190;
	/** Names that would overlap are set apart by this much. */
	const NAME_HEIGHT = 15;
	let drawn = $state<SVGSVGElement>();
	const all = $derived(
		lines
			.flatMap(({ points }) => points.map(({ at, value }) => ({ at, middle: value, low: value, high: value })))
			.sort((a, b) => a.at.localeCompare(b.at))
	);
	const places = $derived(placeHistory(all, [], WIDTH, HEIGHT));
	const names = $derived.by(() => {
		const ends = lines
			.flatMap((line) => {
				const last = line.points.at(-1);
				return last && places
					? [{ name: line.name, colour: line.colour, value: last.value, y: places.y(last.value) }]
					: [];
			})
			.sort((a, b) => a.y - b.y);
		let free = -Infinity;
		return ends.map((end) => {
			const y = Math.max(end.y, free);
			free = y + NAME_HEIGHT;
			return { ...end, y };
		});
	});
	const pathOf = ({ points }: Line) =>
		points
			.map(({ at, value }, i) => `${i ? 'L' : 'M'}${places!.x(at).toFixed(1)} ${places!.y(value).toFixed(1)}`)
			.join('');
	const csv = () =>
		csvText(
			['page', 'at', name],
			lines.flatMap((line) => line.points.map(({ at, value }) => [line.name, at, value]))
		);
	const shortDay = (day: string) => dayWords(day).replace(/(\d+ \w{3})\w*( \d{4})$/, '$1');
</script>

<figure>
	<figcaption>{caption} <ChartMenu name="standing-{name}" {csv} svg={() => drawn} /></figcaption>
	{#if places}
		<svg
			bind:this={drawn}
			viewBox="0 0 {LEFT + WIDTH + RIGHT} {TOP + HEIGHT + 26}"
			role="group"
			aria-label={caption}
		>
			<g transform="translate({LEFT},{TOP})">
				{#each places.rows as value (value)}
					<line class="grid" x2={WIDTH} y1={places.y(value)} y2={places.y(value)} />
					<text x="-8" y={places.y(value) + 4} text-anchor="end">{format(value)}</text>
				{/each}
				{#each places.days as day (day)}<text x={places.x(day)} y={HEIGHT + 18} text-anchor="middle"
						>{shortDay(day)}</text
					>{/each}
				{#each markers.filter(({ day }) => places.isWithin(day)) as { day, words } (day + words)}
					<g role="img" aria-label="{dayWords(day)}: {words}">
						<title>{dayWords(day)}: {words}</title>
						<line class="flag" x1={places.x(day)} x2={places.x(day)} y1="-12" y2={HEIGHT} />
						<path class="pennant" d="M{places.x(day)},-12h10l-3,4l3,4h-10z" />
					</g>
				{/each}
				{#each lines as line (line.name)}
					<path class="line" d={pathOf(line)} style:stroke={line.colour} />
					{#each line.points as { at, value } (at)}
						<g role="img" aria-label="{line.name}, {dayWords(at.slice(0, 10))}: {format(value)}">
							<title>{line.name}, {dayWords(at.slice(0, 10))}: {format(value)}</title>
							<circle cx={places.x(at)} cy={places.y(value)} r="3.2" style:fill={line.colour} />
						</g>
					{/each}
				{/each}
				{#each names as end (end.name)}
					<text x={WIDTH + 10} y={end.y + 4} style:fill={end.colour} class="name"
						>{end.name}, {format(end.value)}</text
					>
				{/each}
			</g>
		</svg>
	{/if}
</figure>

<style>
	figure {
		margin: 0;
	}
	svg {
		width: 100%;
		max-width: 62rem;
	}
	text {
		font-size: 12px;
		fill: var(--muted);
	}
	.name {
		font-weight: 600;
	}
	.grid {
		stroke: var(--rule);
	}
	.line {
		fill: none;
		stroke-width: 1.8;
	}
	.flag {
		stroke: var(--action);
	}
	.pennant {
		fill: var(--action);
	}
	@media (max-width: 40rem) {
		text {
			font-size: 21px;
		}
	}
</style>
