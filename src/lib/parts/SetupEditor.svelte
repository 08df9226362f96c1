<script lang="ts">
	/** What a variant's page runs on: components, features, effort; rows of a form. */
	import { untrack } from 'svelte';
	import Field from './Field.svelte';
	import { Button, NumberInput } from 'carbon-components-svelte';
	import { exclusiveClashes, type Component } from '$core/trial/design/setup';
	import type { TypedSetup } from '$lib/server/rooms/setups/setupForm';
	import Choice from './Choice.svelte';
	import ComponentFields from './ComponentFields.svelte';
	import { blankComponent, offersOf, type Offer } from './setupDraft';

	interface Props {
		/** Path of the setup among the form's fields. */
		name: string;
		setup: TypedSetup;
		change: (setup: TypedSetup) => void;
		label: string;
		isOpen?: boolean;
	}
	let { name, setup, change, label, isOpen = false }: Props = $props();
	const isEmpty = $derived(!setup.components.length && !setup.features && setup.effortHours === null);
	let isShown = $state(untrack(() => isOpen || !isEmpty));
	/** Of the agency's library, fetched when somebody writes a setup. */
	let offers = $state<Offer[]>([]);
	let chosen = $state('');
	$effect(() => {
		if (isShown && !offers.length) void fetchOffers();
	});
	async function fetchOffers() {
		// Without an answer components are typed, as before.
		const answer = await fetch('/api/components').catch(() => null);
		if (answer?.ok) offers = offersOf(await answer.json());
	}
	const add = (component: Component) => change({ ...setup, components: [...setup.components, component] });
	const remove = (i: number) => change({ ...setup, components: setup.components.toSpliced(i, 1) });
	function take(text: string) {
		const offer = offers.find((own) => own.text === text);
		if (offer) add(structuredClone($state.snapshot(offer.component)));
		chosen = '';
	}
	const names = $derived(
		setup.components
			.map((component) => component.name)
			.filter(Boolean)
			.join(', ')
	);
	const clashes = $derived(exclusiveClashes({ components: setup.components as Component[] }));
</script>

<div class="setup">
	<Button kind="ghost" size="small" aria-expanded={isShown} on:click={() => (isShown = !isShown)}
		>{label}{names ? `: ${names}` : ''}</Button
	>
	{#if isShown}
		{#each setup.components as component, i (i)}
			<ComponentFields
				name="{name}.components.{i}"
				{component}
				change={(changed) => change({ ...setup, components: setup.components.with(i, changed) })}
				number={i + 1}
				remove={() => remove(i)}
			/>
		{/each}
		{#each clashes as clash (clash)}<p class="wrong" role="alert">{clash}</p>{/each}
		<div class="cells" style:--cell="14rem">
			<Field
				label="Features, one a line: name: on or off"
				rows={2}
				placeholder="Web fonts: on"
				name="{name}.features"
				bind:value={() => setup.features, (features) => change({ ...setup, features })}
			/>
			<NumberInput
				labelText="Hours of work to get here"
				allowEmpty
				min={0}
				step={0.5}
				name="{name}.effortHours"
				bind:value={() => setup.effortHours, (effortHours) => change({ ...setup, effortHours })}
				size="sm"
			/>
		</div>
		<div class="row">
			{#if offers.length}<Choice
					label="Add from the library"
					options={[{ value: '', text: 'Choose' }, ...offers.map(({ text }) => ({ value: text, text }))]}
					bind:value={chosen}
					onchange={take}
				/>{/if}
			<Button kind="ghost" size="small" on:click={() => add(blankComponent())}>Add a component</Button>
		</div>
	{/if}
</div>

<style>
	.setup {
		grid-column: 1 / -1;
	}
</style>
