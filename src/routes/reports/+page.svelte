<script lang="ts">
	import { Button, Tag } from 'carbon-components-svelte';
	import { formatMoment } from '$core/wording/format';
	import { keepTyped } from '$lib/keepTyped';
	import Choice from '$lib/parts/Choice.svelte';
	import DayField from '$lib/parts/DayField.svelte';
	import FilterBar from '$lib/parts/FilterBar.svelte';
	import Table from '$lib/parts/Table.svelte';
	import type { Column } from '$lib/parts/tableRows';

	let { data } = $props();
	type Row = (typeof data.reports)[number];
	let words = $state('');
	let trial = $state('');
	let client = $state('');
	/** Of a report on a time; both empty for one on the pages as they are. */
	let from = $state('');
	let until = $state('');
	const rows = $derived(
		data.reports.filter(({ title, clientName }) =>
			`${title} ${clientName ?? ''}`.toLowerCase().includes(words.toLowerCase())
		)
	);
	const LANGUAGES = { en: 'English', es: 'Spanish' };
	const columns: Column<Row>[] = [
		{ key: 'title', name: 'Report', sort: ({ title }) => title },
		{
			key: 'client',
			name: 'Client',
			text: ({ clientName }) => clientName ?? '',
			sort: ({ clientName }) => clientName
		},
		{ key: 'language', name: 'Language', text: ({ language }) => LANGUAGES[language] },
		{
			key: 'version',
			name: 'Newest version',
			text: ({ number, frozenAt }) =>
				number && frozenAt ? `${number}, ${formatMoment(frozenAt)}` : 'never frozen',
			sort: ({ frozenAt }) => frozenAt
		},
		{ key: 'links', name: 'Links', number: true, text: ({ links }) => links },
		{ key: 'views', name: 'Views', number: true, text: ({ views }) => views, sort: ({ views }) => views },
		{
			key: 'changed',
			name: 'Changed',
			text: ({ changedAt }) => formatMoment(changedAt),
			sort: ({ changedAt }) => changedAt
		}
	];
	const trials = $derived([
		{ value: '', text: 'A trial …' },
		...data.trials.map(({ id, question }) => ({ value: String(id), text: question }))
	]);
	const clients = $derived([
		{ value: '', text: 'A client’s pages …' },
		...data.clients.map(({ id, name }) => ({ value: String(id), text: name }))
	]);
</script>

<svelte:head><title>Reports – Zafra</title></svelte:head>

<div class="page">
	<div class="page-top"><h1>Reports</h1></div>
	<form class="row begin" method="POST" action="?/create" use:keepTyped>
		<Choice
			label="New report on"
			name="trial"
			options={trials}
			bind:value={trial}
			onchange={() => (client = '')}
		/>
		<Choice label="or on" name="client" options={clients} bind:value={client} onchange={() => (trial = '')} />
		{#if client}
			<DayField label="From" name="from" bind:value={from} />
			<DayField label="until" name="until" bind:value={until} />
		{/if}
		<Button type="submit" size="field" data-key="r">Begin the report</Button>
	</form>
	{#if !data.hasAgency}
		<p class="muted">Reports carry your name and logo: <a href="/workshop/agency">enter them</a>.</p>
	{/if}
	{#if data.reports.length}
		<FilterBar placeholder="Title or client" bind:words onsearch={() => undefined} />
		<Table label="Table of reports" {columns} {rows} key={({ id }) => id} pageSize={25} size="medium">
			{#snippet cell(row)}
				<a class="title" href="/reports/{row.id}" data-row-link>{row.title}</a>
				{#if row.number === null}<Tag size="sm" type="outline">draft</Tag>{/if}
			{/snippet}
		</Table>
		{#if !rows.length}<p class="muted">No report fits.</p>{/if}
	{:else}
		<section class="panel empty">
			<h2>No report yet</h2>
			<p>
				A report begins with a finished trial, or with a client: its chosen pages as they are, or what happened
				between two days. A first draft is made at once.
			</p>
		</section>
	{/if}
</div>

<style>
	.begin {
		margin-bottom: var(--gap-7);
	}
</style>
