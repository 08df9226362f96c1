<script lang="ts">
	import { Button } from 'carbon-components-svelte';
	import { goto } from '$app/navigation';
	import { formatDay, formatMoment, formatValue } from '$core/wording/format';
	import ShiftStrip from '$lib/charts/ShiftStrip.svelte';
	import BandBar from '$lib/parts/BandBar.svelte';
	import Choice from '$lib/parts/Choice.svelte';
	import FilterBar from '$lib/parts/FilterBar.svelte';
	import Table from '$lib/parts/Table.svelte';
	import type { Column } from '$lib/parts/tableRows';

	let { data } = $props();
	type Row = (typeof data.rows)[number];
	/** What is typed stays while lists are brought up to date; another address changes it. */
	const askedWords = $derived(data.filter.words);
	let words = $derived(askedWords);
	let { state: is, band, type } = $derived(data.filter);
	let period = $derived<string>(data.period);
	const BANDS = ['good', 'needs improvement', 'poor'] as const;
	const rows = $derived(
		data.rows.filter(
			(row) =>
				`${row.url} ${row.watchName} ${row.clientName}`.toLowerCase().includes(words.toLowerCase()) &&
				(!is || row.state === is) &&
				(!type || row.type === type) &&
				(!band || row.conditions.some((own) => own.band === band))
		)
	);
	const STATES: Record<Row['state'], string> = {
		waiting: 'not read yet',
		'being-read': 'being read',
		changed: 'moved',
		steady: 'steady',
		young: 'too few readings to call',
		trouble: 'needs you',
		ended: 'not watched any more'
	};
	const broken = $derived(data.rows.filter(({ state }) => state === 'trouble'));
	const moved = $derived(data.rows.filter(({ state }) => state === 'changed'));
	const MOST_NEWS = 6;
	const troubleOf = ({ conditions }: Row) =>
		[...new Set(conditions.flatMap(({ trouble }) => trouble || []))].join(' ');
	const scoreOf = ({ conditions: own }: Row) => own[0]?.score ?? null;
	const columns: Column<Row>[] = [
		{ key: 'page', name: 'Page', kind: 'address', sort: ({ url }) => url },
		{ key: 'figures', name: 'Newest reading: score, LCP, CLS, blocking time', sort: scoreOf },
		{ key: 'strip', name: 'Change since then: score, LCP, CLS, TBT, bytes' },
		{ key: 'state', name: 'State', sort: ({ state }) => STATES[state] }
	];
	const SINCE = [
		{ value: 'week', text: 'last week' },
		{ value: 'month', text: 'four weeks' },
		{ value: 'start', text: 'first reading' }
	];
	const types = $derived([
		{ value: '', text: 'All types' },
		...[...new Set(data.rows.flatMap((row) => row.type ?? []))].map((one) => ({ value: one, text: one }))
	]);
	const states = [
		{ value: '', text: 'All' },
		...Object.entries(STATES).map(([value, text]) => ({ value, text }))
	];
	const bands = [{ value: '', text: 'All bands' }, ...BANDS.map((value) => ({ value, text: value }))];
	const show = () =>
		goto(
			`?${new URLSearchParams(Object.entries({ since: period, words, is, band, type }).filter(([, value]) => value !== ''))}`,
			{ keepFocus: true, noScroll: true, replaceState: true }
		);
</script>

<svelte:head><title>Watch – Zafra</title></svelte:head>

