<svelte:options css="injected" />

<script lang="ts">
	/** Every load of each variant as a dot on one axis, its middle as a bar. */
	import { extent } from 'd3-array';
	import { scaleLinear } from 'd3-scale';
	import type { Unit } from '$core/metrics/catalogue';
	import { formatIn } from '$core/wording/format';
	import { localNumber } from '$core/wording/localNumber';
	import type { BlockBody } from '$core/report/view';

	interface Props {
		body: Extract<BlockBody, { kind: 'estimation' }>;
		language: 'en' | 'es';
	}
	let { body, language }: Props = $props();
	const ROW = 34;
	const AXIS = 24;
	/** Dots of one row lie in three lines, so that near ones are seen. */
	const LINES = 3;
	const TICKS = 4;

	function axisOf(arms: readonly { values: number[] }[]) {
		const [least = 0, most = 1] = extent(arms.flatMap(({ values }) => values));
		return scaleLinear([least, most === least ? least + 1 : most], [3, 97]).nice(TICKS);
	}
	const middle = (values: readonly number[]) => {
		const sorted = [...values].sort((a, b) => a - b);
		return (sorted[(sorted.length - 1) >> 1]! + sorted[sorted.length >> 1]!) / 2;
	};
</script>

{#each body.plots as plot, n (n)}
	{@const x = axisOf(plot.arms)}
	<figure>
		<figcaption>{plot.title}: {plot.shift}</figcaption>
		<div class="plot">
			<div class="names">
				{#each plot.arms as arm, i (i)}<span style:height="{ROW}px"
						><b dir="auto">{arm.name}</b> <span data-figure={arm.middle.ref}>{arm.middle.text}</span></span
					>{/each}
			</div>
			<svg width="100%" height={plot.arms.length * ROW + AXIS} role="img" aria-label={plot.title}>
				{#each x.ticks(TICKS) as tick (tick)}
					<line x1="{x(tick)}%" x2="{x(tick)}%" y2={plot.arms.length * ROW} stroke="var(--rule)" />
					<text x="{x(tick)}%" y={plot.arms.length * ROW + 16} text-anchor="middle"
						>{localNumber(formatIn(plot.unit as Unit, tick), language)}</text
					>
				{/each}
				{#each plot.arms as arm, row (row)}
					{#each arm.values as value, i (i)}
						<circle
							cx="{x(value)}%"
							cy={row * ROW + 9 + (i % LINES) * 7}
							r="3"
							fill="none"
							stroke={arm.colour}
							stroke-width="1.5"
						/>
					{/each}
					{#if arm.values.length}<line
							x1="{x(middle(arm.values))}%"
							x2="{x(middle(arm.values))}%"
							y1={row * ROW + 3}
							y2={row * ROW + ROW - 6}
							stroke={arm.colour}
							stroke-width="3"
						/>{/if}
				{/each}
			</svg>
		</div>
	</figure>
{/each}

<style>
	figure {
		margin: 0.5rem 0 1.2rem;
	}
	figcaption {
		font-size: 0.92rem;
		margin-bottom: 0.3rem;
	}
	.plot {
		display: grid;
		grid-template-columns: 11rem minmax(0, 1fr);
		gap: 0 0.6rem;
	}
	.names > span {
		display: block;
		font-size: 0.85rem;
		line-height: 1.2;
		overflow: hidden;
	}
	text {
		font-size: 11px;
		fill: var(--muted);
	}
	@media (max-width: 36rem) {
		.plot {
			grid-template-columns: 7rem minmax(0, 1fr);
		}
	}
</style>
