<script lang="ts">
	import { Button, Tag } from 'carbon-components-svelte';
	import { goto, invalidateAll } from '$app/navigation';
	import { formatMoment } from '$core/wording/format';
	import { describeLeftSecrets, type LeftSecret } from '$core/wording/leftSecrets';
	import FileField from '$lib/parts/FileField.svelte';
	import FilterBar from '$lib/parts/FilterBar.svelte';
	import Notice from '$lib/parts/Notice.svelte';
	import Table from '$lib/parts/Table.svelte';
	import { sendFile } from '$lib/upload';
	import type { Column } from '$lib/parts/tableRows';

	let { data } = $props();
	type Row = (typeof data.list)[number];
	let words = $state('');
	let problem = $state('');
	let left = $state('');
	const fits = (row: Row) =>
		`${row.name} ${row.sites.join(' ')} ${row.note}`.toLowerCase().includes(words.toLowerCase());
	const rows = $derived(data.list.filter(fits));
	const columns: Column<Row>[] = [
		{ key: 'client', name: 'Client', sort: (row) => row.name },
		{ key: 'sites', name: 'Sites', text: sitesOf },
		{ key: 'pages', name: 'Pages', number: true, text: (row) => row.pages, sort: (row) => row.pages },
		{
			key: 'chosen',
			name: 'In the sample',
			number: true,
			text: (row) => row.chosen,
			sort: (row) => row.chosen
		},
		{ key: 'trials', name: 'Trials', number: true, text: (row) => row.trials, sort: (row) => row.trials },
		{
			key: 'last',
			name: 'Newest trial',
			text: (row) => (row.lastAt ? formatMoment(row.lastAt) : 'none'),
			sort: (row) => row.lastAt
		}
	];
	function sitesOf({ sites, competitors }: Row): string {
		const others = competitors ? `${competitors} ${competitors === 1 ? 'competitor' : 'competitors'}` : '';
		return [sites.join(', ') || 'no site yet', others].filter(Boolean).join('; ');
	}
	async function readArchive(file: File) {
		const sent = await sendFile<{ id: number; left: LeftSecret[] }>('/api/clients/import', file);
		problem = sent.problem;
		left = describeLeftSecrets(sent.answer?.left ?? []);
		if (left) await invalidateAll();
		else if (sent.answer) await goto(`/clients/${sent.answer.id}`, { invalidateAll: true });
	}
</script>

<svelte:head><title>Clients – Zafra</title></svelte:head>

<div class="page">
	<div class="page-top">
		<h1>Clients</h1>
		<Button size="field" href="/clients/new" data-key="r">New client</Button>
	</div>
	{#if data.list.length}
		<FilterBar placeholder="Name, host or note" bind:words onsearch={() => undefined} />
		<Table label="Table of clients" {columns} {rows} key={({ id }) => id} size="medium">
			{#snippet cell(row)}
				<a class="name" href="/clients/{row.id}" data-row-link>{row.name}</a>
				{#if row.isArchived}<Tag size="sm" type="outline">archived</Tag>{/if}
				{#if row.running}<Tag size="sm" type="outline">{row.running} running</Tag>{/if}
				{#if row.note}<br /><span class="muted">{row.note}</span>{/if}
			{/snippet}
		</Table>
		{#if !rows.length}<p class="muted">No client fits.</p>{/if}
	{:else}
		<section class="panel empty">
			<h2>The first client</h2>
			<p>
				The work begins with a client and its sites: then come the pages that matter, and the questions about
				them.
			</p>
			<Button href="/clients/new" data-key="r">New client</Button>
		</section>
	{/if}
	<section class="file">
		<h2>From another Zafra</h2>
		<p class="muted small">
			A client that was exported there: its sites, pages, trials and loads come along, secrets do not.
		</p>
		{#if left}<Notice kind="success" title="The client was added to the list." text={left} />{/if}
		<FileField label="Choose an exported client" accept={['.zip']} wrong={problem} onfile={readArchive} />
	</section>
</div>

<style>
	.file {
		margin-top: var(--gap-8);
	}
</style>
