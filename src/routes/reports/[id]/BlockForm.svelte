<script lang="ts">
	/** What can be said and set of one block. */
	import { onMount, untrack } from 'svelte';
	import type { Block } from '$core/report/document';
	import Choice from '$lib/parts/Choice.svelte';
	import Field from '$lib/parts/Field.svelte';
	import type { FigureChoice } from '$lib/server/rooms/reports/material';
	import { BLOCK_NAMES } from './blockNames';
	import ClaimsForm from './ClaimsForm.svelte';
	import OutsideForm from './OutsideForm.svelte';
	import PagesForm from './PagesForm.svelte';
	import RecommendationsForm from './RecommendationsForm.svelte';
	import WordsEditor from './WordsEditor.svelte';
	import WorksheetForm from './WorksheetForm.svelte';

	interface Props {
		report: number;
		block: Block;
		choices: readonly FigureChoice[];
		trials: readonly { id: number; question: string }[];
		pages: readonly { id: number; url: string }[];
		watches: readonly { id: number; name: string; kind: 'watch' | 'standing' }[];
		audits: readonly { id: number; name: string }[];
		loads: readonly { id: number; name: string }[];
		onchange: (block: Block) => void;
	}
	let { report, block, choices, trials, pages, watches, audits, loads, onchange }: Props = $props();
	const set = (part: Partial<Block>) => onchange({ ...$state.snapshot(block), ...part } as Block);
	let place: HTMLElement;
	onMount(() => place.scrollIntoView({ block: 'nearest' }));
	let heading = $state(untrack(() => block.heading));
	const isDay = (text: string) => /^\d{4}-\d{2}-\d{2}$/.test(text);
	const trialOptions = $derived(trials.map(({ id, question }) => ({ value: id, text: question })));
</script>

<section class="panel" bind:this={place} aria-label="{BLOCK_NAMES[block.kind]}: settings">
	<h2>{BLOCK_NAMES[block.kind]}</h2>
	<Field
		label="Heading"
		bind:value={heading}
		onchange={() => set({ heading })}
		help="Empty keeps the usual one."
	/>
	<WordsEditor label="Your words" value={block.words} {choices} onchange={(words) => set({ words })} />
	{#if 'trial' in block && trialOptions.length > 1}
		<Choice
			label="Trial"
			options={trialOptions}
			value={block.trial ?? 0}
			onchange={(trial) => set({ trial } as Partial<Block>)}
		/>
	{/if}
	{#if 'watch' in block}
		<Choice
			label={BLOCK_NAMES[block.kind]}
			options={watches
				.filter(({ kind }) => kind === block.kind)
				.map(({ id, name }) => ({ value: id, text: name }))}
			value={block.watch}
			onchange={(watch) => set({ watch } as Partial<Block>)}
		/>
	{/if}
	{#if 'audit' in block && audits.length > 1}
		<Choice
			label="Audit"
			options={audits.map(({ id, name }) => ({ value: id, text: name }))}
			value={block.audit}
			onchange={(audit) => set({ audit } as Partial<Block>)}
		/>
	{/if}
	{#if 'load' in block && loads.length > 1}
		<Choice
			label="Load"
			options={loads.map(({ id, name }) => ({ value: id, text: name }))}
			value={block.load}
			onchange={(load) => set({ load } as Partial<Block>)}
		/>
	{/if}
	{#if block.kind === 'recommendations'}<RecommendationsForm
			items={block.items}
			{choices}
			onchange={(items) => set({ items } as Partial<Block>)}
		/>
	{:else if block.kind === 'outside'}<OutsideForm
			{report}
			trial={block.trial}
			items={block.items}
			onchange={(items) => set({ items } as Partial<Block>)}
		/>
	{:else if block.kind === 'claims'}<ClaimsForm
			items={block.items}
			{choices}
			onchange={(items) => set({ items } as Partial<Block>)}
		/>
	{:else if block.kind === 'period'}
		<Field
			label="From day"
			bind:value={() => block.from, (from) => isDay(from) && set({ from } as Partial<Block>)}
		/>
		<Field
			label="Until day"
			bind:value={() => block.until, (until) => isDay(until) && set({ until } as Partial<Block>)}
		/>
	{:else if block.kind === 'field'}<PagesForm
			{pages}
			chosen={block.pages}
			onchange={(chosen) => set({ pages: chosen } as Partial<Block>)}
		/>
	{:else if block.kind === 'worksheet'}<WorksheetForm
			{pages}
			lines={block.lines}
			onchange={(lines) => set({ lines } as Partial<Block>)}
		/>{/if}
</section>

<style>
	section {
		display: grid;
		gap: var(--gap-5);
	}
	h2 {
		margin: 0;
		font-size: var(--type-5);
	}
</style>