<div class="page">
	<div class="page-top">
		<h1>Watch</h1>
		{#if data.watches.length}<Button href="/watch/new" size="field" data-key="r">New watch</Button>{/if}
	</div>
	{#if !data.watches.length}
		<section class="stack panel empty">
			<h2>No page is watched yet</h2>
			<p>
				A watch loads pages on a schedule, a few times each, beside a control page that nobody changes. It says
				when a page moved by more than the noise, and never reads a change of the browser as the page’s.
			</p>
			<Button href="/watch/new" data-key="r">New watch</Button>
		</section>
	{:else}
		<p class="watches">
			{#each data.watches as watch, i (watch.id)}{i ? ' · ' : ''}<a href="/watch/{watch.id}">{watch.name}</a
				><span class="muted"
					>, {watch.state === 'paused'
						? 'paused'
						: watch.nextAt
							? `next ${formatMoment(watch.nextAt)}`
							: 'on demand'}</span
				>{/each}
		</p>
		{#if broken.length}
			<section aria-labelledby="broken" class="news">
				<h2 id="broken">Broken</h2>
				<ul class="plain">
					{#each broken.slice(0, MOST_NEWS) as row (row.key)}<li>
							<a href="/watch/{row.watchId}/{row.page}">{new URL(row.url).host}{new URL(row.url).pathname}</a>
							<span class="trouble">{troubleOf(row)}</span>
						</li>{/each}
					{#if broken.length > MOST_NEWS}<li><a href="?is=trouble">All {broken.length}</a></li>{/if}
				</ul>
			</section>
		{/if}
		{#if moved.length}
			<section aria-labelledby="moved" class="news">
				<h2 id="moved">Moved in the last four weeks</h2>
				<ul class="plain">
					{#each moved.slice(0, MOST_NEWS) as row (row.key)}<li class="row">
							<a href="/watch/{row.watchId}/{row.page}">{new URL(row.url).host}{new URL(row.url).pathname}</a>
							{#each row.conditions.filter(({ marks }) => marks.length) as own (own.condition)}<span
									class="of small">{own.condition}</span
								>
								<ShiftStrip label="{row.name}, {own.condition}" marks={own.marks} />{/each}
						</li>{/each}
					{#if moved.length > MOST_NEWS}<li><a href="?is=changed">All {moved.length}</a></li>{/if}
				</ul>
			</section>
		{/if}
		{#if !broken.length && !moved.length}<p class="news">
				Nothing is broken, and no change was called in the last four weeks.
			</p>{/if}
		<FilterBar placeholder="Address, watch or client" bind:words onsearch={show}>
			<Choice label="Change since" options={SINCE} bind:value={period} onchange={show} />
			<Choice label="State" options={states} bind:value={is} onchange={show} />
			<Choice label="Band" options={bands} bind:value={band} onchange={show} />
			<Choice label="Type" options={types} bind:value={type} onchange={show} />
		</FilterBar>
		<Table label="Watched pages" {columns} {rows} key={({ key }) => key} pageSize={25} size="medium">
			{#snippet cell(row, column)}
				{#if column.key === 'page'}
					<a href="/watch/{row.watchId}/{row.page}" class="path" data-row-link>{new URL(row.url).pathname}</a>
					<br /><span class="muted small">{[row.type, new URL(row.url).host].filter(Boolean).join(', ')}</span>
				{:else if column.key === 'figures'}
					<div class="stack lines">
						{#each row.conditions as own (own.condition)}
							<div class="line">
								<span class="of small">{own.condition}</span>
								<span class="figures score">{formatValue('score', own.score)}</span>
								<span class="figures">{formatValue('lcp', own.lcp)}</span>
								<span class="figures">{formatValue('cls', own.cls)}</span>
								<span class="figures">{formatValue('tbt', own.tbt)}</span>
								{#if own.band}<BandBar band={own.band} />{/if}
							</div>
						{:else}<span class="muted">no reading yet</span>{/each}
					</div>
				{:else if column.key === 'strip'}
					<div class="stack lines">
						{#each row.conditions as own (own.condition)}
							<div class="line">
								{#if own.marks.length}<ShiftStrip
										label="{row.name}, {own.condition}"
										marks={own.marks}
									/>{:else}<span class="muted small"
										>{own.since ? 'the lab changed since: not compared' : 'nothing to compare with yet'}</span
									>{/if}
							</div>
						{/each}
					</div>
				{:else}
					<span class={row.state}>{STATES[row.state]}</span>
					{#each row.conditions.filter(({ trouble }) => trouble) as own (own.condition)}
						<br /><span class="small trouble">{own.condition}: {own.trouble}</span>
					{/each}
					{#if row.at}<br /><span class="muted small">{formatDay(row.at.slice(0, 10))}</span>{/if}
				{/if}
			{/snippet}
		</Table>
		{#if !rows.length}<p class="muted">No page fits these filters.</p>{/if}
	{/if}
</div>

<style>
	.watches {
		margin: 0 0 var(--gap-4);
	}
	.news {
		margin: 0 0 var(--gap-6);
	}
	.news li {
		margin: var(--gap-2) 0;
	}
	.news .of {
		min-width: 0;
	}
	.of {
		min-width: 4.2rem;
		color: var(--muted);
	}
	.line {
		display: grid;
		grid-template-columns: 4.2rem 2rem 4rem 3rem 4rem auto;
		gap: var(--gap-3);
		align-items: center;
		min-height: 20px;
	}
	.line :global(.strip) {
		grid-column: 1 / -1;
	}
	.line > .small:only-child {
		grid-column: 1 / -1;
	}
	.line .figures {
		text-align: right;
		white-space: nowrap;
	}
	.score {
		font-weight: 600;
	}
	.changed,
	.trouble {
		font-weight: 600;
	}
</style>
