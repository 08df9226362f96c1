<script lang="ts">
	/** What each variant does only after an interaction. */
	import { formatBytes, formatDifference, formatDuration } from '$core/wording/format';
	import Action from '$lib/parts/Action.svelte';
	import Table from '$lib/parts/Table.svelte';
	import type { Column } from '$lib/parts/tableRows';
	import type { SheetView } from '$lib/server/trials/sheetView';

	let { data }: { data: SheetView } = $props();
	type Row = SheetView['nudged'][number];
	const compared = $derived(data.arms.filter((arm) => !arm.reference));
	const nameOf = (id: number | null) => data.arms.find((arm) => arm.id === id)?.name ?? '';
	const conditionName = (id: string) => data.conditions.find((conditions) => conditions.id === id)?.name ?? id;
	const stateOf = (row: Row) =>
		row.failed ?? (row.status === 'done' ? 'nothing was measured' : 'waits for the lab');
	const scoreWith = ({ heldBack, score }: Row) => {
		const withIt = heldBack?.figuresWith.score ?? null;
		return withIt === null ? '–' : `${withIt.toFixed(0)} (${formatDifference('score', withIt - (score ?? 0))})`;
	};
	const columns: Column<Row>[] = [
		{ key: 'arm', name: 'Variant', text: (row) => nameOf(row.arm) },
		{ key: 'conditions', name: 'Conditions', text: (row) => conditionName(row.condition) },
		{ key: 'requests', name: 'Requests', number: true, text: (row) => row.heldBack?.requests ?? stateOf(row) },
		{
			key: 'bytes',
			name: 'Bytes',
			number: true,
			text: (row) => (row.heldBack ? formatBytes(row.heldBack.wireBytes) : '')
		},
		{
			key: 'script',
			name: 'Script',
			number: true,
			text: (row) => (row.heldBack ? formatDuration(row.heldBack.scriptMs) : '')
		},
		{ key: 'score', name: 'Score with it', number: true, text: (row) => (row.heldBack ? scoreWith(row) : '') },
		{ key: 'load', name: 'Load' }
	];
</script>

{#if data.nudged.length}
	<Table label="What waits for interaction" {columns} rows={data.nudged} key={(row) => row.id}>
		{#snippet cell(row)}
			{#if row.load}<a href="/loads/{row.load}?open=held#held">Evidence</a>{/if}
		{/snippet}
	</Table>
{:else}<p class="muted">
		No interaction was simulated in these loads. Whether a variant waits for interaction is seen when the lab
		simulates one.
	</p>{/if}
<div class="buttons no-print">
	{#each compared as arm (arm.id)}
		<Action
			action="?/nudge"
			text="Simulate interaction: {arm.page ? `${arm.page}, ` : ''}{arm.name}"
			kind="tertiary"
			values={{ arm: arm.id }}
		/>
	{/each}
</div>

<style>
	.buttons {
		display: flex;
		flex-wrap: wrap;
		gap: 0.5rem;
		margin-top: 0.6rem;
	}
</style>
