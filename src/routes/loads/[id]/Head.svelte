<script lang="ts">
	/** Which load this is, its figures with their bands, and why it is slow. */
	import { bandOf, metricOf } from '$core/metrics/catalogue';
	import { formatMoment, formatValue } from '$core/wording/format';
	import type { FieldOfAddress } from '$lib/server/rooms/field/view';
	import type { LoadHead } from '$lib/server/rooms/loads/view';
	import Action from '$lib/parts/Action.svelte';
	import BandBar from '$lib/parts/BandBar.svelte';
	import FieldLine from '$lib/parts/FieldLine.svelte';
	import Notice from '$lib/parts/Notice.svelte';

	interface Props {
		data: LoadHead & { field: FieldOfAddress };
	}
	let { data }: Props = $props();
	const record = $derived(data.record);
	const FIGURES = ['score', 'lcp', 'cls', 'tbt', 'inp', 'ttfb', 'fcp', 'wire', 'requests'] as const;
	const SIGN_IN = 'If it asks to sign in, load it as a visitor who is signed in.';
	const shown = $derived(FIGURES.filter((id) => record.figures[id] !== null));
	const meta = $derived(
		[
			record.conditions?.name ?? 'unknown conditions',
			record.conditions?.summary.toLowerCase(),
			record.conditions?.cache === 'repeat' ? 'repeat visit' : '',
			formatMoment(record.startedAt)
		].filter(Boolean)
	);
</script>

<header>
	<p class="muted small">
		{#if data.trial}<a href="/trials/{data.trial.id}">{data.trial.question}</a> · {data.trial.arm} · {data.load
				.warmup
				? 'warm-up'
				: 'round'}
			{data.load.round}
		{:else if record.source === 'har'}Imported from a HAR file. <a href="/loads">All single loads</a>
		{:else}A single load. <a href="/loads">All single loads</a>{/if}
	</p>
	<h1>{record.title || record.url}</h1>
	<p class="muted small address">{record.finalUrl} · {meta.join(' · ')}</p>
</header>
{#if record.failure}
	<Notice kind="error" title="This load failed. {record.failure.message}" text={record.failure.advice} />
{/if}
{#if record.landed && record.status === 'ok'}
	<Notice
		kind="warning"
		title="This load ended on another page."
		text="{record.url} led to {record.landed}: the figures are of that page. {SIGN_IN}"
	/>
{/if}
{#if shown.length}
	<dl class="figure-row">
		{#each shown as id (id)}
			{@const band = bandOf(id, record.figures[id])}
			<div>
				<dt title={metricOf(id).name}>{metricOf(id).short}</dt>
				<dd>
					<b class="figures">{formatValue(id, record.figures[id])}</b>
					{#if band}<BandBar {band} />{/if}
				</dd>
			</div>
		{/each}
	</dl>
{/if}
<FieldLine rows={data.field} />
{#if data.why.length}<p class="why">{data.why.join(' ')}</p>{/if}
{#each record.notes as note, i (i)}<p class="message small">{note}</p>{/each}
<div class="no-print small links">
	<span
		><a href="/loads/address?url={encodeURIComponent(record.url)}">This address over time</a> ·
		<a href="/api/loads/{data.load.id}/har" download>HAR</a> ·
		<a href="/api/loads/{data.load.id}" download="zafra-load-{data.load.id}.json">Record as JSON</a>
		(<a href="/api/schemas/load-record">schema</a>)</span
	>
	{#if !data.trial}<Action
			action="/reports?/create"
			text="Share this load"
			values={{ load: data.load.id }}
		/>{/if}
</div>

<style>
	header {
		margin-bottom: var(--gap-4);
	}
	.figure-row {
		display: flex;
		flex-wrap: wrap;
		gap: var(--gap-3) var(--gap-7);
		margin: 0 0 var(--gap-4);
		padding: var(--gap-4) 0;
		border-top: 1px solid var(--rule);
		border-bottom: 1px solid var(--rule);
	}
	dt {
		font-size: var(--type-2);
		color: var(--muted);
	}
	dd {
		margin: 0;
		display: grid;
		line-height: 1.25;
	}
	dd b {
		font-size: var(--type-6);
	}
	.links {
		display: flex;
		flex-wrap: wrap;
		gap: var(--gap-2);
		align-items: center;
	}
	.why {
		max-width: 62rem;
		margin: 0 0 var(--gap-4);
	}
</style>
