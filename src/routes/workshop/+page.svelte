<script lang="ts">
	import { Button } from 'carbon-components-svelte';
	import { keeping } from '$lib/keeping';
	import Field from '$lib/parts/Field.svelte';
	import Hidden from '$lib/parts/Hidden.svelte';
	import Table from '$lib/parts/Table.svelte';
	import type { Column } from '$lib/parts/tableRows';
	import { formatIn } from '$core/wording/format';

	let { data, form } = $props();
	type Conditions = (typeof data.conditions)[number];
	type Site = (typeof data.sites)[number];
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
	const siteColumns: Column<Site>[] = [
		{ key: 'site', name: 'Site' },
		{ key: 'client', name: 'Client', text: (site) => site.client, sort: (site) => site.client },
		{ key: 'cdn', name: 'CDN hosts' }
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
						>Copy<span class="visually-hidden"> {conditions.name}</span></a
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
		<h2>Sites and their CDN hosts</h2>
		<p class="muted">
			Hosts of another domain that serve a site’s own files: they count as the site’s, not as a third party.
		</p>
		{#if data.sites.length}
			<Table label="Table of sites" columns={siteColumns} rows={data.sites} key={({ id }) => id}>
				{#snippet cell(site, column)}
					{#if column.key === 'site'}{site.name}<br /><span class="muted">{site.host}</span>
					{:else}
						<form method="POST" action="?/cdn" use:keeping class="cdn">
							<Hidden name="site" value={site.id} />
							<Field
								label="CDN hosts of {site.host}"
								hideLabel
								name="hosts"
								size="sm"
								value={form?.site === site.id ? String(form.typed) : site.cdnHosts}
								placeholder="none"
								wrong={form?.site === site.id ? (form.problem ?? '') : ''}
							/>
							<Button type="submit" kind="ghost" size="small"
								>Save<span class="visually-hidden"> for {site.host}</span></Button
							>
						</form>
					{/if}
				{/snippet}
			</Table>
		{:else}<p class="muted">No sites yet.</p>{/if}
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

<style>
	.cdn {
		display: flex;
		gap: 0.5rem;
		align-items: start;
		max-width: 24rem;
	}
</style>
