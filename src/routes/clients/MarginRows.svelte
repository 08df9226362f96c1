<script lang="ts">
	/** Smallest shifts that matter to a client, where they differ from the house's. */
	import { untrack } from 'svelte';
	import { Button, NumberInput } from 'carbon-components-svelte';
	import { METRICS } from '$core/metrics/catalogue';
	import Choice from '$lib/parts/Choice.svelte';
	import Hidden from '$lib/parts/Hidden.svelte';
	import { freeMarginRow, houseMargin, marginRowsOf, marginsOf, withUnit, type MarginRow } from './marginRows';

	interface Props {
		/** As it was saved or typed. */
		json: string;
		wrong: string;
	}
	let { json, wrong }: Props = $props();
	let rows: MarginRow[] = $state(untrack(() => marginRowsOf(json)));
	const metrics = METRICS.map(({ id, name }) => ({ value: id as string, text: name }));
	const next = $derived(freeMarginRow(rows));
</script>

<div>
	<h3>Margins</h3>
	<p class="muted small">
		The smallest shift that matters, where it differs from the house’s: the larger of both.
	</p>
	{#each rows as row, i (i)}
		<div class="cells row" style:--cell="8.5rem">
			<Choice
				label="Metric"
				options={metrics}
				value={row.metric}
				onchange={(metric) => (rows[i] = houseMargin(metric))}
			/>
			<NumberInput
				hideSteppers
				labelText={withUnit('At least', row.metric)}
				size="sm"
				min={0}
				allowEmpty
				bind:value={row.absolute}
			/>
			<NumberInput
				hideSteppers
				labelText="And at least, %"
				size="sm"
				min={0}
				allowEmpty
				bind:value={row.percent}
			/>
			<Button kind="ghost" size="small" on:click={() => rows.splice(i, 1)}
				>Remove <span class="visually-hidden">margin {i + 1}</span></Button
			>
		</div>
	{/each}
	{#if wrong}<p class="wrong" role="alert">{wrong}</p>{/if}
	{#if next}<Button kind="ghost" size="small" on:click={() => next && rows.push(next)}>Add a margin</Button
		>{/if}
	<Hidden name="margins" value={marginsOf(rows)} />
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
