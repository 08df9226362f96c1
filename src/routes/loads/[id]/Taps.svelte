<script lang="ts">
	/** A control pressed while the page is still loading: did it work, how late, had it moved? */
	import { Button } from 'carbon-components-svelte';
	import { counted, formatDuration } from '$core/wording/format';
	import { typedForm } from '$lib/typedForm';
	import Field from '$lib/parts/Field.svelte';
	import Table from '$lib/parts/Table.svelte';
	import type { Column } from '$lib/parts/tableRows';
	import type { PartProps } from './partProps';

	let { data, tapForm }: PartProps<'taps'> = $props();
	const { taps } = $derived(data);
	type Row = (typeof data.taps.results)[number];
	const { form: typed, wrong, enhance } = typedForm(() => tapForm);
	const VERDICTS = {
		works: 'works at once',
		late: 'works late',
		lost: 'seen and dead: nothing happens',
		moved: 'moved away under the finger',
		covered: 'covered by something else',
		missing: 'not there yet'
	} as const;
	const momentOf = ({ afterMs }: Row) =>
		afterMs ? `${formatDuration(afterMs)} after first paint` : 'At first paint';
	const time = (ms: number | null) => (ms === null ? '–' : formatDuration(ms));
	const columns: Column<Row>[] = [
		{ key: 'control', name: 'Control', isRowHead: true, text: ({ selector }) => selector },
		{ key: 'moment', name: 'Pressed', text: momentOf },
		{ key: 'verdict', name: 'What the visitor gets', text: ({ verdict }) => VERDICTS[verdict] },
		{ key: 'effect', name: 'Effect after', number: true, text: ({ effectMs }) => time(effectMs) },
		{ key: 'response', name: 'Next paint after', number: true, text: ({ responseMs }) => time(responseMs) },
		{ key: 'moved', name: 'Moved', number: true, text: ({ movedPx }) => `${movedPx} px` },
		{ key: 'load', name: 'Load' }
	];
</script>

{#if taps.results.length}
	<Table label="Early presses" {columns} rows={taps.results} key={({ load }) => load}>
		{#snippet cell(result)}<a href="/loads/{result.load}">Evidence</a>{/snippet}
	</Table>
{:else}<p>
		A button that is seen is pressed, whether its script is there or not. The lab loads the page three times and
		presses one control at first paint, one and three seconds later.
	</p>{/if}
{#if taps.waiting}<p class="muted">{counted(taps.waiting, 'load waits', 'loads wait')} for the lab.</p>{/if}
<form method="POST" action="?/taps" novalidate use:enhance class="no-print">
	<Field
		label="Control, as a selector"
		name="selector"
		placeholder="#menu"
		bind:value={$typed.selector}
		wrong={$wrong('selector')}
	/>
	<Field
		label="What must appear: words, or a selector that begins with # . or ["
		name="effect"
		placeholder="Timetable"
		bind:value={$typed.effect}
		wrong={$wrong('effect')}
	/>
	<Button type="submit" kind="tertiary" size="field">Press it early (3 loads)</Button>
</form>

<style>
	form {
		display: grid;
		grid-template-columns: repeat(auto-fit, minmax(min(100%, 14rem), 1fr));
		gap: var(--gap-6);
		align-items: end;
		margin-top: var(--gap-5);
	}
</style>
