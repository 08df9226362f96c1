<script lang="ts">
	/** Whether the changes come one by one, each judged against the one before. */
	import { Checkbox, NumberInput, TextArea } from 'carbon-components-svelte';
	import type { Writable } from 'svelte/store';
	import { MOST_SAMPLE_PAGES, MOST_STEPS, USUAL_STEPS } from '$core/trial/design/log';
	import type { TypedTrial } from '$lib/server/rooms/trials/form';

	interface Props {
		draft: Writable<TypedTrial>;
		issue: (path: string) => string;
	}
	let { draft, issue }: Props = $props();
</script>

<Checkbox name="log" bind:checked={$draft.log}>
	<svelte:fragment slot="labelChildren"
		><b>Step by step.</b> The page as it is comes first; then each change is written down, measured, and judged against
		the step before and against the start.</svelte:fragment
	>
</Checkbox>
{#if $draft.log}
	<div class="cells" style:--cell="13rem">
		<NumberInput
			name="plannedSteps"
			labelText="Steps planned"
			size="sm"
			min={1}
			max={MOST_STEPS}
			helperText="They share the error level: plan as many as you mean to take. {USUAL_STEPS} is usual."
			bind:value={$draft.plannedSteps}
			invalid={issue('plannedSteps') !== ''}
			invalidText={issue('plannedSteps')}
		/>
		<TextArea
			name="samplePages"
			labelText="Further pages that the steps change, an address a line"
			rows={2}
			helperText="Up to {MOST_SAMPLE_PAGES}: loaded in every round, and judged together with the page above."
			bind:value={$draft.samplePages}
			invalid={issue('samplePages') !== ''}
			invalidText={issue('samplePages')}
		/>
	</div>
{/if}
