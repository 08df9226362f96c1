<script lang="ts">
	/** Tiers and what they cost. */
	import type { Writable } from 'svelte/store';
	import { Button, NumberInput } from 'carbon-components-svelte';
	import Choice from '$lib/parts/Choice.svelte';
	import Field from '$lib/parts/Field.svelte';
	import type { TypedComponent } from '$lib/server/rooms/setups/form';
	import { newRow } from './priceRows';

	interface Props {
		form: Writable<TypedComponent>;
		wrong: string;
	}
	let { form, wrong }: Props = $props();
	const FIGURES = [
		{ key: 'sites', label: 'For sites', min: 1, max: undefined },
		{ key: 'visits', label: 'Visits a month', min: 0, max: undefined },
		{ key: 'perThousand', label: 'Each 1,000 more', min: 0, max: undefined },
		{ key: 'percentOff', label: 'First year off, %', min: 0, max: 100 },
		{ key: 'setupHours', label: 'Set-up, hours', min: 0, max: undefined }
	] as const;
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
	{#each $form.prices as _, i (i)}
		<fieldset>
			<legend class="visually-hidden">Tier {i + 1}</legend>
			<Field label="Tier" size="sm" name="prices.{i}.tier" bind:value={$form.prices[i]!.tier} />
			<NumberInput
				hideSteppers
				labelText="Price"
				size="sm"
				min={0}
				allowEmpty
				name="prices.{i}.price"
				bind:value={$form.prices[i]!.price}
			/>
			<Choice label="Per" options={PER} name="prices.{i}.per" bind:value={$form.prices[i]!.per} />
			{#each FIGURES as { key, label, min, max } (key)}<NumberInput
					hideSteppers
					labelText={label}
					size="sm"
					{min}
					{max}
					allowEmpty
					name="prices.{i}.{key}"
					bind:value={$form.prices[i]![key]}
				/>{/each}
			<Button kind="ghost" size="small" on:click={() => ($form.prices = $form.prices.toSpliced(i, 1))}
				>Remove <span class="visually-hidden">tier {i + 1}</span></Button
			>
		</fieldset>
	{/each}
	{#if wrong}<p class="wrong" role="alert">{wrong}</p>{/if}
	<Button kind="ghost" size="small" on:click={() => ($form.prices = [...$form.prices, newRow()])}
		>Add a tier</Button
	>
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
