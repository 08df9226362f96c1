<script lang="ts">
	/** One figure of several pages over time, each with its name at its end. */
	import { csvText } from './csvText';
	import { placeHistory } from './historyLayout';
	import TimeChart from './TimeChart.svelte';

	interface Line {
		name: string;
		colour: string;
		points: readonly { at: string; value: number }[];
	}
	interface Props {
		/** Of what, and the metric. */
		of: string;
		name: string;
		caption: string;
		lines: readonly Line[];
		markers: readonly { day: string; words: string }[];
		format: (value: number) => string;
		dayWords: (day: string) => string;
	}
	let { of, name, caption, lines, markers, format, dayWords }: Props = $props();
	const WIDTH = 620;
	const HEIGHT = 190;
	const RIGHT = 190;
	/** Names that would overlap are set apart by this much. */
	const NAME_HEIGHT = 15;
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
			[of === 'standing' ? 'page' : 'conditions', 'at', name],
			lines.flatMap((line) => line.points.map(({ at, value }) => [line.name, at, value]))
		);
</script>

<TimeChart
	name="{of}-{name}"
	{caption}
	{places}
	width={WIDTH}
	height={HEIGHT}
	right={RIGHT}
	{markers}
	{format}
	{dayWords}
	{csv}
>
	{#snippet children(at)}
		{#each lines as line, i (i)}
			<path class="line" d={pathOf(line)} style:stroke={line.colour} />
			{#each line.points as point (point.at)}
				{@const words = `${line.name}, ${dayWords(point.at.slice(0, 10))}: ${format(point.value)}`}
				<g role="img" aria-label={words}>
					<title>{words}</title>
					<circle cx={at.x(point.at)} cy={at.y(point.value)} r="3.2" style:fill={line.colour} />
				</g>
			{/each}
		{/each}
		{#each names as end, i (i)}
			<text x={WIDTH + 10} y={end.y + 4} style:fill={end.colour}>{end.name}, {format(end.value)}</text>
		{/each}
	{/snippet}
</TimeChart>

<style>
	text {
		font-weight: 600;
	}
	.line {
		fill: none;
		stroke-width: 1.8;
	}
</style>
