<script lang="ts">
	import { metricDefinition } from '$core/wording/metricDefinition';
	/** Every figure with its band and what it costs, and a repeat visit beside the first. */
	import { METRICS, bandOf, type Metric } from '$core/metrics/catalogue';
	import { formatDifference, formatValue } from '$core/wording/format';
	import type { PartProps } from './partProps';
	import BandBar from '$lib/parts/BandBar.svelte';
	import Table from '$lib/parts/Table.svelte';
	import type { Column } from '$lib/parts/tableRows';

	let { data }: PartProps<'figures'> = $props();
	const record = $derived(data.record);
	const measured = $derived(METRICS.filter((metric) => record.figures[metric.id] !== null));
	const repeat = $derived(data.firstVisit ? measured.filter(({ id }) => data.firstVisit![id] !== null) : []);
	const costOf = ({ id }: Metric) => {
		const part = data.score.parts.find(({ metric }) => metric === id);
		return part?.cost == null ? '' : `${part.cost.toFixed(1)} of ${part.weight}`;
	};
	const columns: Column<Metric>[] = [
		{ key: 'name', name: 'Metric', isRowHead: true, text: ({ name }) => name },
		{ key: 'value', name: 'Value', number: true, text: ({ id }) => formatValue(id, record.figures[id]) },
		{ key: 'band', name: 'Band' },
		{ key: 'cost', name: 'Costs the score', number: true, text: costOf },
		{ key: 'definition', name: 'What it is', kind: 'muted', text: ({ id }) => metricDefinition(id) }
	];
	const visits: Column<Metric>[] = [
		{ key: 'name', name: 'Metric', isRowHead: true, text: ({ name }) => name },
		{
			key: 'first',
			name: 'First visit',
			number: true,
			text: ({ id }) => formatValue(id, data.firstVisit![id])
		},
		{
			key: 'repeat',
			name: 'Repeat visit',
			number: true,
			text: ({ id }) => formatValue(id, record.figures[id])
		},
		{
			key: 'difference',
			name: 'Difference',
			number: true,
			text: ({ id }) => formatDifference(id, record.figures[id]! - data.firstVisit![id]!)
		}
	];
</script>

<Table label="Table of figures" {columns} rows={measured} key={({ id }) => id}>
	{#snippet cell({ id })}
		{@const band = bandOf(id, record.figures[id])}
		{#if band}<BandBar {band} />{/if}
	{/snippet}
</Table>
{#if record.source === 'har'}<p class="muted small">
		What the HAR does not hold is unknown and not shown.
	</p>{/if}
{#if repeat.length}
	<h3>First visit and repeat visit</h3>
	<Table label="First visit against repeat visit" columns={visits} rows={repeat} key={({ id }) => id} />
{/if}
