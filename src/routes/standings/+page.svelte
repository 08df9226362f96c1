<script lang="ts">
	import { Button } from 'carbon-components-svelte';
	import { counted, formatMoment } from '$core/wording/format';
	import Table from '$lib/parts/Table.svelte';
	import type { Column } from '$lib/parts/tableRows';

	let { data } = $props();
	type Row = (typeof data.standings)[number];
	const columns: Column<Row>[] = [
		{ key: 'name', name: 'Standing', sort: ({ name }) => name },
		{
			key: 'client',
			name: 'Client',
			text: ({ clientName }) => clientName,
			sort: ({ clientName }) => clientName
		},
		{ key: 'type', name: 'Page type', text: ({ type }) => type ?? '', sort: ({ type }) => type },
		{ key: 'rank', name: 'Your page in the newest run' },
		{
			key: 'at',
			name: 'Newest run',
			text: ({ at }) => (at ? formatMoment(at) : 'none yet'),
			sort: ({ at }) => at
		},
		{
			key: 'next',
			name: 'Next',
			text: ({ state, nextAt }) => (state === 'paused' ? 'paused' : nextAt ? formatMoment(nextAt) : 'on demand')
		}
	];
</script>

<svelte:head><title>Standings – Zafra</title></svelte:head>

<div class="page">
	<div class="page-top">
		<h1>Standings</h1>
		{#if data.standings.length}<Button href="/standings/new" size="field" data-key="r">New standing</Button
			>{/if}
	</div>
	{#if data.standings.length}
		<Table label="Standings" {columns} rows={data.standings} key={({ id }) => id} pageSize={25} size="medium">
			{#snippet cell(row, column)}
				{#if column.key === 'name'}<a class="name" href="/standings/{row.id}" data-row-link>{row.name}</a><br
					/><span class="muted small">{counted(row.pages, 'page')}</span>
				{:else}
					{#each row.ranks as rank (rank.condition)}
						<div><b>{rank.words}</b> <span class="muted small">{rank.metric}, {rank.condition}</span></div>
					{:else}<span class="muted">no run yet</span>{/each}
				{/if}
			{/snippet}
		</Table>
	{:else}
		<section class="stack panel empty">
			<h2>No competitor is measured yet</h2>
			<p>
				A standing loads your page and those of competitors in turn, round by round, and says which place yours
				has and how sure that is, under every metric.
			</p>
			<Button href="/standings/new" data-key="r">New standing</Button>
		</section>
	{/if}
</div>
