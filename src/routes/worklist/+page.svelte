<script lang="ts">
	import { Button, Checkbox } from 'carbon-components-svelte';
	import { goto } from '$app/navigation';
	import { ruleName } from '$core/wording/findings';
	import { counted } from '$core/wording/format';
	import Action from '$lib/parts/Action.svelte';
	import Choice from '$lib/parts/Choice.svelte';
	import FilterBar from '$lib/parts/FilterBar.svelte';
	import Pager from '$lib/parts/Pager.svelte';
	import Table from '$lib/parts/Table.svelte';
	import type { Column } from '$lib/parts/tableRows';
	import ChangeLines from './ChangeLines.svelte';
	import StateMark from './StateMark.svelte';

	let { data } = $props();
	type Row = (typeof data.list.rows)[number];
	let marked: number[] = $state([]);
	let open = $state<number | null>(null);
	const { state: stateFilter, rule } = $derived(data.filter);
	const askedWords = $derived(data.filter.words);
	let words = $derived(askedWords);
	const stateOptions = $derived([
		{ value: '', text: 'All states' },
		...data.list.states.map(({ state, name, n }) => ({ value: state as string, text: `${name} (${n})` }))
	]);
	const ruleOptions = $derived([
		{ value: '', text: 'All rules' },
		...data.list.rules.map((id) => ({ value: id as string, text: ruleName(id) }))
	]);
	const columns = $derived<Column<Row>[]>([
		{ key: 'mark', name: 'Mark', isUnnamed: true },
		{ key: 'what', name: 'What to do', isRowHead: true },
		...(data.clientId === null ? [{ key: 'client', name: 'Client', text: ({ client }: Row) => client }] : []),
		{ key: 'cost', name: 'Costs', text: ({ cost }) => cost },
		{ key: 'who', name: 'Who', text: ({ who, effort }) => `${who}, ${effort}` },
		{ key: 'state', name: 'State' },
		{ key: 'more', name: 'Details', isUnnamed: true }
	]);
	function show(values: Record<string, string>) {
		marked = [];
		const all = { state: stateFilter, rule, q: words.trim(), ...values };
		const given = Object.entries(all).filter(([, value]) => value !== '');
		void goto(`?${new URLSearchParams(given)}`, { keepFocus: true, noScroll: true, replaceState: true });
	}
	const mark = (id: number, isMarked: boolean) =>
		(marked = isMarked ? [...marked, id] : marked.filter((known) => known !== id));
	const chosen = $derived(open === null ? null : (data.list.rows.find(({ id }) => id === open) ?? null));
</script>

<svelte:head><title>Worklist – Zafra</title></svelte:head>

