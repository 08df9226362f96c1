<script lang="ts">
	/** Which load this is, its figures in short, and what went wrong. */
	import { bandOf, metricOf } from '$core/metrics/catalogue';
	import { formatMoment, formatValue } from '$core/wording/format';
	import type { LoadView } from '$lib/server/loads/view';
	import BandBar from '$lib/parts/BandBar.svelte';

	interface Props {
		data: LoadView;
	}
	let { data }: Props = $props();
	const record = $derived(data.record);
</script>

<header>
	<p class="muted small">
		{#if data.trial}<a href="/trials/{data.trial.id}">{data.trial.question}</a>, arm “{data.trial.arm}”, {data
				.load.warmup
				? 'warm-up'
				: 'round'}
			{data.load.round}.
		{:else if record.source === 'har'}Imported from a HAR file. <a href="/loads">All single loads</a>
		{:else}A single load. <a href="/loads">All single loads</a>{/if}
	</p>
	<h1>{record.page?.title || record.url}</h1>
	<p class="address">{record.finalUrl}</p>
	<p class="verdict">
		{#if record.figures.score !== null}<span
				>Score <b class="figures">{formatValue('score', record.figures.score)}</b>
				<BandBar band={bandOf('score', record.figures.score)!} /></span
			>{/if}
		{#each ['lcp', 'cls', 'tbt', 'inp'] as const as id (id)}
			{#if record.figures[id] !== null}<span
					>{metricOf(id).short} <b class="figures">{formatValue(id, record.figures[id])}</b>
					<BandBar band={bandOf(id, record.figures[id])!} /></span
				>{/if}
		{/each}
	</p>
	<p>
		<b>{record.conditions?.name ?? 'Unknown conditions'}</b>{record.conditions?.summary
			? `, ${record.conditions.summary.toLowerCase()}`
			: ''}{record.conditions?.cache === 'repeat' ? ', repeat visit' : ''}. {formatMoment(record.startedAt)}.
	</p>
	<p class="no-print">
		<a href="/api/loads/{data.load.id}/har" download>HAR</a> ·
		<a href="/api/loads/{data.load.id}" download="zafra-load-{data.load.id}.json">Record as JSON</a>
		(<a href="/api/schemas/load-record">schema</a>)
	</p>
</header>
{#if record.failure}
	<div class="failure" role="alert">
		<b>This load failed.</b>
		{record.failure.message}
		{record.failure.advice}
	</div>
{/if}
{#each record.environment.notes as note (note)}<p class="note">{note}</p>{/each}

<style>
	header p {
		margin: 0.25rem 0;
	}
	header {
		margin-bottom: 1.2rem;
	}
	.verdict {
		display: flex;
		flex-wrap: wrap;
		gap: 0.2rem 1.3rem;
		align-items: baseline;
	}
	.address {
		overflow-wrap: anywhere;
		color: var(--muted);
	}
	.failure,
	.note {
		border-left: 3px solid var(--worse);
		padding: 0.4rem 0.8rem;
		background: var(--panel);
		margin-bottom: 1rem;
	}
	.note {
		border-left: 3px solid var(--worse);
		padding: 0.4rem 0.8rem;
		background: var(--panel);
		margin-bottom: 1rem;
	}
	.note {
		border-left-color: var(--focus);
	}
</style>
