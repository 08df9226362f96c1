<script lang="ts">
	import { METRICS } from '$core/metrics/catalogue';
	import type { OutsideFigure } from '$core/report/document';
	import Choice from '$lib/parts/Choice.svelte';
	import Field from '$lib/parts/Field.svelte';
	import RowsForm from './RowsForm.svelte';

	interface Props {
		items: readonly OutsideFigure[];
		onchange: (items: OutsideFigure[]) => void;
	}
	let { items, onchange }: Props = $props();
	const fresh = (): OutsideFigure => ({
		program: 'Another program',
		metric: 'lcp',
		value: 2.5,
		unit: 's',
		device: 'unknown',
		place: '',
		day: '',
		scope: 'page',
		from: 'unknown',
		loads: null
	});
	const metrics = METRICS.map(({ id, name }) => ({ value: id, text: name }));
	const units = (['ms', 's', 'points', 'unitless', 'bytes', 'kB', 'MB', 'count'] as const).map((value) => ({
		value,
		text: value
	}));
	const devices = [
		{ value: 'phone' as const, text: 'Phone' },
		{ value: 'desktop' as const, text: 'Desktop' },
		{ value: 'unknown' as const, text: 'Not known' }
	];
	const scopes = [
		{ value: 'page' as const, text: 'This page' },
		{ value: 'origin' as const, text: 'Whole site' },
		{ value: 'unknown' as const, text: 'Not known' }
	];
	const sources = [
		{ value: 'lab' as const, text: 'Loads in a lab' },
		{ value: 'field' as const, text: 'Real visitors' },
		{ value: 'unknown' as const, text: 'Not known' }
	];
	const numberOf = (text: string, otherwise: number) =>
		Number.isFinite(Number(text)) && text.trim() ? Number(text) : otherwise;
</script>

<RowsForm what="Outside figure" {items} {fresh} {onchange}>
	{#snippet row(item, set)}
		<Field label="Which program" bind:value={() => item.program, (program) => set({ program })} />
		<Choice label="Metric" options={metrics} value={item.metric} onchange={(metric) => set({ metric })} />
		<div class="pair">
			<Field
				label="Figure"
				bind:value={() => String(item.value), (text) => set({ value: numberOf(text, item.value) })}
			/>
			<Choice label="Unit" options={units} value={item.unit} onchange={(unit) => set({ unit })} />
		</div>
		<div class="pair">
			<Choice label="Device" options={devices} value={item.device} onchange={(device) => set({ device })} />
			<Choice label="Figures of" options={scopes} value={item.scope} onchange={(scope) => set({ scope })} />
		</div>
		<Choice label="From" options={sources} value={item.from} onchange={(from) => set({ from })} />
		<div class="pair">
			<Field label="Place" bind:value={() => item.place, (place) => set({ place })} />
			<Field label="Day, as 2026-11-27" bind:value={() => item.day, (day) => set({ day })} />
		</div>
		<Field
			label="How many loads, where known"
			bind:value={
				() => (item.loads === null ? '' : String(item.loads)),
				(text) => set({ loads: numberOf(text, 0) || null })
			}
		/>
	{/snippet}
</RowsForm>

<style>
	.pair {
		display: grid;
		grid-template-columns: 1fr 1fr;
		gap: 0.6rem;
	}
</style>
