<script lang="ts">
	import { Button, Checkbox } from 'carbon-components-svelte';
	import { goto, invalidateAll } from '$app/navigation';
	import { keepTyped } from '$lib/keepTyped';
	import { typedForm } from '$lib/typedForm';
	import { live } from '$lib/live.svelte';
	import Action from '$lib/parts/Action.svelte';
	import Choice from '$lib/parts/Choice.svelte';
	import Confirm from '$lib/parts/Confirm.svelte';
	import DayField from '$lib/parts/DayField.svelte';
	import Field from '$lib/parts/Field.svelte';
	import FilterBar from '$lib/parts/FilterBar.svelte';
	import StepsEditor from '$lib/parts/StepsEditor.svelte';
	import FileField from '$lib/parts/FileField.svelte';
	import Hidden from '$lib/parts/Hidden.svelte';
	import Pager from '$lib/parts/Pager.svelte';
	import Table from '$lib/parts/Table.svelte';
	import type { Column } from '$lib/parts/tableRows';
	import { metricOf } from '$core/metrics/catalogue';
	import { formatMoment, formatValue } from '$core/wording/format';

	let { data } = $props();
	type Row = (typeof data.loads)[number];
	const { form: typed, wrong, enhance } = typedForm(() => data.loadForm);
	const har = typedForm(() => data.harForm);
	const wrongHar = har.wrong;
	const FIGURES = ['score', 'ttfb', 'lcp', 'cls', 'tbt', 'full', 'wire', 'requests'] as const;
	const askedWords = $derived(data.filter.words);
	let words = $derived(askedWords);
	const isFiltered = $derived(Object.values(data.filter).some(Boolean));
	const STATUSES = [
		{ value: '', text: 'All' },
		{ value: 'ok', text: 'Measured' },
		{ value: 'failed', text: 'Failed' }
	];
	function show(values: Record<string, string> = {}) {
		const all = { ...data.filter, ...values, words: undefined, q: words.trim() };
		const given = Object.entries(all).filter((entry): entry is [string, string] => Boolean(entry[1]));
		void goto(`?${new URLSearchParams(given)}`, { keepFocus: true, noScroll: true, replaceState: true });
	}
	let deleting: Row | null = $state(null);
	let deleteForm = $state<HTMLFormElement>();
	let showSteps = $state($typed.steps !== '');

	// A load that ends shows up by itself.
	let known: string | undefined;
	$effect(() => {
		const mark = JSON.stringify(live.snapshot?.singles);
		if (known !== undefined && known !== mark) void invalidateAll();
		known = mark;
	});
	const conditionName = (id: string) =>
		data.conditions.find((conditions) => conditions.id === id)?.name ?? (id === 'unknown' ? 'Unknown' : id);
	/** Its path, with its host where that is another. */
	function shortAddress(landed: string, url: string): string {
		const [got, asked] = [new URL(landed), new URL(url)];
		return got.host === asked.host ? got.pathname : `${got.host}${got.pathname}`;
	}
	function noteOf(row: Row): string {
		if (row.status === 'failed') return `Failed: ${row.reason}`;
		if (row.landed) return `ended at ${shortAddress(row.landed, row.url)}`;
		if (row.source === 'har') return 'from a HAR';
		if (row.failedStep) return `step ${row.failedStep} failed`;
		return row.nudged ? 'with interaction' : '';
	}
	const columns: Column<Row>[] = [
		{ key: 'page', name: 'Page', kind: 'address' },
		{ key: 'conditions', name: 'Conditions', text: (row) => conditionName(row.conditionId) },
		{ key: 'when', name: 'When', text: (row) => formatMoment(row.startedAt), sort: (row) => row.startedAt },
		...FIGURES.map((id) => ({
			key: id,
			name: metricOf(id).short,
			number: true,
			text: (row: Row) => formatValue(id, row.figures[id]),
			sort: (row: Row) => row.figures[id]
		})),
		{ key: 'note', name: 'Note', text: noteOf },
		{ key: 'delete', name: 'Delete', isUnnamed: true }
	];
</script>

<svelte:head><title>Loads – Zafra</title></svelte:head>

