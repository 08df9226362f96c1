<script lang="ts">
	import Scroller from '$lib/parts/Scroller.svelte';
	import { Button, DataTable } from 'carbon-components-svelte';
	import { replaceState, invalidateAll } from '$app/navigation';
	import { page } from '$app/state';
	import { formatMoment } from '$core/wording/format';
	import { live } from '$lib/live.svelte';

	let { data } = $props();
	// svelte-ignore state_referenced_locally
	let query = $state(data.query);
	// svelte-ignore state_referenced_locally
	let wanted = $state(data.state);
	// svelte-ignore state_referenced_locally
	let kind = $state(data.kind);
	// svelte-ignore state_referenced_locally
	let verdict = $state(data.verdict);
	// svelte-ignore state_referenced_locally
	let site = $state(data.site);

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
	const sites = $derived([...new Set(data.trials.flatMap((trial) => trial.sites))].sort());
	const HEADERS = [
		{ key: 'question', value: 'Question' },
		{ key: 'client', value: 'Client' },
		{ key: 'kind', value: 'Kind' },
		{ key: 'status', value: 'State' },
		{ key: 'when', value: 'Started' }
	] as const;

	const rows = $derived(
		data.trials.filter((trial) => {
			const words =
				`${trial.question} ${trial.client} ${trial.headlines.map((one) => one.text).join(' ')}`.toLowerCase();
			return (
				(!wanted || trial.status === wanted) &&
				(!kind || trial.kind === kind) &&
				(!site || trial.sites.includes(site)) &&
				(!verdict || trial.headlines.some((one) => one.tone === verdict)) &&
				words.includes(query.trim().toLowerCase())
			);
		})
	);

	/** The filters live in the URL, so that a filtered list can be linked. */
	function keepInUrl() {
		const url = new URL(page.url);
		for (const [name, value] of [
			['q', query.trim()],
			['state', wanted],
			['kind', kind],
			['verdict', verdict],
			['site', site]
		] as const)
			if (value) url.searchParams.set(name, value);
			else url.searchParams.delete(name);
		replaceState(url, page.state);
	}

	const states = $derived(live.snapshot?.trials.map((trial) => `${trial.id}${trial.status}`).join());
	let known: string | undefined;
	$effect(() => {
		if (known !== undefined && known !== states) void invalidateAll();
		known = states;
	});
	const progress = (id: number, row: (typeof rows)[number]) => live.progressOf(id) ?? row;
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

{#if data.trials.length === 0}
	<section class="panel empty">
		<h2>No trials here yet</h2>
		<p>
			Put one question to the lab: name the page as it is and the page as it might be, and let both be loaded in turn.
		</p>
	</section>
{:else}
	<div class="filters">
		<label
			>Search <input
				type="search"
				bind:value={query}
				oninput={keepInUrl}
				data-key="/"
				placeholder="Words of the question or the answer"
			/></label
		>
		<label>
			State
			<select bind:value={wanted} onchange={keepInUrl}>
				<option value="">All</option>
				{#each Object.entries(STATES) as [value, name] (value)}<option {value}>{name}</option>{/each}
			</select>
		</label>
		<label
			>Kind <select bind:value={kind} onchange={keepInUrl}
				><option value="">All</option>{#each Object.entries(KINDS) as [value, name] (value)}<option {value}
						>{name}</option
					>{/each}</select
			></label
		>
		<label
			>Answer <select bind:value={verdict} onchange={keepInUrl}
				><option value="">All</option>{#each Object.entries(VERDICTS) as [value, name] (value)}<option {value}
						>{name}</option
					>{/each}</select
			></label
		>
		<label
			>Site <select bind:value={site} onchange={keepInUrl}
				><option value="">All</option>{#each sites as one (one)}<option value={one}>{one}</option>{/each}</select
			></label
		>
		<span class="muted figures">{rows.length} of {data.trials.length}</span>
	</div>
	<div class="list">
		<Scroller label="Table of trials">
			<DataTable sortable headers={HEADERS} {rows} size="medium">
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
		{#if rows.length === 0}<p class="none">
				No trial fits. <button
					onclick={() => {
						query = wanted = kind = verdict = site = '';
						keepInUrl();
					}}>Show all</button
				>
			</p>{/if}
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
