<script lang="ts">
	/** What is asked of variants side by side. */
	import { RadioButton, RadioButtonGroup } from 'carbon-components-svelte';
	import type { TrialAim } from '$core/trial/types';

	interface Props {
		aim: TrialAim;
		issue: string;
		choose: (aim: TrialAim) => void;
	}
	let { aim, issue, choose }: Props = $props();
</script>

<div class="aim">
	<RadioButtonGroup
		name="aim"
		legendText="What is asked of them?"
		selected={aim}
		helperText={aim === 'best'
			? 'Every candidate is judged against every other: three to eight of them. It takes more rounds than one comparison.'
			: ''}
		on:change={({ detail }) => choose(detail as TrialAim)}
	>
		<RadioButton value="baseline" labelText="How each differs from the baseline" />
		<RadioButton value="best" labelText="Which of them is best" />
	</RadioButtonGroup>
	{#if issue}<p class="wrong" role="alert">{issue}</p>{/if}
</div>

<style>
	.aim {
		margin: 0 0 var(--gap-5);
	}
</style>
