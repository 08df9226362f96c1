<script lang="ts">
	/** How many page views came in each hour of a day so far: a line in steps. */
	import { max } from 'd3-array';
	import { scaleLinear } from 'd3-scale';
	import ChartMenu from './ChartMenu.svelte';
	import { csvText } from './csvText';

	interface Props {
		/** Of the day's hours up to now: the hour on the wall, and how many came. */
		hours: readonly { hour: number; views: number }[];
		timeZone: string;
	}
	let { hours, timeZone }: Props = $props();
	const HEIGHT = 92;
	const TOP = 10;
	const BASE = 66;
	const LEFT = 40;
	let room = $state(800);
	let drawn: SVGSVGElement | undefined = $state();
	/** A whole day, so that its rest is seen to be open. */
	const step = $derived((room - LEFT) / Math.max(24, hours.length));
	const y = $derived(
		scaleLinear()
			.domain([0, Math.max(1, max(hours, ({ views }) => views) ?? 1)])
			.nice(2)
			.range([BASE, TOP])
	);
	/** Nobody comes by halves. */
	const ticks = $derived(y.ticks(2).filter(Number.isInteger));
	const line = $derived(
		hours
			.map(({ views }, i) => `${i ? 'L' : 'M'}${LEFT + i * step},${y(views)}H${LEFT + (i + 1) * step}`)
			.join('')
	);
	const every = $derived(step < 24 ? 6 : 3);
	const told = ({ hour, views }: (typeof hours)[number]) => `${hour} to ${(hour + 1) % 24} h: ${views}`;
	const csv = () =>
		csvText(
			['hour', 'page_views'],
			hours.map(({ hour, views }) => [hour, views])
		);
</script>

<figure class="plot" bind:clientWidth={room}>
	<svg
		bind:this={drawn}
		width={room}
		height={HEIGHT}
		viewBox="0 0 {room} {HEIGHT}"
		role="img"
		aria-label={hours.map(told).join('. ')}
	>
		{#each ticks as tick (tick)}
			<text x={LEFT - 8} y={y(tick) + 4} text-anchor="end">{tick.toLocaleString('en-GB')}</text>
			<line x1={LEFT} x2={room} y1={y(tick)} y2={y(tick)} />
		{/each}
		<path d={line} />
		{#each hours as hour, i (i)}
			<g>
				<title>{told(hour)}</title>
				<rect x={LEFT + i * step} y={TOP} width={step} height={BASE - TOP} class="hit" />
				{#if i % every === 0}<text x={LEFT + i * step} y={BASE + 16} text-anchor={i ? 'middle' : 'start'}
						>{hour.hour} h</text
					>{/if}
			</g>
		{/each}
	</svg>
	<figcaption>
		Page views in each hour since midnight, {timeZone}.
		<ChartMenu {csv} svg={() => drawn} name="page-views-today" />
	</figcaption>
</figure>

<style>
	path {
		fill: none;
		stroke: var(--ink);
		stroke-width: 1.5;
	}
	rect.hit {
		fill: transparent;
	}
</style>
