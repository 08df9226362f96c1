<script lang="ts">
	/** Levels that are good enough for a client. */
	import type { Writable } from 'svelte/store';
	import { Button, NumberInput } from 'carbon-components-svelte';
	import type { TypedClient } from '$lib/server/rooms/clients/form';
	import { METRICS } from '$core/metrics/catalogue';
	import Choice from '$lib/parts/Choice.svelte';
	import { withUnit } from './marginRows';

	interface Props {
		form: Writable<TypedClient>;
		conditions: { id: string; name: string }[];
		wrong: string;
	}
	let { form, conditions, wrong }: Props = $props();
	const metrics = METRICS.map(({ id, name }) => ({ value: id as string, text: name }));
	const places = $derived([
		{ value: '', text: 'All conditions' },
		...conditions.map(({ id, name }) => ({ value: id, text: name }))
	]);
</script>

<div>
	<h3>Targets</h3>
	<p class="muted small">
		Levels that are good enough. Without one, the good threshold of the metric stands beside each verdict.
	</p>
	{#each $form.targets as row, i (i)}
		<div class="cells row" style:--cell="8.5rem">
			<Choice
				label="Metric"
				options={metrics}
				name="targets.{i}.metric"
				bind:value={$form.targets[i]!.metric}
			/>
			<Choice
				label="Under"
				options={places}
				name="targets.{i}.conditions"
				bind:value={$form.targets[i]!.conditions}
			/>
			<NumberInput
				hideSteppers
				labelText={withUnit('Good enough', row.metric)}
				size="sm"
				min={0}
				allowEmpty
				name="targets.{i}.value"
				bind:value={$form.targets[i]!.value}
			/>
			<Button kind="ghost" size="small" on:click={() => ($form.targets = $form.targets.toSpliced(i, 1))}
				>Remove <span class="visually-hidden">target {i + 1}</span></Button
			>
		</div>
	{/each}
	{#if wrong}<p class="wrong" role="alert">{wrong}</p>{/if}
	<Button
		kind="ghost"
		size="small"
		on:click={() => ($form.targets = [...$form.targets, { metric: 'lcp', conditions: '', value: 2500 }])}
		>Add a target</Button
	>
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
