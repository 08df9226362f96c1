<script lang="ts">
	/** Every figure with its band and what it costs, and a repeat visit beside the first. */
	import { METRICS, bandOf } from '$core/metrics/catalogue';
	import { formatDifference, formatValue } from '$core/wording/format';
	import type { LoadView } from '$lib/server/loads/view';
	import BandBar from '$lib/parts/BandBar.svelte';
	import Scroller from '$lib/parts/Scroller.svelte';

	interface Props {
		data: LoadView;
	}
	let { data }: Props = $props();
	const record = $derived(data.record);
	const measured = $derived(METRICS.filter((metric) => record.figures[metric.id] !== null));
	const repeat = $derived(
		record.firstVisit ? measured.filter(({ id }) => record.firstVisit![id] !== null) : []
	);
</script>

<section id="figures" aria-labelledby="figures-title">
	<h2 id="figures-title">Figures</h2>
	<Scroller label="Table of figures">
		<table class="ledger">
			<thead
				><tr
					><th scope="col">Metric</th><th scope="col" class="number">Value</th><th scope="col">Band</th><th
						scope="col"
						class="number">Costs the score</th
					><th scope="col">What it is</th></tr
				></thead
			>
			<tbody>
				{#each measured as metric (metric.id)}
					{@const band = bandOf(metric.id, record.figures[metric.id])}
					{@const part = data.score.parts.find((one) => one.metric === metric.id)}
					<tr>
						<th scope="row">{metric.name}</th>
						<td class="number">{formatValue(metric.id, record.figures[metric.id])}</td>
						<td
							>{#if band}<BandBar {band} />{/if}</td
						>
						<td class="number">{part?.cost != null ? `${part.cost.toFixed(1)} of ${part.weight}` : ''}</td>
						<td class="muted">{metric.definition}</td>
					</tr>
				{/each}
			</tbody>
		</table>
	</Scroller>
	{#if record.source === 'har'}<p class="muted small">
			What the HAR does not hold is unknown and not shown.
		</p>{/if}
	{#if repeat.length}
		<h3>First visit and repeat visit</h3>
		<Scroller label="First visit against repeat visit">
			<table class="ledger">
				<thead
					><tr
						><th scope="col">Metric</th><th scope="col" class="number">First visit</th><th
							scope="col"
							class="number">Repeat visit</th
						><th scope="col" class="number">Difference</th></tr
					></thead
				>
				<tbody>
					{#each repeat as metric (metric.id)}
						<tr
							><th scope="row">{metric.name}</th><td class="number"
								>{formatValue(metric.id, record.firstVisit![metric.id])}</td
							><td class="number">{formatValue(metric.id, record.figures[metric.id])}</td><td class="number"
								>{formatDifference(metric.id, record.figures[metric.id]! - record.firstVisit![metric.id]!)}</td
							></tr
						>
					{/each}
				</tbody>
			</table>
		</Scroller>
	{/if}
</section>

<style>
	th[scope='row'] {
		font-weight: 400;
	}
	h3 {
		margin-top: 1rem;
	}
</style>
