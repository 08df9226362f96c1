<script lang="ts">
	/** The 75th percentile, window by window, small: steps, since windows that end a week apart share most visits. */
	interface Props {
		name: string;
		points: readonly { until: string; p75: number }[];
		format: (value: number) => string;
	}
	let { name, points, format }: Props = $props();
	const WIDTH = 110;
	const HEIGHT = 22;
	const least = $derived(Math.min(...points.map(({ p75 }) => p75)) * 0.9);
	const most = $derived(Math.max(...points.map(({ p75 }) => p75)) * 1.1);
	const xOf = (i: number) => (i / points.length) * WIDTH;
	const yOf = (value: number) => HEIGHT - ((value - least) / (most - least || 1)) * HEIGHT;
	const path = $derived(
		points
			.map(({ p75 }, i) => `${i ? 'V' : `M${xOf(0)} `}${yOf(p75).toFixed(1)}H${xOf(i + 1).toFixed(1)}`)
			.join('')
	);
	const words = $derived(
		`${name}: ${points.length} windows, ${format(points[0]?.p75 ?? 0)} at first, ${format(points.at(-1)?.p75 ?? 0)} now`
	);
</script>

{#if points.length > 1}<svg viewBox="0 0 {WIDTH} {HEIGHT}" role="img" aria-label={words}
		><title>{words}</title><path d={path} /></svg
	>{:else}<span class="muted">–</span>{/if}

<style>
	svg {
		width: 110px;
		height: 22px;
	}
	path {
		fill: none;
		stroke: var(--ink);
		stroke-width: 1.5;
	}
</style>
