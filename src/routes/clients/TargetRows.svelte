<script lang="ts">
	/** Levels that are good enough for a client. */
	import { untrack } from 'svelte';
	import { Button, NumberInput } from 'carbon-components-svelte';
	import { METRICS } from '$core/metrics/catalogue';
	import Choice from '$lib/parts/Choice.svelte';
	import Hidden from '$lib/parts/Hidden.svelte';
	import { withUnit } from './marginRows';

	interface Props {
		/** As it was saved or typed. */
		json: string;
		conditions: { id: string; name: string }[];
		wrong: string;
	}
	let { json, conditions, wrong }: Props = $props();
	interface Target {
		metric: string;
		conditions: string | null;
		value: number | null;
	}
	let rows: Target[] = $state(untrack(() => JSON.parse(json || '[]') as Target[]));
	const metrics = METRICS.map(({ id, name }) => ({ value: id as string, text: name }));
	const places = $derived([
		{ value: '', text: 'All conditions' },
		...conditions.map(({ id, name }) => ({ value: id, text: name }))
	]);
	const typed = $derived(JSON.stringify(rows.map((row) => ({ ...row, value: row.value ?? NaN }))));
</script>

<div>
	<h3>Targets</h3>
	<p class="muted small">
		Levels that are good enough. Without one, the good threshold of the metric stands beside each verdict.
	</p>
	{#each rows as row, i (i)}
		<div class="cells row" style:--cell="8.5rem">
			<Choice label="Metric" options={metrics} bind:value={row.metric} />
			<Choice
				label="Under"
				options={places}
				bind:value={() => row.conditions ?? '', (id) => (row.conditions = id || null)}
			/>
			<NumberInput
				hideSteppers
				labelText={withUnit('Good enough', row.metric)}
				size="sm"
				min={0}
				allowEmpty
				bind:value={row.value}
			/>
			<Button kind="ghost" size="small" on:click={() => rows.splice(i, 1)}
				>Remove <span class="visually-hidden">target {i + 1}</span></Button
			>
		</div>
	{/each}
	{#if wrong}<p class="wrong" role="alert">{wrong}</p>{/if}
	<Button kind="ghost" size="small" on:click={() => rows.push({ metric: 'lcp', conditions: null, value: 2500 })}
		>Add a target</Button
	>
	<Hidden name="targets" value={typed} />
</div>

<style>
	.row {
		margin-bottom: var(--gap-4);
	}
	.row :global(.bx--number),
	.row :global(input) {
		min-width: 0;
	}
</style>
