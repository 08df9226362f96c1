<script lang="ts">
	import { Button, Tag } from 'carbon-components-svelte';
	import { goto } from '$app/navigation';
	import { formatMoment } from '$core/wording/format';
	import Pager from '$lib/parts/Pager.svelte';
	import Table from '$lib/parts/Table.svelte';
	import type { Column } from '$lib/parts/tableRows';

	let { data } = $props();
	type Row = (typeof data.list.rows)[number];
	const STATUS = { running: 'under way', done: 'done', stopped: 'stopped' } as const;
	const columns: Column<Row>[] = [
		{ key: 'name', name: 'Audit', isRowHead: true },
		{ key: 'client', name: 'Client', text: ({ client }) => client },
		{ key: 'when', name: 'Begun', text: ({ createdAt }) => formatMoment(createdAt) },
		{ key: 'status', name: 'Status' },
		{
			key: 'causes',
			name: 'To do',
			number: true,
			text: ({ causes }) => (causes === null ? '' : String(causes))
		}
	];
</script>

<svelte:head><title>Audits – Zafra</title></svelte:head>

<div class="page">
	<div class="page-top">
		<h1>Audits</h1>
		<Button href="/audits/new" size="field" data-key="n">New audit</Button>
	</div>
	{#if data.list.rows.length}
		<Table label="Audits" {columns} rows={data.list.rows} key={({ id }) => id}>
			{#snippet cell(row, column)}
				{#if column.key === 'name'}<a href="/audits/{row.id}">{row.name}</a>{#if row.againOf}<span
							class="muted small"
						>
							again</span
						>{/if}
				{:else if row.status === 'running'}<span class="figures"
						>{row.progress.done} of {row.progress.total} loads</span
					>
				{:else}<Tag size="sm" type={row.status === 'done' ? 'teal' : 'gray'}>{STATUS[row.status]}</Tag>{/if}
			{/snippet}
		</Table>
		{#if data.list.total > 25}<Pager
				total={data.list.total}
				pageSize={25}
				page={data.list.page}
				onchange={(page) => void goto(`?page=${page}`)}
			/>{/if}
	{:else}
		<section class="panel">
			<h2>No audit yet</h2>
			<p>
				All pages that matter, on both devices, in one go: where each stands, and what to do about it, with the
				exact file and the proof.
			</p>
			<Button href="/audits/new" size="field">New audit</Button>
		</section>
	{/if}
</div>
