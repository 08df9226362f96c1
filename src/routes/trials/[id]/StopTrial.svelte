<script lang="ts">
	/** Asks before a trial is stopped. */
	import Confirm from '$lib/parts/Confirm.svelte';

	interface Props {
		/** It had its answer before rounds were added. */
		hasAnswer: boolean;
		onconfirm: () => void;
		oncancel: () => void;
	}
	let { hasAnswer, onconfirm, oncancel }: Props = $props();
</script>

<Confirm open heading="Stop this trial?" action="Stop it" {onconfirm} {oncancel}>
	<p>
		{hasAnswer
			? 'Added rounds that are not loaded yet are cancelled. The answer stays, with what the loads since then add to it.'
			: 'Nothing more is loaded. What was measured stays and is looked at; the trial can go on later.'}
	</p>
</Confirm>
