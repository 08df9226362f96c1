<script lang="ts">
	import { Button } from 'carbon-components-svelte';
	import Table from '$lib/parts/Table.svelte';
	import type { Column } from '$lib/parts/tableRows';
	import { formatIn } from '$core/wording/format';

	let { data } = $props();
	type Conditions = (typeof data.conditions)[number];
	type Metric = (typeof data.metrics)[number];
	const keyOf = ({ id, builtIn, changed }: Conditions) =>
		`${id}${builtIn ? `, ships with Zafra${changed ? ', changed' : ''}` : ''}`;
	const conditionsColumns: Column<Conditions>[] = [
		{ key: 'name', name: 'Name' },
		{ key: 'what', name: 'What they are' },
		{ key: 'key', name: 'Key', text: keyOf },
		{ key: 'copy', name: 'Copy', isUnnamed: true }
	];
	const hostColumns: Column<(typeof data.hostMap)[number]>[] = [
		{ key: 'host', name: 'Host', text: (rule) => rule.pattern },
		{ key: 'to', name: 'Goes to', text: (rule) => rule.to }
	];
	const threshold = ({ unit, thresholds }: Metric, band: 'good' | 'poor') =>
		thresholds ? formatIn(unit, thresholds[band]) : '';
	const metricColumns: Column<Metric>[] = [
		{ key: 'metric', name: 'Metric', text: ({ name }) => name },
		{ key: 'weight', name: 'Weight', number: true, text: ({ id }) => data.recipe.weights[id] ?? '' },
		{ key: 'good', name: 'Good up to', number: true, text: (metric) => threshold(metric, 'good') },
		{ key: 'poor', name: 'Poor above', number: true, text: (metric) => threshold(metric, 'poor') },
		{
			key: 'margin',
			name: 'Margin, the larger of',
			number: true,
			text: ({ unit, margin }) =>
				`${formatIn(unit, margin.absolute)}${margin.relative ? ` and ${margin.relative * 100} %` : ''}`
		}
	];
</script>

<svelte:head><title>Workshop – Zafra</title></svelte:head>

<div class="page">
	<div class="page-top">
		<h1>Workshop</h1>
		<Button size="field" href="/workshop/conditions/new" data-key="r">New conditions</Button>
	</div>
	<section>
		<h2>The lab</h2>
		<p>
			{data.fitness} <a href="/workshop/lab">How calm this machine is, and what it can see</a>
		</p>
	</section>
	<section>
		<h2>The agency</h2>
		<p>Name, logo, colour and standing words of its reports: <a href="/workshop/agency">edit them</a></p>
	</section>
	<section>
		<h2>Components</h2>
		<p>
			What the agency’s sites are made of, what it costs and by what it is known:
			<a href="/workshop/components">the library</a>
		</p>
	</section>
	<section>
		<h2>Bin</h2>
		<p>
			Deleted changes, components and report blocks stay for 30 days: <a href="/workshop/bin">open the bin</a>
		</p>
	</section>
	<section>
		<h2>Conditions</h2>
		<p class="muted">
			How pages are loaded. A trial saves a frozen copy, so that a change here never touches what was measured.
		</p>
		<Table label="Table of conditions" columns={conditionsColumns} rows={data.conditions} key={({ id }) => id}>
			{#snippet cell(conditions, column)}
				{#if column.key === 'name'}<a href="/workshop/conditions/{conditions.id}" data-row-link
						>{conditions.name}</a
					>
				{:else if column.key === 'what'}{conditions.summary}{conditions.summary ? '. ' : ''}<span
						class="muted figures">{conditions.detail}</span
					>
				{:else}<a href="/workshop/conditions/new?from={conditions.id}"
						>Copy <span class="visually-hidden">{conditions.name}</span></a
					>{/if}
			{/snippet}
		</Table>
	</section>
	<section>
		<h2>Host mapping</h2>
		{#if data.hostMap.length}
			<Table label="Host mapping" columns={hostColumns} rows={data.hostMap} key={({ pattern }) => pattern} />
		{:else}<p class="muted">
				None. ZAFRA_HOST_MAP sends hosts elsewhere, for a new server before its name is switched.
			</p>{/if}
	</section>
	<section>
		<h2>Score recipe {data.recipe.version} and margins</h2>
		<Table
			label="Table of anchors and margins"
			columns={metricColumns}
			rows={data.metrics}
			key={({ id }) => id}
		/>
	</section>
</div>
