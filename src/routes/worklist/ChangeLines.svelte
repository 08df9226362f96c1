<script lang="ts">
	/** State, owner, note and question of one line, or of several at once. */
	import { Button } from 'carbon-components-svelte';
	import { untrack } from 'svelte';
	import { SAID_STATES } from '$core/findings/worklist';
	import { keepTyped } from '$lib/keepTyped';
	import Choice from '$lib/parts/Choice.svelte';
	import Field from '$lib/parts/Field.svelte';
	import Hidden from '$lib/parts/Hidden.svelte';
	import type { WorklistView } from '$lib/server/rooms/audits/worklistView';

	interface Props {
		ids: readonly number[];
		/** Null for several. */
		line: WorklistView['rows'][number] | null;
		done: () => void;
	}
	let { ids, line, done }: Props = $props();
	const NAMES = {
		open: 'open',
		accepted: 'accepted',
		planned: 'planned',
		done: 'done, says who did it',
		'not-worth': 'not worth it'
	} as const;
	const isSaid = (state: string) => (SAID_STATES as readonly string[]).includes(state);
	const options = $derived([
		...(line && isSaid(line.state)
			? []
			: [{ value: '', text: line ? `as it is: ${line.stateName}` : 'as it is' }]),
		...SAID_STATES.map((value) => ({ value: value as string, text: NAMES[value] }))
	]);
	let chosenState = $state(untrack(() => (line && isSaid(line.state) ? (line.state as string) : '')));
	let owner = $state(untrack(() => line?.owner ?? ''));
	let note = $state(untrack(() => line?.note ?? ''));
	let question = $state(untrack(() => line?.question ?? ''));
</script>

<form method="POST" action="?/change" use:keepTyped={{ done }}>
	{#each ids as id (id)}<Hidden name="finding" value={String(id)} />{/each}
	<div class="cells" style:--cell="13rem">
		<Choice
			label={line ? 'State' : `State of ${ids.length} lines`}
			name="state"
			{options}
			bind:value={chosenState}
		/>
		<Field label="Whose it is" name="owner" size="sm" bind:value={owner} />
		<Field label="Note" name="note" size="sm" bind:value={note} />
		<Field label="Question to the client" name="question" size="sm" bind:value={question} />
	</div>
	<Button type="submit" kind="tertiary" size="small">{line ? 'Save the line' : 'Change them'}</Button>
</form>

<style>
	form {
		margin: var(--gap-4) 0;
	}
	.cells {
		margin-bottom: var(--gap-4);
	}
</style>
