<script lang="ts">
	import { DEVICE_CLASSES } from '$core/field/reading';
	import { LINE_STATES, type LineState, type WorksheetLine } from '$core/report/document';
	import Choice from '$lib/parts/Choice.svelte';
	import Field from '$lib/parts/Field.svelte';
	import PagesForm from './PagesForm.svelte';

	interface Props {
		pages: readonly { id: number; url: string }[];
		lines: readonly WorksheetLine[];
		onchange: (lines: WorksheetLine[]) => void;
	}
	let { pages, lines, onchange }: Props = $props();
	const NAMES: Record<LineState, string> = {
		todo: 'To do',
		good: 'Good: move on',
		'not-applicable': 'Does not apply',
		waiting: 'Waits for somebody',
		done: 'Done'
	};
	const states = LINE_STATES.map((value) => ({ value, text: NAMES[value] }));
	const chosen = $derived([...new Set(lines.map(({ page }) => page))]);
	const pathOf = (id: number) => {
		const page = pages.find((known) => known.id === id);
		return page ? new URL(page.url).pathname : 'a page that is no longer chosen';
	};

	function choose(ids: number[]) {
		onchange(
			ids.flatMap((page) =>
				DEVICE_CLASSES.map(
					(device): WorksheetLine =>
						lines.find((line) => line.page === page && line.device === device) ?? {
							page,
							device,
							state: 'todo',
							note: '',
							owner: ''
						}
				)
			)
		);
	}
	const setAt = (at: number, part: Partial<WorksheetLine>) =>
		onchange(lines.map((line, i) => (i === at ? { ...line, ...part } : line)));
</script>

<PagesForm {pages} {chosen} onchange={choose} />
{#each lines as line, i (`${line.page}/${line.device}`)}
	<fieldset>
		<legend>{pathOf(line.page)}, {line.device}</legend>
		<Choice label="State" options={states} value={line.state} onchange={(state) => setAt(i, { state })} />
		<Field label="Owner" bind:value={() => line.owner, (owner) => setAt(i, { owner })} />
		<Field label="Note" bind:value={() => line.note, (note) => setAt(i, { note })} />
	</fieldset>
{/each}

<style>
	fieldset {
		border: 1px solid var(--rule);
		padding: var(--gap-4) var(--gap-5);
		display: grid;
		gap: var(--gap-4);
		margin: 0;
	}
	legend {
		font-size: var(--type-3);
		font-weight: 600;
		overflow-wrap: anywhere;
	}
</style>