<div class="page">
	<div class="page-top">
		<h1>Worklist</h1>
		<div class="buttons">
			{#if data.clientId !== null && data.list.total}<Action
					action="/reports?/create"
					text="Hand it over by link"
					kind="tertiary"
					size="field"
					values={{ client: data.clientId, worklist: 'yes' }}
				/>{/if}
			<Button href="/audits/new" size="field" data-key="n">New audit</Button>
		</div>
	</div>
	{#if !data.list.total && !stateFilter && !rule && !askedWords}
		<section class="panel">
			<h2>Nothing to do yet</h2>
			<p>
				{data.hasAudits
					? 'The audits of this client found nothing, or are still under way.'
					: 'An audit of a client’s pages fills this list: what to do, on which pages, who can mend it, and when it is done.'}
			</p>
			<Button href={data.hasAudits ? '/audits' : '/audits/new'} size="field"
				>{data.hasAudits ? 'See the audits' : 'New audit'}</Button
			>
		</section>
	{:else}
		<FilterBar placeholder="Part of an address or selector" bind:words onsearch={() => show({})}>
			<Choice
				label="State"
				options={stateOptions}
				value={stateFilter}
				onchange={(value) => show({ state: value })}
			/>
			<Choice label="Rule" options={ruleOptions} value={rule} onchange={(value) => show({ rule: value })} />
			<span class="muted figures" aria-live="polite">{data.list.total}</span>
			<a href={data.csv} download>CSV</a>
		</FilterBar>
		{#if marked.length > 1}<ChangeLines ids={marked} line={null} done={() => (marked = [])} />{/if}
		{#if chosen}
			<section class="panel" aria-label={chosen.title}>
				<h2>{chosen.title}</h2>
				<p>{chosen.detail}</p>
				<p class="resource"><code>{chosen.resource.name}</code></p>
				<ol>
					{#each chosen.advice as step (step)}<li>{step}</li>{/each}
				</ol>
				<p class="muted small">
					{chosen.doneWhen} <a href="/loads/{chosen.load}">A load that shows it</a> ·
					<a href="/api/findings/{chosen.id}/text">As an issue text</a>
					{#if chosen.audit}· <a href="/audits/{chosen.audit}">The audit</a>{/if}
				</p>
				{#if chosen.rank}<p class="muted small">{chosen.rank}</p>{/if}
				{#if chosen.rehearsal}<p>
						<a href="/trials/{chosen.rehearsal.trial}"
							>{chosen.rehearsal.sentences.length ? 'Rehearsed' : 'The rehearsal is under way'}</a
						>{#each chosen.rehearsal.sentences as sentence (sentence)}
							<span class="rehearsed">{sentence}</span>{/each}
					</p>{/if}
				<div class="row">
					{#if chosen.canRehearse}<Action
							action="?/rehearse"
							text={chosen.rehearsal ? 'Rehearse it again' : 'Rehearse the mend'}
							kind="tertiary"
							values={{ id: chosen.id }}
						/>{/if}
					{#if chosen.audit}<Action
							action="?/again"
							text="Look again at its {counted(chosen.pages[0], 'page')}"
							kind="tertiary"
							values={{ id: chosen.id }}
						/>{/if}
				</div>
				{#key chosen.id}<ChangeLines ids={[chosen.id]} line={chosen} done={() => (open = null)} />{/key}
			</section>
		{/if}
		<Table label="Worklist" {columns} rows={data.list.rows} key={({ id }) => id}>
			{#snippet cell(row, column)}
				{#if column.key === 'mark'}<Checkbox
						hideLabel
						labelText="Mark {row.title}"
						checked={marked.includes(row.id)}
						on:check={(event) => mark(row.id, event.detail)}
					/>
				{:else if column.key === 'what'}<b class="title">{row.title}</b>
					<span class="muted small">{row.reach}</span>
					{#if row.question}<span class="small question">To the client: {row.question}</span>{/if}
					{#if row.note}<span class="muted small">{row.note}</span>{/if}
				{:else if column.key === 'state'}<StateMark state={row.state} name={row.stateName} owner={row.owner} />
				{:else}<Button
						kind="ghost"
						size="small"
						aria-expanded={open === row.id}
						on:click={() => (open = open === row.id ? null : row.id)}
						>{open === row.id ? 'Close' : 'How'}<span class="visually-hidden">: {row.title}</span></Button
					>{/if}
			{/snippet}
		</Table>
		{#if data.list.total > 25}<Pager
				total={data.list.total}
				pageSize={25}
				page={data.list.page}
				onchange={(page) => show({ rows: String(page) })}
			/>{/if}
	{/if}
</div>

<style>
	.title {
		display: block;
		font-weight: 600;
		overflow-wrap: anywhere;
	}
	.title ~ span {
		display: block;
	}
	.row {
		display: flex;
		flex-wrap: wrap;
		gap: var(--gap-4);
	}
	.rehearsed {
		display: block;
	}
	.question {
		color: var(--action);
	}
	.resource {
		overflow-wrap: anywhere;
	}
	ol {
		list-style: decimal;
		padding-left: var(--gap-6);
	}
</style>
