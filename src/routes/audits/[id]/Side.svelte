<script lang="ts">
	/** Side checks: beside every score, and marked so. */
	import Table from '$lib/parts/Table.svelte';
	import type { Column } from '$lib/parts/tableRows';
	import type { AuditView } from '$lib/server/rooms/audits/view';

	type Row = AuditView['side'][number];
	let { side }: { side: AuditView['side'] } = $props();
	const columns: Column<Row>[] = [
		{ key: 'what', name: 'Check', isRowHead: true, text: ({ title }) => title },
		{ key: 'pages', name: 'Pages', text: ({ on }) => `${on[0]} of ${on[1]}` },
		{
			key: 'count',
			name: 'Elements',
			number: true,
			text: ({ kind, count }) => (kind === 'access' ? count : '')
		},
		{ key: 'where', name: 'Where' }
	];
</script>

<section>
	<h2>Side checks</h2>
	<p class="muted small">
		Outside every score and no part of an answer: accessibility (WCAG 2.2, levels A and AA, by axe-core), and
		what search engines and browsers ask of a page. A machine finds a part of what shuts people out.
	</p>
	<Table label="Side checks" {columns} rows={side} key={({ kind, check }) => `${kind}/${check}`}>
		{#snippet cell(row)}<span class="where small">{row.where.slice(0, 2).join(' · ')}</span>{/snippet}
	</Table>
</section>

<style>
	.where {
		overflow-wrap: anywhere;
	}
</style>
