<script lang="ts">
	import { EFFORTS, type Recommendation } from '$core/report/document';
	import Choice from '$lib/parts/Choice.svelte';
	import Field from '$lib/parts/Field.svelte';
	import type { FigureChoice } from '$lib/server/rooms/reports/material';
	import RowsForm from './RowsForm.svelte';

	interface Props {
		items: readonly Recommendation[];
		choices: readonly FigureChoice[];
		onchange: (items: Recommendation[]) => void;
	}
	let { items, choices, onchange }: Props = $props();
	const fresh = (): Recommendation => ({
		what: 'Say what is to be done',
		who: '',
		gain: null,
		effort: 'medium',
		check: ''
	});
	const gains = $derived([
		{ value: '', text: 'Not measured' },
		...choices
			.filter(({ ref }) => ref.endsWith('/shift'))
			.map(({ ref, name, text }) => ({ value: ref, text: `${name}: ${text}` }))
	]);
	const efforts = EFFORTS.map((value) => ({ value, text: value[0]!.toUpperCase() + value.slice(1) }));
</script>

<RowsForm what="Recommendation" {items} {fresh} {onchange}>
	{#snippet row(item, set)}
		<Field label="What to do" bind:value={() => item.what, (what) => set({ what })} />
		<Field label="Who does it" bind:value={() => item.who, (who) => set({ who })} />
		<Choice
			label="Measured difference"
			options={gains}
			value={item.gain ?? ''}
			onchange={(gain) => set({ gain: gain || null })}
		/>
		<Choice label="Effort" options={efforts} value={item.effort} onchange={(effort) => set({ effort })} />
		<Field label="Done when" bind:value={() => item.check, (check) => set({ check })} />
	{/snippet}
</RowsForm>
