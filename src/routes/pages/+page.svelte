<script lang="ts">
	import { Button, Checkbox, ComboBox } from 'carbon-components-svelte';
	import { goto, invalidateAll } from '$app/navigation';
	import { originOf } from '$core/clients/site';
	import { formatMoment } from '$core/wording/format';
	import { keepTyped } from '$lib/keepTyped';
	import Choice from '$lib/parts/Choice.svelte';
	import Confirm from '$lib/parts/Confirm.svelte';
	import FilterBar from '$lib/parts/FilterBar.svelte';
	import Hidden from '$lib/parts/Hidden.svelte';
	import Pager from '$lib/parts/Pager.svelte';
	import Table from '$lib/parts/Table.svelte';
	import type { Column } from '$lib/parts/tableRows';
	import AddPages from './AddPages.svelte';
	import Proposals from './Proposals.svelte';
	import SamplePanel from './SamplePanel.svelte';
	import Settling from './Settling.svelte';
	import { amountWords, pathOf } from './pageWords';

	let { data, form } = $props();
	/** What is typed stays while lists are brought up to date; another address changes it. */
	const askedWords = $derived(data.filter.words);
	let words = $derived(askedWords);
	let { type, which } = $derived(data.filter);
	const site = $derived(data.site);
	const view = $derived(data.view);
	type Row = NonNullable<typeof data.view>['rows'][number];
	let marked: number[] = $state([]);
	let typed = $state('');
	let deleting = $state(false);
	let deleteForm = $state<HTMLFormElement>();
	const action = (name: string) => `?/${name}&site=${site?.id ?? 0}`;
	const typeOptions = $derived([
		{ value: '', text: 'All' },
		...(view?.types ?? []).map(({ type: name, pages }) => ({
			value: name ?? '-',
			text: `${name ?? 'no type yet'} (${pages})`
		}))
	]);
	const WHICH = [
		{ value: '', text: 'All' },
		{ value: 'chosen', text: 'In the sample' },
		{ value: 'others', text: 'Not in the sample' },
		{ value: 'quiet', text: 'Too quiet for field data' }
	];
	const hasDates = $derived(view?.rows.some(({ lastmod }) => lastmod !== null) ?? false);
	const allColumns: Column<Row>[] = $derived([
		{ key: 'mark', name: 'Mark', isUnnamed: true },
		{ key: 'page', name: 'Page', kind: 'address' },
		{ key: 'type', name: 'Type', text: ({ type: name }) => name ?? '' },
		{ key: 'visits', name: 'Visits a month', number: true },
		{
			key: 'share',
			name: 'Share',
			number: true,
			text: ({ share }) => (share === null ? '' : `${(share * 100).toFixed(1)} %`)
		},
		{ key: 'goals', name: 'Conversions', number: true, text: ({ conversions }) => amountWords(conversions) },
		{
			key: 'revenue',
			name: `Revenue, ${data.currency}`,
			number: true,
			text: ({ revenue }) => amountWords(revenue, 0)
		},
		{ key: 'changed', name: 'Changed', text: ({ lastmod }) => (lastmod ? formatMoment(lastmod) : '') },
		{ key: 'sample', name: 'Sample' }
	]);
	const columns = $derived(allColumns.filter(({ key }) => key !== 'changed' || hasDates));

	function show(siteId = site?.id, page = 1) {
		const values = {
			site: String(siteId ?? ''),
			q: words.trim(),
			type,
			which,
			page: page > 1 ? String(page) : ''
		};
		marked = [];
		void goto(`?${new URLSearchParams(Object.entries(values).filter(([, value]) => value !== ''))}`, {
			keepFocus: true,
			noScroll: true,
			replaceState: true
		});
	}
	function showSite(id: string) {
		words = type = which = '';
		show(Number(id));
	}
	const mark = (id: number, isMarked: boolean) =>
		(marked = isMarked ? [...marked, id] : marked.filter((known) => known !== id));

	// What a lab gathers shows up by itself.
	const POLL_MS = 1500;
	$effect(() => {
		if (!view?.gathering?.isOpen && !view?.settling?.isOpen) return;
		const timer = setInterval(() => void invalidateAll(), POLL_MS);
		return () => clearInterval(timer);
	});
</script>

<svelte:head><title>Pages – Zafra</title></svelte:head>

