<script lang="ts">
	/** What charts over time have in common: figures at round steps, days, flags of what was released, the menu. */
	import type { Snippet } from 'svelte';
	import ChartMenu from './ChartMenu.svelte';
	import type { HistoryScales } from './historyLayout';

	interface Props {
		/** Of the file that is copied. */
		name: string;
		caption: string;
		/** Null without readings: nothing is drawn. */
		places: HistoryScales | null;
		width: number;
		height: number;
		/** Room for names on the right. */
		right: number;
		markers: readonly { day: string; words: string }[];
		format: (value: number) => string;
		dayWords: (day: string) => string;
		csv: () => string | Promise<string>;
		children: Snippet<[HistoryScales]>;
	}
	let { name, caption, places, width, height, right, markers, format, dayWords, csv, children }: Props =
		$props();
	const LEFT = 62;
	const TOP = 16;
	const BOTTOM = 26;
	let drawn = $state<SVGSVGElement>();
	/** "13 Sep"; the first of a month is its name. */
	const shortDay = (day: string) =>
		dayWords(day)
			.replace(/^1 (\w{3}).*$/, '$1')
			.replace(/(\d+ \w{3})\w*( \d{4})$/, '$1');
</script>

<figure>
	<figcaption>{caption} <ChartMenu {name} {csv} svg={() => drawn} /></figcaption>
	{#if places}
		<svg
			bind:this={drawn}
			viewBox="0 0 {LEFT + width + right} {TOP + height + BOTTOM}"
			role="group"
			aria-label={caption}
		>
			<g transform="translate({LEFT},{TOP})">
				{#each places.rows as value (value)}
					<line class="grid" x2={width} y1={places.y(value)} y2={places.y(value)} />
					<text x="-8" y={places.y(value) + 4} text-anchor="end">{format(value)}</text>
				{/each}
				{#each places.days as day (day)}
					<line class="grid" x1={places.x(day)} x2={places.x(day)} y1={height} y2={height + 4} />
					<text x={places.x(day)} y={height + 18} text-anchor="middle">{shortDay(day)}</text>
				{/each}
				{#each markers.filter(({ day }) => places.isWithin(day)) as { day, words }, i (i)}
					<g role="img" aria-label="{dayWords(day)}: {words}">
						<title>{dayWords(day)}: {words}</title>
						<line class="flag" x1={places.x(day)} x2={places.x(day)} y1="-12" y2={height} />
						<path class="pennant" d="M{places.x(day)},-12h10l-3,4l3,4h-10z" />
					</g>
				{/each}
				{@render children(places)}
			</g>
		</svg>
	{/if}
</figure>

<style>
	svg {
		width: 100%;
		max-width: 62rem;
		font-size: var(--type-2);
	}
	.grid {
		stroke: var(--rule);
	}
	.flag {
		stroke: var(--action);
	}
	.pennant {
		fill: var(--action);
	}
	/* The drawing shrinks with a narrow screen, its words should not. */
	@media (max-width: 40rem) {
		svg {
			font-size: var(--type-7);
		}
	}
</style>
