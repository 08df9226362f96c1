<script lang="ts">
	/** What was equal, different or unknown between a variant and the baseline. */
	import { Button } from 'carbon-components-svelte';
	import Action from '$lib/parts/Action.svelte';
	import Table from '$lib/parts/Table.svelte';
	import type { Column } from '$lib/parts/tableRows';
	import type { FairnessText } from '$core/wording/fairness';
	import type { PartProps } from './partProps';
	import Awaited from './Awaited.svelte';

	let { data, pair, nameOf }: PartProps<'fairness'> = $props();
	let all = $state(false);
	const lines = $derived(data.fairness ?? []);
	const count = (state: FairnessText['state']) => lines.filter((line) => line.state === state).length;
	const shown = $derived(all ? lines : lines.filter((line) => line.state !== 'equal'));
	const isIntended = (line: FairnessText) => data.trial.intended.includes(line.id);
	const columns: Column<FairnessText>[] = $derived([
		{ key: 'name', name: 'What', isRowHead: true, text: (line) => line.name },
		{ key: 'state', name: 'State' },
		{ key: 'before', name: pair.baseline, kind: 'address', text: (line) => line.values[0] },
		{ key: 'after', name: nameOf(pair.id), kind: 'address', text: (line) => line.values[1] },
		{ key: 'meaning', name: 'What it means for the answer', kind: 'muted', text: (line) => line.meaning }
	]);
</script>

{#if data.fairness}
	<p>{count('equal')} equal, {count('differs')} different, {count('unknown')} unknown.</p>
	<Table
		label="Fairness of {nameOf(pair.id)} against {pair.baseline}"
		{columns}
		rows={shown}
		key={(line) => line.id}
	>
		{#snippet cell(line)}
			<span class={line.state}>{line.state}</span>
			{#if line.state === 'differs'}<Action
					action="?/intend"
					text={isIntended(line) ? 'Intended ✓' : 'Mark as intended'}
					about=": {line.name}"
					values={{ line: line.id }}
					pressed={isIntended(line)}
				/>{/if}
		{/snippet}
	</Table>
	<p class="no-print">
		<Button kind="ghost" size="small" on:click={() => (all = !all)}
			>{all ? 'Only what is not equal' : `Show the ${count('equal')} equal ones too`}</Button
		>
	</p>
{:else}<Awaited {data} />{/if}

<style>
	.differs {
		font-weight: 600;
	}
	.unknown,
	.equal {
		color: var(--muted);
	}
</style>
