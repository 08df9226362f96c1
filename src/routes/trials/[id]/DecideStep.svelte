<script lang="ts">
	/** What became of a step, and why. */
	import { Button } from 'carbon-components-svelte';
	import { keepTyped } from '$lib/keepTyped';
	import Choice from '$lib/parts/Choice.svelte';
	import Field from '$lib/parts/Field.svelte';
	import Hidden from '$lib/parts/Hidden.svelte';

	interface Props {
		stage: number;
		decision: string;
		note: string;
		done: () => void;
	}
	let { stage, decision, note, done }: Props = $props();
	const OPTIONS = [
		{ value: 'open', text: 'Open' },
		{ value: 'kept', text: 'Kept' },
		{ value: 'weakened', text: 'Weakened: left on, set lower' },
		{ value: 'taken-back', text: 'Taken back' }
	];
</script>

<form method="POST" action="?/decide" class="cells" use:keepTyped={{ done }}>
	<Hidden name="stage" value={String(stage)} />
	<Choice label="Decision" name="decision" options={OPTIONS} value={decision} />
	<Field label="Why" name="note" size="sm" value={note} placeholder="The basket no longer opens" />
	<div class="buttons"><Button type="submit" size="small">Save</Button></div>
</form>
