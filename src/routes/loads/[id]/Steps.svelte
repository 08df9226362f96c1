<script lang="ts">
	/** A journey after the load: each step with its own time, requests, shifts and INP. */
	import type { StepRecord } from '$core/load/record/record';
	import { formatBytes, formatDuration, formatValue } from '$core/wording/format';
	import Table from '$lib/parts/Table.svelte';
	import type { Column } from '$lib/parts/tableRows';

	import type { PartProps } from './partProps';

	let { data }: PartProps<'steps'> = $props();
	const { steps } = $derived(data);
	const picture = $derived(`/api/loads/${data.load.id}/step-picture`);
	const failed = $derived(steps.find((step) => step.status === 'failed'));
	const time = (ms: number | null) => (ms === null ? '–' : formatDuration(ms));
	const columns: Column<StepRecord>[] = [
		{ key: 'step', name: 'Step', text: (step) => `${step.number}. ${step.words}` },
		{ key: 'state', name: 'State', text: (step) => (step.status === 'ok' ? 'as expected' : step.status) },
		{ key: 'at', name: 'At', number: true, text: (step) => formatDuration(step.atMs) },
		{ key: 'done', name: 'Done after', number: true, text: (step) => time(step.durationMs) },
		{ key: 'quiet', name: 'Quiet after', number: true, text: (step) => time(step.quietMs) },
		{ key: 'requests', name: 'Requests', number: true, text: (step) => step.requests },
		{ key: 'wire', name: 'Transferred', number: true, text: (step) => formatBytes(step.wireBytes) },
		{ key: 'cls', name: 'CLS', number: true, text: (step) => formatValue('cls', step.cls) },
		{ key: 'inp', name: 'INP', number: true, text: (step) => time(step.inp) },
		{ key: 'document', name: 'Document', text: (step) => (step.navigated ? 'a new one' : 'the same') }
	];
</script>

<p class:wrong={failed}>
	{failed
		? failed.message
		: steps.length === 1
			? 'The step went as expected.'
			: `All ${steps.length} steps went as expected.`}
</p>
<Table
	label="Table of steps"
	{columns}
	rows={steps}
	key={(step) => step.number}
	rowClass={(step) => (step.status === 'skipped' ? 'aside' : '')}
/>
{#if failed}<figure>
		<img src={picture} alt="The page when step {failed.number} failed" />
		<figcaption class="muted small">The page when step {failed.number} failed.</figcaption>
	</figure>{/if}

<style>
	figure {
		margin: var(--gap-5) 0 0;
	}
	img {
		max-width: min(100%, 360px);
		border: 1px solid var(--rule);
	}
</style>
