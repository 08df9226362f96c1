<script lang="ts">
	/** Smallest shifts that matter to a client, where they differ from the house's. */
	import type { Writable } from 'svelte/store';
	import { Button, NumberInput } from 'carbon-components-svelte';
	import type { TypedClient } from '$lib/server/rooms/clients/form';
	import { METRICS } from '$core/metrics/catalogue';
	import Choice from '$lib/parts/Choice.svelte';
	import { freeMarginRow, houseMargin, withUnit } from './marginRows';

	interface Props {
		form: Writable<TypedClient>;
		wrong: string;
	}
	let { form, wrong }: Props = $props();
	const metrics = METRICS.map(({ id, name }) => ({ value: id as string, text: name }));
	const next = $derived(freeMarginRow($form.margins));
</script>

<div>
	<h3>Margins</h3>
	<p class="muted small">
		The smallest shift that matters, where it differs from the house’s: the larger of both.
	</p>
	{#each $form.margins as row, i (i)}
		<div class="cells row" style:--cell="8.5rem">
			<Choice
				label="Metric"
				options={metrics}
				name="margins.{i}.metric"
				value={row.metric}
				onchange={(metric) => ($form.margins[i] = houseMargin(metric))}
			/>
			<NumberInput
				hideSteppers
				labelText={withUnit('At least', row.metric)}
				size="sm"
				min={0}
				allowEmpty
				name="margins.{i}.absolute"
				bind:value={$form.margins[i]!.absolute}
			/>
			<NumberInput
				hideSteppers
				labelText="And at least, %"
				size="sm"
				min={0}
				allowEmpty
				name="margins.{i}.percent"
				bind:value={$form.margins[i]!.percent}
			/>
			<Button kind="ghost" size="small" on:click={() => ($form.margins = $form.margins.toSpliced(i, 1))}
				>Remove <span class="visually-hidden">margin {i + 1}</span></Button
			>
		</div>
	{/each}
	{#if wrong}<p class="wrong" role="alert">{wrong}</p>{/if}
	{#if next}<Button
			kind="ghost"
			size="small"
			on:click={() => next && ($form.margins = [...$form.margins, next])}>Add a margin</Button
		>{/if}
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
