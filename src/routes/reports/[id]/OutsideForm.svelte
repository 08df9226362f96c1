<script lang="ts">
	import { Button } from 'carbon-components-svelte';
	import { METRICS, metricOf, type MetricId } from '$core/metrics/catalogue';
	import type { OutsideFigure } from '$core/report/document';
	import Choice from '$lib/parts/Choice.svelte';
	import DayField from '$lib/parts/DayField.svelte';
	import Field from '$lib/parts/Field.svelte';
	import Notice from '$lib/parts/Notice.svelte';
	import RowsForm from './RowsForm.svelte';

	interface Props {
		report: number;
		/** The trial whose page the figures are beside; null for none. */
		trial: number | null;
		items: readonly OutsideFigure[];
		onchange: (items: OutsideFigure[]) => void;
	}
	let { report, trial, items, onchange }: Props = $props();
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
		loads: null,
		definition: null
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
	/** What a program may mean by the name of a metric: any other of the same unit. */
	const definitionsOf = (metric: MetricId) => [
		{ value: '', text: 'The same, or not said' },
		...METRICS.filter(({ id, unit }) => id !== metric && unit === metricOf(metric).unit).map(
			({ id, name }) => ({
				value: id as string,
				text: name
			})
		)
	];
	/** What became of the last wish for a load. */
	let wished = $state<{ isDone: boolean; text: string } | null>(null);
	async function loadOn(device: 'phone' | 'desktop') {
		wished = await askFor(device).catch(() => ({
			isDone: false,
			text: 'The server does not answer. Press again when it does.'
		}));
	}
	async function askFor(device: 'phone' | 'desktop') {
		const answer = await fetch(`/api/reports/${report}/nearest`, {
			method: 'POST',
			headers: { 'content-type': 'application/json' },
			body: JSON.stringify({ trial, device })
		});
		if (!answer.ok) return { isDone: false, text: (await answer.json()).error.message as string };
		return { isDone: true, text: 'The page is being loaded. The block takes the load up at its next change.' };
	}
	const numberOf = (text: string, otherwise: number) =>
		Number.isFinite(Number(text)) && text.trim() ? Number(text) : otherwise;
</script>

<RowsForm what="Outside figure" {items} {fresh} {onchange}>
	{#snippet row(item, set)}
		<Field label="Which program" bind:value={() => item.program, (program) => set({ program })} />
		<Choice
			label="Metric"
			options={metrics}
			value={item.metric}
			onchange={(metric) => set({ metric, definition: null })}
		/>
		<div class="pair">
			<Field
				label="Figure"
				bind:value={() => String(item.value), (text) => set({ value: numberOf(text, item.value) })}
			/>
			<Choice label="Unit" options={units} value={item.unit} onchange={(unit) => set({ unit })} />
		</div>
		{#if item.metric !== 'score'}
			<Choice
				label="What it counts by that name"
				options={definitionsOf(item.metric)}
				value={item.definition ?? ''}
				onchange={(definition) => set({ definition: (definition || null) as MetricId | null })}
			/>
		{/if}
		<div class="pair">
			<Choice label="Device" options={devices} value={item.device} onchange={(device) => set({ device })} />
			<Choice label="Figures of" options={scopes} value={item.scope} onchange={(scope) => set({ scope })} />
		</div>
		<Choice label="From" options={sources} value={item.from} onchange={(from) => set({ from })} />
		<div class="pair">
			<Field label="Place" bind:value={() => item.place, (place) => set({ place })} />
			<DayField label="Day" value={item.day} onchange={(day) => set({ day })} />
		</div>
		<Field
			label="How many loads, where known"
			bind:value={
				() => (item.loads === null ? '' : String(item.loads)),
				(text) => set({ loads: numberOf(text, 0) || null })
			}
		/>
		{#if trial !== null && item.device !== 'unknown'}
			{@const device = item.device}
			<Button kind="ghost" size="small" on:click={() => void loadOn(device)}
				>Load the page once on the {device}</Button
			>
		{/if}
	{/snippet}
</RowsForm>
{#if wished}<Notice kind={wished.isDone ? 'info' : 'error'} title={wished.text} />{/if}

<style>
	.pair {
		display: grid;
		grid-template-columns: 1fr 1fr;
		gap: var(--gap-4);
	}
</style>
