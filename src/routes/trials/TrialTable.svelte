<script lang="ts">
	/** Trials as rows, each with its answer. */
	import { formatMoment } from '$core/wording/format';
	import Strips from '$lib/parts/Strips.svelte';
	import Table from '$lib/parts/Table.svelte';
	import type { Column } from '$lib/parts/tableRows';
	import { KINDS } from '$lib/parts/trialNames';
	import type { TrialListView } from '$lib/server/rooms/trials/listView';

	type Row = TrialListView['trials'][number];
	interface Props {
		trials: readonly Row[];
		/** Its state, with what is done of it. */
		stateOf: (row: Row) => string;
	}
	let { trials, stateOf }: Props = $props();
	const columns = $derived<Column<Row>[]>([
		{ key: 'question', name: 'Question and answer', sort: (row) => row.question },
		{ key: 'client', name: 'Client', text: (row) => row.client, sort: (row) => row.client },
		{ key: 'kind', name: 'Kind', text: (row) => KINDS[row.kind], sort: (row) => row.kind },
		{ key: 'status', name: 'State', text: stateOf, sort: (row) => row.status },
		{ key: 'when', name: 'Started', text: (row) => formatMoment(row.when), sort: (row) => row.when }
	]);
</script>

<Table label="Table of trials" {columns} rows={trials} key={(row) => row.id} size="medium">
	{#snippet cell(row)}
		<a class="question" href="/trials/{row.id}" data-row-link>{row.question}</a>
		{#if row.answer.strips.length}<Strips answer={row.answer} />{/if}
	{/snippet}
</Table>

<style>
	.question {
		font-weight: 600;
		color: var(--ink);
	}
</style>
