<script lang="ts">
	/** One variant of a new trial. */
	import type { Writable } from 'svelte/store';
	import { Button, ComboBox, RadioButton } from 'carbon-components-svelte';
	import { FEWEST_CANDIDATES, hasPages, hasStages, isSamePage } from '$core/trial/design/kinds';
	import Field from '$lib/parts/Field.svelte';
	import Hidden from '$lib/parts/Hidden.svelte';
	import SetupEditor from '$lib/parts/SetupEditor.svelte';
	import type { TypedTrial } from '$lib/server/rooms/trials/form';
	import { addressesIn, aimOf, kindOf } from './drafts';

	interface Props {
		draft: Writable<TypedTrial>;
		/** Place of this variant among them. */
		i: number;
		issue: (path: string) => string;
		remove: () => void;
		/** Several addresses at once. */
		paste: (urls: string[]) => void;
		known: readonly { url: string; note: string }[];
	}
	let { draft, i, issue, remove, paste, known }: Props = $props();
	const arm = $derived($draft.arms[i]!);
	const kind = $derived(kindOf($draft));
	const isBest = $derived(aimOf($draft) === 'best');
	const noun = $derived(isBest ? 'candidate' : 'variant');
	const isBaseline = $derived(!isBest && ($draft.baseline === String(i) || isSamePage(kind)));
	const fewest = $derived(isBest ? FEWEST_CANDIDATES : isSamePage(kind) ? 1 : hasPages(kind) ? 4 : 2);
	const legend = $derived.by(() => {
		if (hasStages(kind)) return `Stage ${i + 1}`;
		if (hasPages(kind)) return `${arm.page || 'Page'}, ${i % 2 ? 'with the change' : 'without'}`;
		if (isBest) return `Candidate ${i + 1}`;
		return isBaseline ? `Variant ${i + 1}, baseline` : `Variant ${i + 1}`;
	});
	const items = $derived(known.map(({ url, note }) => ({ id: url, text: url, note })));

	function onpaste(event: ClipboardEvent) {
		const urls = addressesIn(event.clipboardData?.getData('text') ?? '');
		if (urls.length < 2) return;
		event.preventDefault();
		paste(urls);
	}
</script>

<fieldset class="arm" class:sweep={hasPages(kind)} class:baseline={isBaseline}>
	<legend>{legend}</legend>
	{#if hasPages(kind)}
		{#if i % 2 === 0}
			<Field
				name="arms.{i}.page"
				label="Page"
				placeholder="Home"
				size="sm"
				bind:value={$draft.arms[i]!.page}
				onchange={() => $draft.arms[i + 1] && ($draft.arms[i + 1]!.page = arm.page)}
			/>
		{:else}<Hidden name="arms.{i}.page" value={$draft.arms[i - 1]?.page ?? ''} />{/if}
	{/if}
	<Field
		name="arms.{i}.name"
		label="Name of {noun} {i + 1}"
		placeholder={i === 0 ? 'As it is' : 'With the chat'}
		size="sm"
		bind:value={$draft.arms[i]!.name}
		wrong={issue(`arms.${i}.name`)}
	/>
	{#if !hasStages(kind)}
		<div {onpaste}>
			{#if items.length}
				<ComboBox
					name="arms.{i}.url"
					labelText="Address of {noun} {i + 1}"
					placeholder="https:// or one of the client’s pages"
					size="sm"
					allowCustomValue
					{items}
					shouldFilterItem={(item, value) => item.text.toLowerCase().includes(value.toLowerCase())}
					bind:value={$draft.arms[i]!.url}
					invalid={issue(`arms.${i}.url`) !== ''}
					invalidText={issue(`arms.${i}.url`)}
				/>
			{:else}
				<Field
					name="arms.{i}.url"
					label="Address of {noun} {i + 1}"
					placeholder="https://"
					size="sm"
					bind:value={$draft.arms[i]!.url}
					wrong={issue(`arms.${i}.url`)}
				/>
			{/if}
		</div>
	{/if}
	<div class="side">
		{#if kind === 'side-by-side' && !isBest}<RadioButton
				name="baseline"
				value={String(i)}
				labelText="Baseline"
				checked={$draft.baseline === String(i)}
				on:change={() => ($draft.baseline = String(i))}
			/>{/if}
		{#if $draft.arms.length > fewest && (!hasPages(kind) || i % 2 === 0)}<Button
				kind="ghost"
				size="small"
				on:click={remove}>Remove <span class="visually-hidden">variant {i + 1}</span></Button
			>{/if}
	</div>
	<SetupEditor
		name="arms.{i}.setup"
		setup={$draft.arms[i]!.setup}
		change={(setup) => ($draft.arms[i]!.setup = setup)}
		label="What it runs on"
	/>
	{#if issue(`arms.${i}.setup`)}<p class="wrong">{issue(`arms.${i}.setup`)}</p>{/if}
</fieldset>

<style>
	.arm {
		display: grid;
		grid-template-columns: minmax(8rem, 1fr) minmax(13rem, 2fr) minmax(6rem, auto);
		gap: var(--gap-2) var(--gap-6);
		align-items: start;
		border: 0;
		border-left: 3px solid var(--rule);
		padding: var(--gap-2) 0 var(--gap-2) var(--gap-5);
		margin: 0 0 var(--gap-5);
		min-width: 0;
	}
	.arm.baseline {
		border-left-color: var(--ink);
	}
	.arm.sweep {
		grid-template-columns: repeat(auto-fit, minmax(min(100%, 11rem), 1fr));
	}
	@media (max-width: 640px) {
		.arm {
			grid-template-columns: minmax(0, 1fr);
		}
	}
	legend {
		font-size: var(--type-2);
		color: var(--muted);
		grid-column: 1 / -1;
	}
	.side {
		padding-top: var(--gap-7);
	}
</style>
