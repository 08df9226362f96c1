<script lang="ts">
	/** The same trial at other times. */
	import { formatMoment } from '$core/wording/format';
	import ShiftBoard from '$lib/charts/ShiftBoard.svelte';
	import Choice from '$lib/parts/Choice.svelte';
	import Action from '$lib/parts/Action.svelte';
	import Strips from '$lib/parts/Strips.svelte';
	import type { PartProps } from './partProps';
	import { STATES } from '$lib/parts/trialNames';

	let { data }: PartProps<'repeats'> = $props();
	const effects = $derived(data.effectByAge);
	let key = $state('');
	let metric = $state('');
	const effect = $derived(effects.find((candidate) => candidate.key === key) ?? effects[0]);
	const shown = $derived(
		effect?.metrics.find((candidate) => candidate.metric === metric) ?? effect?.metrics[0]
	);
</script>

{#if effect && shown}
	<div class="choices">
		<h3>{shown.name} by age</h3>
		{#if effects.length > 1}<Choice
				label="Variant and conditions"
				options={effects.map((one) => ({ value: one.key, text: one.label }))}
				value={effect.key}
				onchange={(value) => (key = value)}
				inline
				hideLabel
			/>{/if}
		<Choice
			label="Metric"
			options={effect.metrics.map((one) => ({ value: one.metric, text: one.name }))}
			value={shown.metric}
			onchange={(value) => (metric = value)}
			inline
			hideLabel
		/>
	</div>
	<ShiftBoard
		label="{shown.name} of {effect.label} by age"
		rowHead="Age"
		rows={shown.rows}
		baseline={effect.baseline}
		arm={effect.arm}
		colour="var(--arm-1)"
		caption="Each age is judged by its own loads; whether two ages differ is not tested."
	/>
{/if}

<ul class="plain">
	{#each data.repeats as other (other.id)}
		<li>
			<a href="/trials/{other.id}"
				>{other.age ? `${other.age} later` : 'The first one'}, {formatMoment(other.at)}</a
			>
			{#if other.answer?.strips.length}<Strips answer={other.answer} />{:else}{STATES[other.status]}{/if}
		</li>
	{/each}
</ul>
{#if data.trial.canRepeatByAge && data.trial.status === 'done'}<Action
		action="?/age"
		text="Repeat after an hour, a day and a week"
		kind="tertiary"
	/>{/if}

<style>
	.choices {
		display: flex;
		flex-wrap: wrap;
		align-items: baseline;
		gap: 0 var(--gap-6);
	}
	.choices h3 {
		font-size: var(--type-5);
		margin: 0;
	}
	ul {
		margin-top: var(--gap-5);
	}
</style>
