<script lang="ts">
	/** What each variant does late: by itself once the page has settled, or only after an interaction. */
	import type { OwnerFate } from '$core/compare/late/fates';
	import { formatBytes, formatDifference, formatDuration } from '$core/wording/format';
	import Action from '$lib/parts/Action.svelte';
	import Table from '$lib/parts/Table.svelte';
	import type { Column } from '$lib/parts/tableRows';
	import type { PartProps } from './partProps';

	let { data, condition, pair }: PartProps<'held'> = $props();
	type Row = (typeof data.late)[number];
	const compared = $derived(data.arms.filter((arm) => !arm.reference));
	const nameOf = (id: number | null) => data.arms.find((arm) => arm.id === id)?.name ?? '';
	const conditionName = (id: string) => data.conditions.find((conditions) => conditions.id === id)?.name ?? id;
	const KINDS = { postponed: 'nobody moved', 'held-back': 'with an interaction' } as const;
	const stateOf = (row: Row) =>
		row.failed ?? (row.status === 'done' ? 'nothing was measured' : 'waits for the lab');
	const whenOf = ({ facts }: Row) =>
		facts && facts.requests ? formatDuration(Math.max(0, facts.fromMs - (facts.settledMs ?? 0))) : '–';
	const scoreWith = ({ facts }: Row) => {
		const added = facts?.added.score ?? null;
		return added === null
			? '–'
			: `${((facts!.figures.score ?? 0) + added).toFixed(0)} (${formatDifference('score', added)})`;
	};
	const columns: Column<Row>[] = [
		{ key: 'arm', name: 'Variant', text: (row) => nameOf(row.arm) },
		{ key: 'conditions', name: 'Conditions', text: (row) => conditionName(row.condition) },
		{ key: 'kind', name: 'How', text: (row) => KINDS[row.kind] },
		{
			key: 'requests',
			name: 'Late requests',
			number: true,
			text: (row) => row.facts?.requests ?? stateOf(row)
		},
		{
			key: 'bytes',
			name: 'Bytes',
			number: true,
			text: ({ facts }) => (facts ? formatBytes(facts.wireBytes) : '')
		},
		{
			key: 'script',
			name: 'Script',
			number: true,
			text: ({ facts }) => (facts ? formatDuration(facts.scriptMs) : '')
		},
		{
			key: 'when',
			name: 'After settling',
			number: true,
			text: (row) => (row.kind === 'postponed' ? whenOf(row) : '')
		},
		{ key: 'score', name: 'Score with it', number: true, text: (row) => (row.facts ? scoreWith(row) : '') },
		{ key: 'load', name: 'Load' }
	];
	const { fates } = $derived(data);
	const FATES = {
		loaded: 'while loading',
		postponed: 'postponed',
		'held-back': 'waits for interaction',
		removed: 'never'
	} as const;
	const amount = ({ requests, wireBytes }: OwnerFate['loaded']) =>
		requests ? `${requests}, ${formatBytes(wireBytes)}` : '–';
	const ownerColumns: Column<OwnerFate>[] = $derived([
		{ key: 'owner', name: 'Owner', isRowHead: true, text: ({ name }) => name },
		{ key: 'baseline', name: pair.baseline, number: true, text: ({ baseline }) => amount(baseline) },
		{ key: 'loaded', name: 'While loading', number: true, text: ({ loaded }) => amount(loaded) },
		{ key: 'postponed', name: 'By itself later', number: true, text: ({ postponed }) => amount(postponed) },
		{ key: 'heldBack', name: 'On interaction', number: true, text: ({ heldBack }) => amount(heldBack) },
		{
			key: 'fate',
			name: 'Comes',
			text: ({ fate, postponedMs }) =>
				fate === 'postponed' && postponedMs !== null
					? `${FATES[fate]}, at ${formatDuration(postponedMs)}`
					: FATES[fate]
		}
	]);
</script>

{#if fates.length}
	<h3>“{pair.name}” against “{pair.baseline}”, {condition.name}: requests and bytes by owner</h3>
	<Table
		label="What became of each owner’s requests"
		columns={ownerColumns}
		rows={fates}
		key={({ id }) => id}
		rowClass={({ fate }) => (fate === 'removed' ? 'aside' : '')}
	/>
{/if}
{#if data.late.length}
	<h3>The loads that showed it</h3>
	<Table label="Loads that waited on or made an interaction" {columns} rows={data.late} key={(row) => row.id}>
		{#snippet cell(row)}
			{#if row.load}<a href="/loads/{row.load}?open=held#held">Evidence</a>{/if}
		{/snippet}
	</Table>
{:else}<p class="muted">
		Nobody waited on once these pages had settled, and no interaction was simulated: whether a variant puts work
		off is not known.
	</p>{/if}
<div class="buttons no-print">
	{#each compared as arm (arm.id)}
		<Action
			action="?/late"
			text="Check what comes late: {arm.page ? `${arm.page}, ` : ''}{arm.name}"
			kind="tertiary"
			values={{ arm: arm.id }}
		/>
	{/each}
</div>

<style>
	h3 {
		margin: var(--gap-5) 0 var(--gap-3);
	}
</style>
