<script lang="ts">
	import { Button } from 'carbon-components-svelte';
	import { rollups } from 'd3-array';
	import { metricOf, type MetricId } from '$core/metrics/catalogue';
	import { medianOrNull } from '$core/stats/summary';
	import { counted, formatDay, formatMoment, formatValue } from '$core/wording/format';
	import { armColour } from '$lib/charts/armColour';
	import Lines from '$lib/charts/Lines.svelte';
	import Choice from '$lib/parts/Choice.svelte';
	import FieldLine from '$lib/parts/FieldLine.svelte';
	import Table from '$lib/parts/Table.svelte';
	import type { Column } from '$lib/parts/tableRows';

	let { data } = $props();
	type Row = { name: string } & (typeof data.conditions)[number]['loads'][number];
	const METRICS = ['lcp', 'score', 'ttfb', 'fcp', 'cls', 'tbt', 'full', 'wire', 'requests'] as const;
	let metric = $state<MetricId>('lcp');
	const options = METRICS.map((id) => ({ value: id as MetricId, text: metricOf(id).name }));
	const coloured = $derived(data.conditions.map((_, id) => ({ id, baseline: id === 0 })));
	const lines = $derived(
		data.conditions.map(({ name, loads }, i) => ({
			name,
			colour: armColour(coloured, i),
			points: rollups(
				loads,
				(own) => medianOrNull(own.flatMap(({ figures }) => figures[metric] ?? [])),
				({ at }) => at.slice(0, 10)
			).flatMap(([day, value]) => (value === null ? [] : [{ at: `${day}T12:00:00Z`, value }]))
		}))
	);
	const rows = $derived(
		data.conditions
			.flatMap(({ name, loads }) => loads.map((load): Row => ({ ...load, name })))
			.sort((a, b) => b.at.localeCompare(a.at))
	);
	const days = $derived(new Set(rows.map(({ at }) => at.slice(0, 10))).size);
	const columns: Column<Row>[] = [
		{ key: 'when', name: 'When', isRowHead: true, sort: ({ at }) => at },
		{ key: 'conditions', name: 'Conditions', text: ({ name }) => name, sort: ({ name }) => name },
		...METRICS.map((id) => ({
			key: id,
			name: metricOf(id).short,
			number: true,
			text: ({ figures }: Row) => formatValue(id, figures[id]),
			sort: ({ figures }: Row) => figures[id]
		}))
	];
</script>

<svelte:head><title>{data.address} over time – Zafra</title></svelte:head>

<div class="page">
	<div class="page-top">
		<h1>{data.address.replace(/^https?:\/\//, '')}</h1>
		<Button href="/audits/new?url={encodeURIComponent(data.address)}" kind="tertiary" size="field"
			>Audit it</Button
		>
	</div>
	<FieldLine rows={data.field} />
	{#if rows.length}
		<p class="muted">
			{counted(rows.length, 'load')} that count: calm, none left out, of the page as it is built now. Single loads
			scatter: whether something changed, a <a href="/trials/new">trial</a> or a <a href="/watch">watch</a> says.
		</p>
		<div class="metric"><Choice label="Metric" {options} bind:value={metric} /></div>
		{#if days > 1}<Lines
				of="address"
				name={metric}
				caption="{metricOf(metric).name}, the middle of each day"
				{lines}
				markers={[]}
				format={(value) => formatValue(metric, value)}
				dayWords={formatDay}
			/>{:else}<p class="muted">All of one day: a line comes with the second.</p>{/if}
		<Table label="Loads of this address" {columns} {rows} key={({ id }) => id} pageSize={25}>
			{#snippet cell(row)}<a href="/loads/{row.id}" data-row-link>{formatMoment(row.at)}</a>{/snippet}
		</Table>
	{:else}<p class="muted">No load of this address counts yet: <a href="/loads">load it</a>.</p>{/if}
</div>

<style>
	h1 {
		overflow-wrap: anywhere;
	}
	.metric {
		max-width: 20rem;
		margin: var(--gap-5) 0;
	}
</style>
