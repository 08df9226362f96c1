<script lang="ts">
	/** The machine's speed before each of its newest loads, in order: a machine that changes is no fixed ground. */
	import { csvText } from './csvText';
	import { scaleLinear } from 'd3-scale';
	import ChartMenu from './ChartMenu.svelte';

	interface Props {
		speeds: readonly { at: string; speed: number }[];
		/** The middle of them. */
		usual: number;
	}
	let { speeds, usual }: Props = $props();
	const HEIGHT = 110;
	const LEFT = 46;
	let room = $state(800);
	let drawn: SVGSVGElement | undefined = $state();
	const x = $derived(scaleLinear([0, Math.max(1, speeds.length - 1)], [LEFT + 6, room - 6]));
	const most = $derived(Math.max(...speeds.map(({ speed }) => speed)));
	const y = $derived(scaleLinear([0, most * 1.1], [HEIGHT - 18, 8]));
	const csv = () =>
		csvText(
			['started_at', 'loops_per_ms'],
			speeds.map(({ at, speed }) => [at, speed])
		);
</script>

<figure class="plot" bind:clientWidth={room}>
	<svg
		bind:this={drawn}
		width={room}
		height={HEIGHT}
		viewBox="0 0 {room} {HEIGHT}"
		role="img"
		aria-label="{speeds.length} loads; usually {usual.toFixed(0)} loops per ms"
	>
		{#each y.ticks(3) as tick (tick)}
			<text x={LEFT - 8} y={y(tick) + 4} text-anchor="end">{tick}</text>
			<line x1={LEFT} x2={room} y1={y(tick)} y2={y(tick)} />
		{/each}
		<line x1={LEFT} x2={room} y1={y(usual)} y2={y(usual)} class="usual" />
		{#each speeds as { at, speed }, i (i)}<circle cx={x(i)} cy={y(speed)} r="2.2"
				><title>{speed.toFixed(0)} loops/ms, {new Date(at).toLocaleString('en-GB')}</title></circle
			>{/each}
		<text x={LEFT} y={HEIGHT - 3}>older</text>
		<text x={room - 4} y={HEIGHT - 3} text-anchor="end">newest load</text>
	</svg>
	<figcaption>
		Loops of fixed work per ms before each of the last {speeds.length} loads; the line is the middle,
		{usual.toFixed(0)}.
		<ChartMenu {csv} svg={() => drawn} name="machine-speed" />
	</figcaption>
</figure>

<style>
	line.usual {
		stroke: var(--ink);
		stroke-dasharray: 2 3;
	}
	circle {
		fill: var(--ink);
		fill-opacity: 0.55;
	}
</style>
