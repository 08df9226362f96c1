<script lang="ts">
	/** Tiers and what they cost. */
	import { untrack } from 'svelte';
	import { Button, NumberInput } from 'carbon-components-svelte';
	import Choice from '$lib/parts/Choice.svelte';
	import Field from '$lib/parts/Field.svelte';
	import Hidden from '$lib/parts/Hidden.svelte';
	import { newRow, priceRowsOf, pricesOf, type PriceRow } from './priceRows';

	interface Props {
		/** As it was saved or typed. */
		json: string;
		wrong: string;
	}
	let { json, wrong }: Props = $props();
	let rows: PriceRow[] = $state(untrack(() => priceRowsOf(json)));
	const PER = [
		{ value: 'month', text: 'month' },
		{ value: 'year', text: 'year' }
	];
</script>

<section class="panel">
	<h2>Tiers and prices</h2>
	<p class="muted small">
		In the client’s currency. An empty quota covers any number; without a price for more visits the tier stops
		beyond its quota.
	</p>
	{#each rows as row, i (i)}
		<fieldset>
			<legend class="visually-hidden">Tier {i + 1}</legend>
			<Field label="Tier" size="sm" bind:value={row.tier} />
			<NumberInput hideSteppers labelText="Price" size="sm" min={0} allowEmpty bind:value={row.price} />
			<Choice label="Per" options={PER} bind:value={row.per} />
			<NumberInput hideSteppers labelText="For sites" size="sm" min={1} allowEmpty bind:value={row.sites} />
			<NumberInput
				hideSteppers
				labelText="Visits a month"
				size="sm"
				min={0}
				allowEmpty
				bind:value={row.visits}
			/>
			<NumberInput
				hideSteppers
				labelText="Each 1,000 more"
				size="sm"
				min={0}
				allowEmpty
				bind:value={row.perThousand}
			/>
			<NumberInput
				labelText="First year off, %"
				size="sm"
				min={0}
				max={100}
				allowEmpty
				bind:value={row.percentOff}
			/>
			<NumberInput
				hideSteppers
				labelText="Set-up, hours"
				size="sm"
				min={0}
				allowEmpty
				bind:value={row.setupHours}
			/>
			<Button kind="ghost" size="small" on:click={() => rows.splice(i, 1)}
				>Remove <span class="visually-hidden">tier {i + 1}</span></Button
			>
		</fieldset>
	{/each}
	{#if wrong}<p class="wrong" role="alert">{wrong}</p>{/if}
	<Button kind="ghost" size="small" on:click={() => rows.push(newRow())}>Add a tier</Button>
	<Hidden name="prices" value={pricesOf(rows)} />
</section>

<style>
	fieldset {
		border: 0;
		padding: 0;
		margin: 0 0 var(--gap-6);
		display: grid;
		grid-template-columns: repeat(auto-fit, minmax(min(100%, 7.6rem), 1fr));
		gap: var(--gap-4);
		align-items: end;
	}
	.panel {
		margin-bottom: var(--gap-6);
	}
	fieldset :global(.bx--number),
	fieldset :global(input) {
		min-width: 0;
	}
</style>
