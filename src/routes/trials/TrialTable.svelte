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
		/** A line for each: its state, with what is done of it. */
		states: string;
	}
	let { trials, states }: Props = $props();
	const stateOf = $derived(new Map(states.split('\n').map((state, i) => [trials[i]?.id, state])));
	const columns = $derived<Column<Row>[]>([
		{ key: 'question', name: 'Question and answer', sort: (row) => row.question },
		{ key: 'client', name: 'Client', text: (row) => row.client, sort: (row) => row.client },
		{ key: 'kind', name: 'Kind', text: (row) => KINDS[row.kind], sort: (row) => row.kind },
		{ key: 'status', name: 'State', text: (row) => stateOf.get(row.id) ?? '', sort: (row) => row.status },
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
