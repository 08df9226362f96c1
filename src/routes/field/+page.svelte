<script lang="ts">
	import { Accordion, AccordionItem, Button, InlineLoading } from 'carbon-components-svelte';
	import { goto, invalidateAll } from '$app/navigation';
	import { page } from '$app/state';
	import { guessReadingColumns, READING_FIELDS, type ReadingField } from '$core/field/csvReadings';
	import { DEVICE_CLASSES } from '$core/field/reading';
	import { metricOf } from '$core/metrics/catalogue';
	import { describeFieldFault, describeSource, describeTally } from '$core/wording/field';
	import { formatDay, formatValue } from '$core/wording/format';
	import SharesBar from '$lib/charts/SharesBar.svelte';
	import TrendLine from '$lib/charts/TrendLine.svelte';
	import Action from '$lib/parts/Action.svelte';
	import Choice from '$lib/parts/Choice.svelte';
	import ColumnFile from '$lib/parts/ColumnFile.svelte';
	import Notice from '$lib/parts/Notice.svelte';
	import Table from '$lib/parts/Table.svelte';
	import { placesOf } from '$lib/parts/tableColumns';
	import type { Column } from '$lib/parts/tableRows';
	import { pathOf } from '../pages/pageWords';
	import { unpackTrend } from './trendText';

	let { data } = $props();
	type Row = NonNullable<typeof data.view>['rows'][number];
	let { assessment, device } = $derived(data.filter);
	const all = $derived(data.view?.rows ?? []);
	const rows = $derived(
		all.filter(
			(row) =>
				(!assessment || (assessment === 'changed' ? hasChanged(row) : row.assessment === assessment)) &&
				(!device || row.device === device)
		)
	);
	/** Against the newest window that shares no day with the one that is shown. */
	const hasChanged = (row: Row) => row.earlier !== null && row.earlier.assessment !== row.assessment;
	/** Of several sites each page is named with its own. */
	const isOneSite = $derived(new Set(all.map(({ url }) => new URL(url).host)).size < 2);
	const nameOf = (url: string) => (isOneSite ? pathOf(url) : `${new URL(url).host}${pathOf(url)}`);
	const isKnown = $derived(all.some(({ metrics }) => metrics !== null));
	const METRICS = ['lcp', 'inp', 'cls'] as const;
	const columns: Column<Row>[] = [
		{ key: 'page', name: 'Page', kind: 'address' },
		{ key: 'device', name: 'Device', text: ({ device: own }) => own, sort: ({ device: own }) => own },
		...METRICS.map((id) => ({
			key: id,
			name: `${metricOf(id).short}, p75`,
			sort: ({ metrics }: Row) => metrics?.[id]?.p75 ?? null
		})),
		{ key: 'assessment', name: 'Core Web Vitals', sort: (row) => row.assessment },
		{ key: 'scope', name: 'Figures of' },
		{ key: 'trend', name: 'LCP, window by window' }
	];
	const NO_PANEL =
		'Two other ways to field data: read a table of readings below, or put the visits’ script on the pages. ' +
		'A panel is named by ZAFRA_PANEL and ZAFRA_PANEL_KEY.';
	const FIELD_NAMES: Record<ReadingField, string> = {
		address: 'Page or origin',
		device: 'Device',
		until: 'Last day',
		lcp: 'LCP, p75',
		inp: 'INP, p75',
		cls: 'CLS, p75',
		fcp: 'FCP, p75',
		ttfb: 'TTFB, p75'
	};
	/** Why lines were left aside. */
	const SKIPPED: Record<string, string> = {
		unknown: 'of pages that are in no list of this client',
		'no-address': 'without an address',
		'no-device': 'without phone or desktop',
		'no-day': 'with a last day that is not written as 2026-11-20',
		'no-figures': 'without a 75th percentile',
		implausible: 'with figures too large for their unit'
	};
	const wordsOf = ({
		lines,
		saved,
		skipped
	}: {
		lines: number;
		saved: number;
		skipped: Record<string, number>;
	}) => ({
		title: `${saved} of ${lines} lines were taken.`,
		text: Object.entries(SKIPPED)
			.flatMap(([reason, words]) => (skipped[reason] ? [`${skipped[reason]} ${words}`] : []))
			.join('; ')
	});
	const IS = [
		{ value: '', text: 'All' },
		{ value: 'does-not', text: 'Misses at least one' },
		{ value: 'passes', text: 'Good' },
		{ value: 'not-enough-visits', text: 'Too few visits' },
		{ value: 'no-data', text: 'No data yet' },
		{ value: 'changed', text: 'Changed since the window before' }
	];
	const DEVICES = [
		{ value: '', text: 'Both' },
		{ value: 'phone', text: 'Phone' },
		{ value: 'desktop', text: 'Desktop' }
	];
	const tallyOf = (asked: (typeof DEVICE_CLASSES)[number]) =>
		describeTally(
			asked,
			all.filter((row) => row.device === asked).map((row) => row.assessment)
		);

	function show(clientId = data.client?.id) {
		const values = { client: String(clientId ?? ''), is: assessment, device };
		void goto(`?${new URLSearchParams(Object.entries(values).filter(([, value]) => value !== ''))}`, {
			keepFocus: true,
			noScroll: true,
			replaceState: true
		});
	}
	const POLL_MS = 2000;
	$effect(() => {
		if (!data.view?.isGathering) return;
		const timer = setInterval(() => void invalidateAll(), POLL_MS);
		return () => clearInterval(timer);
	});
