<script lang="ts">
	/** Shares of visits that had it good, needing improvement, poor: one bar of three, with its words. */
	interface Props {
		name: string;
		/** 0 to 1 each. */
		shares: readonly [number, number, number];
	}
	let { name, shares }: Props = $props();
	const BANDS = ['good', 'needs improvement', 'poor'] as const;
	const percent = (share: number) => `${Math.round(share * 100)} %`;
	const words = $derived(`${name}: ${BANDS.map((band, i) => `${band} ${percent(shares[i]!)}`).join(', ')}`);
	const starts = $derived([0, shares[0], shares[0] + shares[1]]);
</script>

<svg viewBox="0 0 100 8" preserveAspectRatio="none" role="img" aria-label={words}>
	<title>{words}</title>
	{#each BANDS as band, i (band)}
		<rect class={band.replace(' ', '-')} x={starts[i]! * 100} width={shares[i]! * 100} y="0" height="8" />
	{/each}
	<line x1={shares[0] * 100} x2={shares[0] * 100} y1="0" y2="8" />
</svg>

<style>
	svg {
		display: block;
		width: 100%;
		min-width: 4.5rem;
		height: 0.5rem;
	}
	.good {
		fill: var(--better);
	}
	.needs-improvement {
		fill: var(--middling);
	}
	.poor {
		fill: var(--worse);
	}
	line {
		stroke: var(--panel);
		stroke-width: 1;
		vector-effect: non-scaling-stroke;
	}
</style>
