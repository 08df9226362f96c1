<script lang="ts">
	import Scroller from '$lib/parts/Scroller.svelte';
	import { Button, DataTable, Pagination } from 'carbon-components-svelte';
	import { goto, invalidateAll } from '$app/navigation';
	import { formatMoment } from '$core/wording/format';
	import { live } from '$lib/live.svelte';

	let { data } = $props();
	// svelte-ignore state_referenced_locally
	let { words, status, kind, tone, host } = $state({ ...data.filter });

	const STATES: Record<string, string> = {
		draft: 'Draft',
		queued: 'In the queue',
		running: 'Running',
		waiting: 'Waits for you',
		done: 'Done',
		stopped: 'Stopped',
		failed: 'Failed'
	};
	const KINDS: Record<string, string> = {
		'side-by-side': 'Side by side',
		'before-after': 'Before and after',
		'same-page': 'Same page twice',
		sweep: 'Sweep over pages'
	};
	const VERDICTS: Record<string, string> = {
		better: 'Something better',
		worse: 'Something worse',
		mixed: 'Better and worse',
		slight: 'A difference, perhaps too little to matter',
		same: 'No difference that matters',
		undecided: 'Undecided',
		none: 'No verdict'
	};
	const HEADERS = [
		{ key: 'question', value: 'Question' },
		{ key: 'client', value: 'Client' },
		{ key: 'kind', value: 'Kind' },
		{ key: 'status', value: 'State' },
		{ key: 'when', value: 'Started' }
	] as const;

	/** The filters live in the URL, so that a filtered list can be linked. */
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
	const TYPING_MS = 250;
	let typing: ReturnType<typeof setTimeout> | undefined;
	function showSoon() {
		clearTimeout(typing);
		typing = setTimeout(show, TYPING_MS);
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
	const progress = (id: number, row: (typeof data.trials)[number]) => live.progressOf(id) ?? row;
</script>

<svelte:head><title>Trials – Zafra</title></svelte:head>

<div class="top">
	<h1>Trials</h1>
	<Button href="/trials/new" data-key="r">New trial</Button>
</div>
<p class="starts">
	Begin with: {#each data.templates as one, i (one.id)}{i ? ' · ' : ''}<a href="/trials/new?template={one.id}"
			>{one.name}</a
		>{/each}
</p>

{#if data.all === 0}
	<section class="panel empty">
		<h2>No trials here yet</h2>
		<p>
			Put one question to the lab: name the page as it is and the page as it might be, and let both be loaded in
			turn.
		</p>
	</section>
{:else}
	<div class="filters">
		<label
			>Search <input
				type="search"
				bind:value={words}
				oninput={showSoon}
				data-key="/"
				placeholder="Question, client or address"
			/></label
		>
		<label>
			State
			<select bind:value={status} onchange={() => show()}>
				<option value="">All</option>
				{#each Object.entries(STATES) as [value, name] (value)}<option {value}>{name}</option>{/each}
			</select>
		</label>
		<label
			>Kind <select bind:value={kind} onchange={() => show()}
				><option value="">All</option>{#each Object.entries(KINDS) as [value, name] (value)}<option {value}
						>{name}</option
					>{/each}</select
			></label
		>
		<label
			>Answer <select bind:value={tone} onchange={() => show()}
				><option value="">All</option>{#each Object.entries(VERDICTS) as [value, name] (value)}<option {value}
						>{name}</option
					>{/each}</select
			></label
		>
		<label
			>Site <select bind:value={host} onchange={() => show()}
				><option value="">All</option>{#each data.hosts as one (one)}<option value={one}>{one}</option
					>{/each}</select
			></label
		>
		<span class="muted figures">{data.total} of {data.all}</span>
	</div>
	<div class="list">
		<Scroller label="Table of trials">
			<DataTable sortable headers={HEADERS} rows={data.trials} size="medium">
				<svelte:fragment slot="cell" let:row let:cell>
					{#if cell.key === 'question'}
						<a href="/trials/{row.id}" data-row-link>{row.question}</a>
						{#each row.headlines as headline (headline.condition + headline.arm)}
							<div class="answer"><b>{headline.conditionName}:</b> {headline.text}</div>
						{/each}
					{:else if cell.key === 'kind'}
						{KINDS[cell.value]}
					{:else if cell.key === 'status'}
						{STATES[cell.value]}
						{#if cell.value === 'running' || cell.value === 'queued'}
							<span class="figures">({progress(row.id, row).done}/{progress(row.id, row).total})</span>
						{/if}
					{:else if cell.key === 'when'}
						<span class="when">{formatMoment(cell.value)}</span>
					{:else}
						{cell.value}
					{/if}
				</svelte:fragment>
			</DataTable>
		</Scroller>
		{#if data.pages > 1}
			<Pagination
				totalItems={data.total}
				pageSize={25}
				pageSizeInputDisabled
				page={data.page}
				on:change={(event) => event.detail.page && event.detail.page !== data.page && show(event.detail.page)}
			/>
		{/if}
		{#if data.trials.length === 0}
			<p class="none">No trial fits. <button onclick={showAll}>Show all</button></p>
		{/if}
	</div>
{/if}

<style>
	.top,
	.filters,
	.list {
		max-width: 1120px;
	}
	.top {
		display: flex;
		justify-content: space-between;
		align-items: center;
		margin-bottom: 1rem;
	}
	.filters {
		display: flex;
		gap: 1.2rem;
		align-items: end;
		flex-wrap: wrap;
		margin-bottom: 0.8rem;
	}
	select {
		max-width: 12rem;
	}
	label {
		font-size: 0.82rem;
		color: var(--muted);
		display: grid;
		gap: 0.15rem;
	}
	input,
	select {
		background: var(--panel);
		color: var(--ink);
		border: 1px solid var(--rule);
		border-bottom-color: var(--muted);
		padding: 0.4rem 0.5rem;
		font-size: 1rem;
	}
	input {
		width: min(18rem, 80vw);
	}
	.starts {
		font-size: 0.9rem;
		margin: -0.4rem 0 0.9rem;
	}
	.answer {
		font-size: 0.86rem;
		color: var(--muted);
		max-width: 44rem;
	}
	.when {
		white-space: nowrap;
	}
	.empty {
		max-width: 40rem;
	}
	.none button {
		background: none;
		border: 0;
		color: var(--action);
		text-decoration: underline;
		cursor: pointer;
	}
	.list :global(td) {
		padding-top: 0.6rem;
		padding-bottom: 0.6rem;
		vertical-align: top;
	}
</style>
