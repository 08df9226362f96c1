<script lang="ts">
	/** What a variant's page runs on: components, features, effort; goes with a form as JSON in a hidden field. */
	import { untrack } from 'svelte';
	import Field from './Field.svelte';
	import { Button, NumberInput } from 'carbon-components-svelte';
	import { exclusiveClashes, type Setup } from '$core/trial/design/setup';
	import Choice from './Choice.svelte';
	import ComponentFields from './ComponentFields.svelte';
	import Hidden from './Hidden.svelte';
	import { blankComponent, featureLines, isEmptySetup, offersOf, setupFrom, type Offer } from './setupDraft';

	interface Props {
		name: string;
		setup: Setup | null;
		label: string;
		isOpen?: boolean;
	}
	let { name, setup, label, isOpen = false }: Props = $props();
	let components = $state(untrack(() => structuredClone($state.snapshot(setup)?.components ?? [])));
	let features = $state(untrack(() => featureLines(setup)));
	let effort: number | null = $state(untrack(() => setup?.effortHours ?? null));
	const value = $derived(setupFrom(components, features, effort));
	const isEmpty = $derived(isEmptySetup(value));
	let isShown = $state(untrack(() => isOpen || (setup !== null && !isEmptySetup(setup))));
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
	function take(text: string) {
		const offer = offers.find((one) => one.text === text);
		if (offer) components.push(structuredClone($state.snapshot(offer.component)));
		chosen = '';
	}
	const names = $derived(value.components.map((component) => component.name).join(', '));
</script>

<div class="setup">
	<Hidden {name} value={isEmpty ? '' : JSON.stringify(value)} />
	<Button kind="ghost" size="small" aria-expanded={isShown} on:click={() => (isShown = !isShown)}
		>{label}{names ? `: ${names}` : ''}</Button
	>
	{#if isShown}
		{#each components, i (i)}
			<ComponentFields bind:component={components[i]!} number={i + 1} remove={() => components.splice(i, 1)} />
		{/each}
		{#each exclusiveClashes(value) as clash (clash)}<p class="wrong" role="alert">{clash}</p>{/each}
		<div class="cells" style:--cell="14rem">
			<Field
				label="Features, one a line: name: on or off"
				rows={2}
				placeholder="Web fonts: on"
				bind:value={features}
			/>
			<NumberInput
				labelText="Hours of work to get here"
				allowEmpty
				min={0}
				step={0.5}
				bind:value={effort}
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
			<Button kind="ghost" size="small" on:click={() => components.push(blankComponent())}
				>Add a component</Button
			>
		</div>
	{/if}
</div>

<style>
	.setup {
		grid-column: 1 / -1;
	}
</style>
