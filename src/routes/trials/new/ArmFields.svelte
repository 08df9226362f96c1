<script lang="ts">
	/** One arm of a new trial. */
	import { TextInput } from 'carbon-components-svelte';
	import { hasPages, hasStages, isSamePage } from '$core/trial/kinds';
	import type { TrialKind } from '$core/trial/types';
	import SetupEditor from '$lib/parts/SetupEditor.svelte';
	import type { ArmDraft } from './drafts';

	interface Props {
		kind: TrialKind;
		arms: ArmDraft[];
		/** Place of this arm among them. */
		i: number;
		baseline: number;
		issue: (path: string) => string;
		remove: () => void;
	}
	let { kind, arms = $bindable(), i, baseline = $bindable(), issue, remove }: Props = $props();
	const one = $derived(arms[i]!);
	const fewest = $derived(isSamePage(kind) ? 1 : hasPages(kind) ? 4 : 2);
	const legend = $derived.by(() => {
		if (hasStages(kind)) return `Stage ${i + 1}`;
		if (hasPages(kind)) return `${one.page || 'Page'}, ${i % 2 ? 'with the change' : 'without'}`;
		return baseline === i || isSamePage(kind) ? `Arm ${i + 1}, baseline` : `Arm ${i + 1}`;
	});
</script>

<fieldset class="arm" class:sweep={hasPages(kind)}>
	<legend>{legend}</legend>
	{#if hasPages(kind)}
		{#if i % 2 === 0}
			<TextInput
				name="arm-page"
				labelText="Page"
				placeholder="Home"
				bind:value={arms[i]!.page}
				on:change={() => arms[i + 1] && (arms[i + 1]!.page = one.page)}
			/>
		{:else}<input type="hidden" name="arm-page" value={arms[i - 1]?.page ?? ''} />{/if}
	{/if}
	<TextInput
		name="arm-name"
		labelText="Name of arm {i + 1}"
		placeholder={i === 0 ? 'As it is' : 'With the chat'}
		bind:value={arms[i]!.name}
		invalid={issue(`arms.${i}.name`) !== ''}
		invalidText={issue(`arms.${i}.name`)}
	/>
	{#if !hasStages(kind)}
		<TextInput
			name="arm-url"
			labelText="Address of arm {i + 1}"
			placeholder="https://"
			inputmode="url"
			bind:value={arms[i]!.url}
			invalid={issue(`arms.${i}.url`) !== ''}
			invalidText={issue(`arms.${i}.url`)}
		/>
	{/if}
	<div class="side">
		{#if kind === 'side-by-side'}<label
				><input type="radio" name="baseline" value={i} bind:group={baseline} /> Baseline</label
			>{/if}
		{#if arms.length > fewest && (!hasPages(kind) || i % 2 === 0)}<button
				type="button"
				class="plain"
				onclick={remove}>Remove<span class="visually-hidden"> arm {i + 1}</span></button
			>{/if}
	</div>
	<SetupEditor name="arm-setup" setup={one.setup} label="What it runs on" />
	{#if issue(`arms.${i}.setup`)}<p class="wrong">{issue(`arms.${i}.setup`)}</p>{/if}
</fieldset>

<style>
	.arm {
		display: grid;
		grid-template-columns: minmax(9rem, 1fr) minmax(14rem, 2fr) minmax(6rem, auto);
		gap: 0.3rem 1rem;
		border: 0;
		border-left: 3px solid var(--rule);
		padding: 0.3rem 0 0.3rem 0.8rem;
		margin: 0 0 0.8rem;
	}
	.arm.sweep {
		grid-template-columns: repeat(auto-fit, minmax(min(100%, 11rem), 1fr));
	}
	@media (max-width: 640px) {
		.arm {
			grid-template-columns: minmax(0, 1fr);
		}
	}
	.arm:has(input[type='radio']:checked) {
		border-left-color: var(--ink);
	}
	legend {
		font-size: 0.82rem;
		color: var(--muted);
		grid-column: 1 / -1;
	}
	.side {
		display: flex;
		flex-direction: column;
		justify-content: center;
		gap: 0.2rem;
		padding-top: 1rem;
	}
	.plain {
		background: none;
		border: 0;
		color: var(--action);
		cursor: pointer;
		text-decoration: underline;
		padding: 0;
		text-align: left;
	}
	.wrong {
		color: var(--worse);
	}
	input[type='radio'] {
		accent-color: var(--action);
		width: 1.05rem;
		height: 1.05rem;
		margin-top: 0.2rem;
		flex: none;
	}
</style>