<div class="page">
	<div class="page-top"><h1>Loads</h1></div>
	<p class="muted">
		One load shows why; it never proves a difference. To compare, make a <a href="/trials/new">trial</a>.
	</p>
	<div class="forms">
		<form method="POST" action="?/load" class="panel" novalidate use:enhance>
			<h2>Load a page</h2>
			<Hidden name="clientId" value={$typed.clientId} />
			<Field label="Address" name="url" placeholder="https://" bind:value={$typed.url} wrong={$wrong('url')} />
			<div class="row">
				<Choice
					label="Conditions"
					name="conditions"
					options={[
						...data.conditions.map(({ id, name }) => ({ value: id, text: name })),
						{ value: 'both', text: 'Phone and desktop' }
					]}
					bind:value={$typed.conditions}
				/>
				{#if data.states.length}<Choice
						label="Visitor"
						name="state"
						options={[
							{ value: '', text: 'Anonymous' },
							...data.states.map(({ id, name }) => ({ value: String(id), text: name }))
						]}
						bind:value={$typed.state}
						invalidText={$wrong('state')}
					/>{/if}
				<Checkbox
					name="nudge"
					bind:checked={$typed.nudge}
					labelText="Simulate interaction once it has settled"
				/>
				<Checkbox
					name="patience"
					bind:checked={$typed.patience}
					labelText="Wait on for 15 to 30 s once it has settled"
				/>
				<Checkbox name="repeat" bind:checked={$typed.repeat} labelText="Measure the repeat visit" />
			</div>
			{#if showSteps}
				<StepsEditor
					label="Steps of a journey"
					name="steps"
					url={$typed.url}
					placeholder="Click the menu, expect “Timetable”: what a visitor does once the page is there."
					bind:value={$typed.steps}
					wrong={$wrong('steps')}
				/>
			{/if}
			<div class="row">
				<Button type="submit" size="field" data-key="r">Load the page</Button>
				{#if !showSteps}<Button kind="ghost" size="small" on:click={() => (showSteps = true)}
						>Add the steps of a journey</Button
					>{/if}
			</div>
		</form>
		<form method="POST" action="?/har" enctype="multipart/form-data" class="stack panel har" use:har.enhance>
			<h2>Read a HAR file</h2>
			<p class="small muted">A load measured elsewhere. What the file does not hold is shown as unknown.</p>
			<Hidden name="clientId" value={$typed.clientId} />
			<FileField label="Choose a HAR file" name="file" accept={['.har', '.json']} wrong={$wrongHar('file')} />
			<Button type="submit" kind="tertiary" size="field">Read the file</Button>
		</form>
	</div>

	{#if data.waiting.length}
		<section>
			<h2>Under way</h2>
			<ul class="plain">
				{#each data.waiting as request (request.id)}
					<li class="waiting">
						<span
							>{request.url}, {request.conditions}{request.nudged ? ', with interaction' : ''}{request.patient
								? ', waits on'
								: ''}: {request.status === 'leased' ? 'loading now' : 'waits for the lab'}</span
						>
						{#if request.status === 'queued'}<Action
								action="?/drop"
								text="Cancel"
								about="the load of {request.url}"
								values={{ id: request.id }}
							/>{/if}
					</li>
				{/each}
			</ul>
		</section>
	{/if}

	<h2>Single loads</h2>
	{#if data.total || isFiltered}
		<FilterBar placeholder="Part of the address" bind:words onsearch={() => show()}>
			<Choice
				label="Loaded on"
				options={[
					{ value: '', text: 'All' },
					...data.conditions.map(({ id, name }) => ({ value: id, text: name }))
				]}
				value={data.filter.conditions}
				onchange={(value) => show({ conditions: value })}
			/>
			<Choice
				label="Status"
				options={STATUSES}
				value={data.filter.status as string}
				onchange={(value) => show({ status: value })}
			/>
			<DayField label="From" value={data.filter.since} onchange={(value) => show({ since: value })} />
			<span class="muted figures" aria-live="polite">{data.total}</span>
		</FilterBar>
	{/if}
	{#if data.loads.length}
		<Table label="Table of single loads" {columns} rows={data.loads} key={(row) => row.id}>
			{#snippet cell(row, column)}
				{#if column.key === 'page'}<a href="/loads/{row.id}" data-row-link>{row.url}</a>
				{:else}<Button kind="ghost" size="small" on:click={() => (deleting = row)}
						>Delete… <span class="visually-hidden">load {row.id}</span></Button
					>{/if}
			{/snippet}
		</Table>
		{#if data.pages > 1}
			<Pager
				total={data.total}
				pageSize={25}
				page={data.page}
				onchange={(page) => show({ page: String(page) })}
			/>
		{/if}
	{:else if isFiltered}<p class="muted">No load fits.</p>
	{:else}<p class="muted">
			No single load yet. Name an address above and press “Load the page”: about ten seconds later its sheet is
			here.
		</p>{/if}
	<form method="POST" action="?/delete" use:keepTyped bind:this={deleteForm}>
		<Hidden name="id" value={deleting?.id ?? ''} />
	</form>
	<Confirm
		open={deleting !== null}
		heading="Delete this load?"
		action="Delete for good"
		onconfirm={() => {
			deleteForm?.requestSubmit();
			deleting = null;
		}}
		oncancel={() => (deleting = null)}
	>
		<p class="address">{deleting?.url}: its record, frames and pictures go with it. This cannot be undone.</p>
	</Confirm>
</div>

<style>
	.forms {
		display: grid;
		grid-template-columns: minmax(0, 2fr) minmax(0, 1fr);
		gap: var(--gap-6);
		margin: var(--gap-6) 0 var(--gap-7);
	}
	.row {
		margin: var(--gap-5) 0 0;
	}
	.row :global(.bx--form-item) {
		flex: 0 0 auto;
	}
	.waiting {
		display: flex;
		gap: var(--gap-6);
		align-items: baseline;
		overflow-wrap: anywhere;
	}
	@media (max-width: 760px) {
		.forms {
			grid-template-columns: minmax(0, 1fr);
		}
	}
</style>
