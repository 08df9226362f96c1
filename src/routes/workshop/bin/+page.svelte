<script lang="ts">
	import { formatMoment } from '$core/wording/format';
	import Action from '$lib/parts/Action.svelte';
	import Table from '$lib/parts/Table.svelte';
	import type { Column } from '$lib/parts/tableRows';

	let { data } = $props();
	type Row = (typeof data.binned)[number];
	const KINDS = { marker: 'change on a site', component: 'component', block: 'block of a report' };
	const columns: Column<Row>[] = [
		{ key: 'name', name: 'What', isRowHead: true, text: ({ name }) => name, sort: ({ name }) => name },
		{ key: 'kind', name: 'Kind', text: ({ kind }) => KINDS[kind], sort: ({ kind }) => kind },
		{ key: 'client', name: 'Client', text: ({ clientName }) => clientName ?? 'none' },
		{
			key: 'deleted',
			name: 'Deleted',
			text: ({ deletedAt }) => formatMoment(deletedAt),
			sort: ({ deletedAt }) => deletedAt
		},
		{ key: 'restore', name: 'Restore', isUnnamed: true }
	];
</script>

<svelte:head><title>Bin – Zafra</title></svelte:head>

<div class="page">
	<div class="page-top"><h1>Bin</h1></div>
	<p class="muted">
		Releases and other changes on sites, components and blocks of reports stay here for {data.days} days after they
		were deleted.
	</p>
	{#if data.binned.length}
		<Table label="What was deleted" {columns} rows={data.binned} key={({ id }) => id}>
			{#snippet cell(row)}<Action
					action="?/restore"
					text="Restore"
					about={row.name}
					values={{ id: row.id }}
				/>{/snippet}
		</Table>
	{:else}<p>It is empty.</p>{/if}
</div>