<div class="page">
	<div class="page-top">
		<h1>Pages</h1>
		{#if data.sites.length}
			<Choice
				label="Site"
				options={data.sites.map(({ id, name, host, role }) => ({
					value: String(id),
					text: `${name}${name === host ? '' : `, ${host}`}${role === 'own' ? '' : ` (${role})`}`
				}))}
				value={String(site?.id ?? '')}
				onchange={showSite}
			/>
		{/if}
	</div>

	{#if !site || !view}
		<section class="panel">
			<h2>No site yet</h2>
			<p>Pages belong to a site of a client.</p>
			<Button href={data.clients.length ? '/clients' : '/clients/new'} data-key="r"
				>{data.clients.length ? 'Choose a client' : 'New client'}</Button
			>
		</section>
	{:else}
		{#if view.sample.all}
			<SamplePanel sample={view.sample} action={action('propose')} chooseAction={action('choose')} />
		{/if}
		{#if view.sample.coverage.pages}
			<Settling settling={view.settling} action={action('settle')} stopAction={action('stopSettling')} />
		{/if}
		<AddPages
			siteId={site.id}
			origin={originOf(site)}
			gathering={view.gathering}
			isEmpty={view.sample.all === 0}
			pasteAction={action('paste')}
			gatherAction={action('gather')}
			pasteForm={data.pasteForm}
			gatherForm={data.gatherForm}
			pasted={form && 'pasted' in form ? (form.pasted ?? null) : null}
		/>
		{#if view.proposals.length}
			<Proposals proposals={view.proposals} action={action('accept')} gatherAction={action('gather')} />
		{/if}
		{#if view.sample.all}
			<FilterBar placeholder="Part of the address" bind:words onsearch={() => show()}>
				<Choice label="Type" options={typeOptions} bind:value={type} onchange={() => show()} />
				<Choice label="Which" options={WHICH} bind:value={which} onchange={() => show()} />
				<span class="muted figures" aria-live="polite">{view.total} of {view.sample.all}</span>
				<a href="/api/pages.csv?site={site.id}" download>CSV</a>
			</FilterBar>
			{#if marked.length}
				<div class="bulk" role="group" aria-label="Marked pages">
					<span>{marked.length} marked</span>
					<form method="POST" action={action('type')} use:keepTyped={{ done: () => (marked = []) }} class="row">
						{#each marked as id (id)}<Hidden name="page" value={id} />{/each}
						<ComboBox
							labelText="Their type"
							size="sm"
							allowCustomValue
							placeholder="product, article …"
							items={view.typeNames.map((name) => ({ id: name, text: name }))}
							bind:value={typed}
						/>
						<Hidden name="type" value={typed} />
						<Button type="submit" kind="tertiary" size="small">Set the type</Button>
					</form>
					<form method="POST" action={action('choose')} use:keepTyped={{ done: () => (marked = []) }}>
						{#each marked as id (id)}<Hidden name="page" value={id} />{/each}
						<Hidden name="chosen" value="yes" />
						<Button type="submit" kind="tertiary" size="small">Add to the sample</Button>
					</form>
					<Button kind="danger-ghost" size="small" on:click={() => (deleting = true)}>Delete</Button>
				</div>
			{/if}
			<Table label="Pages of {site.name}" {columns} rows={view.rows} key={({ id }) => id}>
				{#snippet cell(row, column)}
					{#if column.key === 'mark'}
						<Checkbox
							hideLabel
							labelText="Mark {pathOf(row.url)}"
							checked={marked.includes(row.id)}
							on:check={(event) => mark(row.id, event.detail)}
						/>
					{:else if column.key === 'page'}
						<a class="path" href={row.url} title={row.url} rel="noreferrer" target="_blank">{pathOf(row.url)}</a
						>
					{:else if column.key === 'visits'}
						{amountWords(row.visits)}{#if row.visits !== null && row.visits < view.sample.quietBelow}<br /><span
								class="muted small">too quiet for field data</span
							>{/if}
					{:else}
						<form method="POST" action={action('choose')} use:keepTyped>
							<Hidden name="page" value={row.id} />
							<Hidden name="chosen" value={row.isChosen ? 'no' : 'yes'} />
							<Button
								type="submit"
								kind={row.isChosen ? 'tertiary' : 'ghost'}
								size="small"
								aria-pressed={row.isChosen}
								>{row.isChosen ? 'In the sample' : 'Add'}<span class="visually-hidden">
									{pathOf(row.url)}</span
								></Button
							>
						</form>
					{/if}
				{/snippet}
			</Table>
			{#if !view.rows.length}<p class="muted">No page fits.</p>{/if}
			{#if view.pages > 1}
				<Pager total={view.total} pageSize={25} page={view.page} onchange={(page) => show(site.id, page)} />
			{/if}
		{/if}
	{/if}
</div>

<form
	method="POST"
	action={action('delete')}
	bind:this={deleteForm}
	use:keepTyped={{ done: () => (marked = []) }}
>
	{#each marked as id (id)}<Hidden name="page" value={id} />{/each}
</form>
<Confirm
	bind:open={deleting}
	heading="Delete {marked.length} {marked.length === 1 ? 'page' : 'pages'}?"
	action="Delete"
	onconfirm={() => deleteForm?.requestSubmit()}
>
	<p>They leave the list of this site. Trials and loads of them stay.</p>
</Confirm>

<style>
	.page-top :global(.bx--form-item) {
		flex: 0 1 20rem;
		min-width: 0;
	}
	.bulk,
	.row {
		display: flex;
		flex-wrap: wrap;
		gap: var(--gap-5);
		align-items: end;
	}
	.bulk {
		margin-bottom: var(--gap-4);
	}
</style>
