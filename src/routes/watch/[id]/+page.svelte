<script lang="ts">
	import { Button } from 'carbon-components-svelte';
	import { onMount } from 'svelte';
	import { invalidateAll } from '$app/navigation';
	import { counted, formatMoment } from '$core/wording/format';
	import Action from '$lib/parts/Action.svelte';
	import ConditionsChanged from '$lib/parts/ConditionsChanged.svelte';
	import Notice from '$lib/parts/Notice.svelte';
	import ProgressLine from '$lib/parts/ProgressLine.svelte';
	import Table from '$lib/parts/Table.svelte';
	import type { Column } from '$lib/parts/tableRows';
	import WatchFooter from '$lib/parts/WatchFooter.svelte';

	let { data } = $props();
	const view = $derived(data.view);
	type Page = (typeof view.pages)[number];
	const columns: Column<Page>[] = [
		{ key: 'page', name: 'Page', kind: 'address' },
		{ key: 'type', name: 'Type', text: ({ type }) => type ?? '' },
		{ key: 'state', name: 'State', text: ({ endedAt }) => (endedAt ? 'not watched any more' : 'watched') }
	];
	const failed = $derived(view.deliveries.filter(({ problem }) => problem !== null));

	const POLL_MS = 2000;
	$effect(() => {
		if (!view.progress) return;
		const timer = setInterval(() => void invalidateAll(), POLL_MS);
		return () => clearInterval(timer);
	});
	// Who has opened it has seen what it tells.
	onMount(() => {
		for (const { id, readAt } of view.notices)
			if (readAt === null) void fetch(`/api/notices/${id}`, { method: 'POST' });
	});
</script>

<svelte:head><title>{view.name} – Zafra</title></svelte:head>

<div class="page">
	<div class="page-top">
		<h1>{view.name}</h1>
		{#if view.progress}<Action action="?/stop" text="Stop this reading" kind="tertiary" size="field" />
		{:else if view.state === 'active'}<Action
				action="?/read"
				text="Read now"
				kind="primary"
				size="field"
				shortcut="r"
			/>{/if}
	</div>
	<p class="muted">
		{view.clientName}. Read {view.scheduleWords}, {view.settings.loads} loads of each page, under
		{view.settings.conditions.join(' and ')}; beside
		{view.control?.url ? view.control.url : 'the control page that ships with Zafra'}.
		{#if view.state === 'paused'}<b>Paused.</b>{:else if view.nextAt}Next: {formatMoment(view.nextAt)}.{/if}
		{#if view.readings && view.firstAt && view.lastAt}{counted(view.readings, 'reading')}, from {formatMoment(
				view.firstAt
			)} to {formatMoment(view.lastAt)}.{:else}No reading has ended yet.{/if}
	</p>
	{#if view.isRecorded}<Notice
			title="Part of this history was recorded for the demonstration."
			text="Its readings are drawn from real loads of the simulated web, with their real spread."
		/>{/if}
	{#if view.progress}<ProgressLine done={view.progress.done} total={view.progress.total} />{/if}
	<ConditionsChanged changed={view.changedConditions} what="this watch" parts="readings" />

	<section aria-labelledby="told">
		<h2 id="told">What it told</h2>
		{#each view.notices as notice (notice.id)}
			<article class={notice.body.kind}>
				<a href={notice.body.path}>{notice.body.title}{notice.body.when ? `, ${notice.body.when}` : ''}</a>
				<p class="muted small">{[formatMoment(notice.at), ...notice.body.lines].join(' · ')}</p>
			</article>
		{:else}<p class="muted">
				Nothing yet. It speaks when a page moved beyond the noise, when the lab changed, or when a page cannot
				be loaded.
			</p>{/each}
		{#if failed.length}<Notice
				kind="warning"
				title="Some notices were not delivered."
				text={failed
					.map(
						({ target, state, problem }) =>
							`${target.slice(5)}: ${problem}${state === 'waiting' ? ' It is tried again.' : ''}`
					)
					.slice(0, 3)
					.join(' ')}
			/>{/if}
	</section>

	<section aria-labelledby="pages">
		<h2 id="pages">Pages</h2>
		<Table label="Watched pages" {columns} rows={view.pages} key={({ id }) => id} pageSize={25}>
			{#snippet cell(row)}<a href="/watch/{view.id}/{row.id}" data-row-link>{row.url}</a>{/snippet}
		</Table>
	</section>

	{#if data.secret}
		<section aria-labelledby="hook">
			<h2 id="hook">Checking a webhook</h2>
			<p class="muted">
				Each notice comes with <code>x-zafra-moment</code> and <code>x-zafra-signature</code>: HMAC with
				SHA-256, in hex, of the moment, a dot and the body, with this secret:
			</p>
			<p><code class="secret">{data.secret}</code></p>
		</section>
	{/if}

	<WatchFooter
		what="this watch"
		state={view.state}
		settings="/watch/{view.id}/change"
		loss="Its {counted(view.readings, 'reading')} of {counted(
			view.pages.length,
			'page'
		)} go with it, and what it told. Reports that show them keep their copies."
	>
		<Button kind="tertiary" size="field" href="/api/watches/{view.id}/readings.csv">All loads as CSV</Button>
	</WatchFooter>
</div>

<style>
	section {
		margin-top: var(--gap-7);
	}
	article {
		border-left: 3px solid var(--rule);
		padding: var(--gap-1) 0 var(--gap-1) var(--gap-5);
		margin-bottom: var(--gap-5);
	}
	article.change {
		border-left-color: var(--ink);
	}
	article.trouble {
		border-left-color: var(--worse);
	}
	article a {
		font: 600 1.02rem/1.35 var(--serif);
		color: var(--ink);
	}
	article p {
		margin: var(--gap-1) 0 0;
	}
	.secret {
		overflow-wrap: anywhere;
	}
</style>