</script>

<svelte:head><title>Field – Zafra</title></svelte:head>

<div class="page">
	<div class="page-top">
		<h1>Field</h1>
		{#if data.client && all.length}<a href="/api/field.csv?client={data.client.id}" download>CSV</a>{/if}
		{#if data.client}
			<!-- Whoever works for one client has chosen it in the rail. -->
			{#if page.data.clientId === null}<Choice
					label="Client"
					options={data.names.map(({ id, name }) => ({ value: String(id), text: name }))}
					value={String(data.client.id)}
					onchange={(id) => show(Number(id))}
				/>{/if}
			{#if data.hasPanel && all.length && !data.view?.isGathering}<Action
					action="?/gather"
					text="Ask the panel"
					kind={isKnown ? 'tertiary' : 'primary'}
					size="field"
					shortcut="r"
					values={{ client: data.client.id }}
				/>{/if}
		{/if}
	</div>
	<p class="muted">
		What real visitors had, at the 75th percentile over 28 days: of the page itself or, where it has too few
		visits, of all pages of its site, as each row says. What the sites’ own scripts report comes in at
		<a href="/field/visits">live visits</a>.
	</p>
	{#if data.view?.isGathering}<InlineLoading
			description="The panel is being asked, between loads of the lab"
		/>{/if}
	{#if data.view?.gathering?.fault}<Notice
			kind="warning"
			title="Not all could be asked."
			text={describeFieldFault(data.view.gathering.fault)}
		/>{/if}
	{#if !data.client}
		<p>No client yet. <a href="/clients/new">Make the first one</a>.</p>
	{:else if !all.length}
		<section class="panel">
			<h2>No page is chosen yet</h2>
			<p>Choose the pages that matter: then it is asked what their visitors had.</p>
			<Button href="/pages">Choose pages</Button>
		</section>
	{:else}
		{#if !data.hasPanel && !isKnown}
			<Notice title="No panel is set." text={NO_PANEL} />
			<p><Button kind="tertiary" size="field" href="/field/visits">Set up the visits’ script</Button></p>
		{/if}
		{#if isKnown}<ul class="plain tally">
				{#each DEVICE_CLASSES as asked (asked)}<li>{tallyOf(asked)}.</li>{/each}
			</ul>{/if}
		<div class="row filters no-print">
			<Choice label="Core Web Vitals" options={IS} bind:value={assessment} onchange={() => show()} />
			<Choice label="Device" options={DEVICES} bind:value={device} onchange={() => show()} />
			<span class="muted figures" aria-live="polite">{rows.length} of {all.length}</span>
		</div>
		<Accordion align="start" size="sm">
			<AccordionItem title="Readings from a table" open={!data.hasPanel && !isKnown}>
				<p class="muted small">
					A line for each page or origin, device and window: address, phone or desktop, last day, 75th
					percentiles.
				</p>
				<ColumnFile
					label="Choose a table of readings"
					fields={READING_FIELDS.map((key) => ({ key, name: FIELD_NAMES[key] }))}
					guess={(head) => placesOf(guessReadingColumns(head))}
					url="/api/field/import"
					query={{ client: String(data.client.id) }}
					{wordsOf}
				/>
			</AccordionItem>
		</Accordion>
		<Table label="What real visitors had" {columns} {rows} key={({ key }) => key} pageSize={25}>
			{#snippet cell(row, column)}
				{@const metric = METRICS.find((id) => id === column.key)}
				{#if column.key === 'page'}
					<a class="path" href="/field/{row.pageId}" data-row-link>{nameOf(row.url)}</a>
					{#if row.type}<br /><span class="muted small">{row.type}</span>{/if}
				{:else if metric}
					{@const told = row.metrics?.[metric]}
					{#if told}<span class="figures">{formatValue(metric, told.p75)}</span>
						{#if told.shares}<SharesBar name={metricOf(metric).name} shares={told.shares} />{/if}
					{:else}<span class="muted">–</span>{/if}
				{:else if column.key === 'assessment'}
					<b class={row.assessment}>{row.assessmentWords}</b>
					{#if hasChanged(row) && row.earlier}<br /><span class="small"
							>until {formatDay(row.earlier.until)}: {row.earlier.words}</span
						>{/if}
				{:else if column.key === 'scope'}
					{row.scopeWords}{#if row.source && row.until}<br /><span class="muted small"
							>{describeSource(row.source)}, until {formatDay(row.until)}</span
						>{/if}
				{:else}<TrendLine
						name="LCP of {nameOf(row.url)} on {row.device}"
						points={unpackTrend(row.trend)}
						format={(value) => formatValue('lcp', value)}
					/>{/if}
			{/snippet}
		</Table>
	{/if}
</div>

<style>
	.page-top :global(.bx--form-item) {
		flex: 0 1 16rem;
	}
	.filters {
		margin-bottom: var(--gap-5);
	}
	.filters :global(.bx--form-item) {
		flex: 0 1 11rem;
	}
	.tally {
		font: 1.05rem/1.5 var(--serif);
		margin: var(--gap-3) 0 var(--gap-5);
	}
</style>
