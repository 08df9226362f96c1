<script lang="ts">
	/** Whether a variant still does what the baseline does, once its records were compared. */
	import type { SendState } from '$core/trial/design/mustSend';
	import { wordFate } from '$core/wording/presence';
	import Table from '$lib/parts/Table.svelte';
	import type { Column } from '$lib/parts/tableRows';
	import type { PartProps } from './partProps';
	import Awaited from './Awaited.svelte';
	import Regressions from './Regressions.svelte';

	let { data, pair, nameOf }: PartProps<'broke'> = $props();
	interface Row {
		baseline: SendState;
		own: SendState;
	}
	const { sends } = $derived(data);
	const rows: Row[] = $derived(sends?.own.map((own, i) => ({ own, baseline: sends.baseline[i]! })) ?? []);
	const stateOf = (state: SendState) =>
		state.fate === 'sent' ? `sent in ${state.sent} of ${state.loads}` : wordFate(state);
	const columns: Column<Row>[] = $derived([
		{ key: 'name', name: 'Request', isRowHead: true, text: ({ own }) => own.name },
		{ key: 'baseline', name: pair.baseline, text: ({ baseline }) => stateOf(baseline) },
		{ key: 'own', name: nameOf(pair.id), text: ({ own }) => stateOf(own) }
	]);
</script>

{#if data.broke}<Regressions
		broke={data.broke}
		picture={data.picture ? `/api/trials/${data.trial.id}/pictures/${data.picture}` : null}
		baseline={pair.baseline}
		arm={nameOf(pair.id)}
	/>
	{#if sends}
		<h3>What must still be sent</h3>
		<Table label="What must still be sent" {columns} {rows} key={({ own }) => own.name} />
	{/if}
{:else}<Awaited {data} />{/if}
