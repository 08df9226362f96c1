<script lang="ts">
	/** Pages under one set of conditions: each metric with its range and band, and what is worst. */
	import { metricOf, type MetricId } from '$core/metrics/catalogue';
	import type { AuditView } from '$lib/server/rooms/audits/view';
	import Table from '$lib/parts/Table.svelte';
	import type { Column } from '$lib/parts/tableRows';
	import LevelCell from './LevelCell.svelte';

	type Row = AuditView['pages'][number];
	let { rows }: { rows: readonly Row[] } = $props();
	const METRICS: readonly MetricId[] = ['score', 'ttfb', 'fcp', 'lcp', 'tbt', 'cls', 'wire'];
	const pathOf = (url: string) => {
		const { host, pathname, search } = new URL(url);
		return hosts > 1 ? `${host}${pathname}${search}` : `${pathname}${search}`;
	};
	const hosts = $derived(new Set(rows.map(({ url }) => new URL(url).host)).size);
	const columns = $derived<Column<Row>[]>([
		{ key: 'page', name: 'Page', isRowHead: true, kind: 'address' },
		...METRICS.map((metric) => ({ key: metric, name: metricOf(metric).short, number: true })),
		{ key: 'heaviest', name: 'Most from others', text: ({ heaviest }: Row) => heaviest },
		{ key: 'findings', name: 'Findings', number: true }
	]);
	const usual = ({ findings }: Row) => findings.filter(({ isUsual }) => isUsual).length;
</script>

<p class="muted small">
	Medians, with the least and the most below; unmarked levels are good. In bold: the worst of its page.
</p>
<div class="pages">
	<Table label="Where each page stands" {columns} {rows} key={({ page, condition }) => `${page}/${condition}`}>
		{#snippet cell(row, column)}
			{#if column.key === 'page'}
				{#if row.loads[0]}<a href="/loads/{row.loads[0]}" title={row.url}>{pathOf(row.url)}</a>{:else}{pathOf(
						row.url
					)}{/if}
				{#if row.field}<br /><span class="muted small" title={row.field.scopeWords}
						>visitors: {row.field.words}{row.field.scope === 'origin' ? ' (whole site)' : ''}</span
					>{/if}
				{#if row.failed}<br /><span class="wrong small">{row.failed} failed</span>{/if}
				{#if row.good === 0}<br /><span class="muted small">no good load yet</span>{/if}
			{:else if column.key === 'findings'}{usual(row)}
			{:else}<LevelCell
					level={row.metrics[column.key as MetricId] ?? null}
					isWorst={row.worst === column.key}
				/>{/if}
		{/snippet}
	</Table>
</div>

<style>
	.pages :global(th[scope='row']) {
		min-width: 9rem;
	}
</style>
