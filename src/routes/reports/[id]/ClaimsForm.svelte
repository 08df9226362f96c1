<script lang="ts">
	import type { Claim } from '$core/report/document';
	import Choice from '$lib/parts/Choice.svelte';
	import Field from '$lib/parts/Field.svelte';
	import type { FigureChoice } from '$lib/server/rooms/reports/material';
	import RowsForm from './RowsForm.svelte';

	interface Props {
		items: readonly Claim[];
		choices: readonly FigureChoice[];
		onchange: (items: Claim[]) => void;
	}
	let { items, choices, onchange }: Props = $props();
	const fresh = (): Claim => ({
		said: 'Twice as fast',
		before: 2,
		after: 1,
		unit: 's',
		percent: null,
		own: null
	});
	const own = $derived([
		{ value: '', text: 'None' },
		...choices
			.filter(({ ref }) => ref.endsWith('/shift'))
			.map(({ ref, name, text }) => ({ value: ref, text: `${name}: ${text}` }))
	]);
	const numberOf = (text: string, otherwise: number) =>
		Number.isFinite(Number(text)) && text.trim() ? Number(text) : otherwise;
</script>

<RowsForm what="Claim" {items} {fresh} {onchange}>
	{#snippet row(item, set)}
		<Field label="As it was said" bind:value={() => item.said, (said) => set({ said })} />
		<div class="three">
			<Field
				label="Before"
				bind:value={() => String(item.before), (text) => set({ before: numberOf(text, item.before) })}
			/>
			<Field
				label="After"
				bind:value={() => String(item.after), (text) => set({ after: numberOf(text, item.after) })}
			/>
			<Field label="Unit" bind:value={() => item.unit, (unit) => set({ unit })} />
		</div>
		<Field
			label="Claimed per cent, if any"
			bind:value={
				() => (item.percent === null ? '' : String(item.percent)),
				(text) => set({ percent: text.trim() ? numberOf(text, item.percent ?? 0) : null })
			}
		/>
		<Choice
			label="Own figure beside it"
			options={own}
			value={item.own ?? ''}
			onchange={(ref) => set({ own: ref || null })}
		/>
	{/snippet}
</RowsForm>

<style>
	.three {
		display: grid;
		grid-template-columns: 1fr 1fr 1fr;
		gap: var(--gap-4);
	}
</style>
