<script lang="ts">
	import { ContentSwitcher, InlineLoading, Switch } from 'carbon-components-svelte';
	import { invalidateAll } from '$app/navigation';
	import { metricOf } from '$core/metrics/catalogue';
	import { counted, formatMoment } from '$core/wording/format';
	import Action from '$lib/parts/Action.svelte';
	import Choice from '$lib/parts/Choice.svelte';
	import Notice from '$lib/parts/Notice.svelte';
	import ProgressLine from '$lib/parts/ProgressLine.svelte';
	import Causes from './Causes.svelte';
	import PageTable from './PageTable.svelte';
	import Side from './Side.svelte';
	import Since from './Since.svelte';

	let { data } = $props();
	const audit = $derived(data.audit);
	const isOpen = $derived(audit.status === 'running');
	let device = $state(0);
	let missing = $state('');
	const condition = $derived(audit.conditions[device] ?? audit.conditions[0]);
	const shown = $derived(
		audit.pages.filter(
			(row) =>
				row.condition === condition?.id &&
				(missing === '' || !['good', null].includes(row.metrics[missing as 'lcp']?.band ?? null))
		)
	);
	const METRICS = ['lcp', 'cls', 'tbt', 'fcp', 'ttfb'] as const;
	const filters = [
		{ value: '', text: 'All pages' },
		...METRICS.map((id) => ({ value: id, text: `Pages that miss ${metricOf(id).short}` }))
	];

	const pathOf = (url: string) => (new URL(url).pathname === '/' ? new URL(url).host : new URL(url).pathname);

	const POLL_MS = 2000;
	$effect(() => {
		if (!isOpen && audit.isLookedAt && audit.savings?.isOver !== false) return;
		const timer = setInterval(() => void invalidateAll(), POLL_MS);
		return () => clearInterval(timer);
	});
</script>

<svelte:head><title>Audit of {audit.name} – Zafra</title></svelte:head>

<div class="page">
	<div class="page-top">
		<h1>Audit of {audit.name}</h1>
		<div class="buttons">
			{#if isOpen}<Action action="?/stop" text="Stop with what it has" kind="tertiary" size="field" />
			{:else}{#if audit.isLookedAt}<Action
						action="/reports?/create"
						text="Report on it"
						kind="tertiary"
						size="field"
						values={{ audit: audit.id }}
					/>{/if}<Action action="?/again" text="Look again" kind="primary" size="field" shortcut="r" />{/if}
		</div>
	</div>
	<p class="muted">
		{formatMoment(audit.createdAt)}, {counted(audit.loadsEach, 'load')} of each page and device. An audit gives levels
		and findings; whether something got faster, a trial says.
		{#if audit.againOf}<a href="/audits/{audit.againOf}">The audit before</a>{/if}
	</p>
	{#if isOpen}<ProgressLine done={audit.progress.done} total={audit.progress.total} />
	{:else if !audit.isLookedAt}<InlineLoading description="What the loads show is being worked out …" />{/if}
	{#if audit.savings && !isOpen}
		{#if !audit.savings.isOver}<InlineLoading
				description="What its files could save is being worked out: {audit.savings.done} of {audit.savings
					.total} …"
			/>{:else if audit.savings.bytes}<p>
				Of its {counted(audit.savings.total, 'file')}, encoded, packed and cut anew,
				<b class="figures">{audit.savings.words}</b> could be saved. Bytes are exact; what that brings in time, a
				trial measures.
			</p>{/if}
	{/if}
	{#if audit.faults.length}<Notice
			kind="warning"
			title="A rule of Zafra failed; the others went on."
			text={audit.faults.join('; ')}
		/>{/if}
	{#if audit.since.length}<Since since={audit.since} />{/if}
	{#if audit.isLookedAt}<Causes causes={audit.causes} way={audit.way} clientId={audit.clientId} />{/if}
	<section>
		<div class="head">
			<h2>Where each page stands</h2>
			{#if audit.conditions.length > 1}<ContentSwitcher
					size="sm"
					bind:selectedIndex={device}
					aria-label="Conditions"
				>
					{#each audit.conditions as { id, name } (id)}<Switch text={name} />{/each}
				</ContentSwitcher>{/if}
			<Choice label="Show" options={filters} bind:value={missing} inline hideLabel />
			<a href="/api/audits/{audit.id}/pages.csv" download>CSV</a>
		</div>
		{#if audit.moveOn.length}<p>
				<b>Good, move on:</b>
				{audit.moveOn.map(pathOf).join(', ')}. Visitors have it good there, on phones and on desktops.
			</p>{/if}
		{#if shown.length}<PageTable rows={shown} />{:else}<p class="muted">No page fits.</p>{/if}
	</section>
	{#if audit.side.length}<Side side={audit.side} />{/if}
	{#if !isOpen}<p class="no-print">
			<Action action="?/delete" text="Delete this audit" kind="danger-ghost" size="small" />
		</p>{/if}
</div>

<style>
	.head {
		display: flex;
		flex-wrap: wrap;
		gap: var(--gap-5);
		align-items: center;
	}
	.head :global(.bx--content-switcher) {
		width: 14rem;
	}
</style>
