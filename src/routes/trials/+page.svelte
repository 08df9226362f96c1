<script lang="ts">
	import { Button, Pagination } from 'carbon-components-svelte';
	import { goto, invalidateAll } from '$app/navigation';
	import { formatMoment } from '$core/wording/format';
	import { live } from '$lib/live.svelte';
	import Choice from '$lib/parts/Choice.svelte';
	import FilterBar from '$lib/parts/FilterBar.svelte';
	import Strips from '$lib/parts/Strips.svelte';
	import Table from '$lib/parts/Table.svelte';
	import { KINDS, STATES } from '$lib/parts/trialNames';
	import type { Column } from '$lib/parts/tableRows';

	let { data } = $props();
	// svelte-ignore state_referenced_locally
	let { words, status, kind, tone, host } = $state({ ...data.filter });
	type Row = (typeof data.trials)[number];

	const TONES: Record<string, string> = {
		better: 'Something better',
		worse: 'Something worse',
		mixed: 'Better and worse',
		slight: 'A difference, perhaps too little to matter',
		same: 'No difference that matters',
		undecided: 'Undecided',
		none: 'No verdict'
	};
	const optionsOf = (names: Record<string, string>) => [
		{ value: '', text: 'All' },
		...Object.entries(names).map(([value, text]) => ({ value, text }))
	];
	const hosts = $derived(optionsOf(Object.fromEntries(data.hosts.map((name) => [name, name]))));
	const stateOf = (row: Row) => {
		const now = live.progressOf(row.id) ?? row;
		const isMoving = row.status === 'running' || row.status === 'queued';
		return isMoving ? `${STATES[row.status]}, ${now.done} of ${now.total}` : STATES[row.status]!;
	};
	const columns: Column<Row>[] = [
		{ key: 'question', name: 'Question and answer', sort: (row) => row.question },
		{ key: 'client', name: 'Client', text: (row) => row.client, sort: (row) => row.client },
		{ key: 'kind', name: 'Kind', text: (row) => KINDS[row.kind], sort: (row) => row.kind },
		{ key: 'status', name: 'State', text: stateOf, sort: (row) => row.status },
		{ key: 'when', name: 'Started', text: (row) => formatMoment(row.when), sort: (row) => row.when }
	];

	/** The filters live in the address, so that a filtered list can be linked. */
	function show(page = 1) {
		const values = {
			q: words.trim(),
			state: status,
			kind,
			verdict: tone,
			site: host,
			page: page > 1 ? String(page) : ''
		};
		const query = new URLSearchParams(Object.entries(values).filter(([, value]) => value !== ''));
		void goto(`?${query}`, { keepFocus: true, noScroll: true, replaceState: true });
	}
	function showAll() {
		words = status = kind = tone = host = '';
		show();
	}

	const states = $derived(live.snapshot?.trials.map((trial) => `${trial.id}${trial.status}`).join());
	let known: string | undefined;
	$effect(() => {
		if (known !== undefined && known !== states) void invalidateAll();
		known = states;
	});
</script>

<svelte:head><title>Trials – Zafra</title></svelte:head>

<div class="page">
	<div class="page-top">
		<h1>Trials</h1>
		<Button size="field" href="/trials/new" data-key="r">New trial</Button>
	</div>

	{#if data.all === 0}
		<section class="panel empty">
			<h2>No trials here yet</h2>
			<p>Begin with the question:</p>
			<ul class="plain">
				{#each data.templates as template (template.id)}
					<li><a href="/trials/new?template={template.id}">{template.name}</a></li>
				{/each}
			</ul>
		</section>
	{:else}
		<FilterBar placeholder="Question, client or address" bind:words onsearch={() => show()}>
			<Choice label="State" options={optionsOf(STATES)} bind:value={status} onchange={() => show()} />
			<Choice label="Kind" options={optionsOf(KINDS)} bind:value={kind} onchange={() => show()} />
			<Choice label="Answer" options={optionsOf(TONES)} bind:value={tone} onchange={() => show()} />
			<Choice label="Site" options={hosts} bind:value={host} onchange={() => show()} />
			<span class="muted figures" aria-live="polite">{data.total} of {data.all}</span>
		</FilterBar>
		{#if data.trials.length}
			<Table label="Table of trials" {columns} rows={data.trials} key={(row) => row.id} size="medium">
				{#snippet cell(row)}
					<a class="question" href="/trials/{row.id}" data-row-link>{row.question}</a>
					{#if row.answer.strips.length}<Strips answer={row.answer} />{/if}
				{/snippet}
			</Table>
		{:else}
			<p>No trial fits. <Button kind="ghost" size="small" on:click={showAll}>Show all</Button></p>
		{/if}
		{#if data.pages > 1}
			<Pagination
				totalItems={data.total}
				pageSize={25}
				pageSizeInputDisabled
				page={data.page}
				on:change={(event) => event.detail.page && event.detail.page !== data.page && show(event.detail.page)}
			/>
		{/if}
	{/if}
</div>

<style>
	.empty {
		max-width: 40rem;
	}
	.question {
		font-weight: 600;
		color: var(--ink);
	}
</style>
