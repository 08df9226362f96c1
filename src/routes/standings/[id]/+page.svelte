<script lang="ts">
	import { Accordion, AccordionItem, ContentSwitcher, Switch } from 'carbon-components-svelte';
	import { invalidateAll } from '$app/navigation';
	import { isMetricId } from '$core/metrics/catalogue';
	import { counted, formatDay, formatDuration, formatMoment, formatValue } from '$core/wording/format';
	import { armColour } from '$lib/charts/armColour';
	import CandidateBoard from '$lib/charts/CandidateBoard.svelte';
	import FramesInStep from '$lib/charts/FramesInStep.svelte';
	import PlaybackInStep from '$lib/charts/PlaybackInStep.svelte';
	import Lines from '$lib/charts/Lines.svelte';
	import Action from '$lib/parts/Action.svelte';
	import ConditionsChanged from '$lib/parts/ConditionsChanged.svelte';
	import Choice from '$lib/parts/Choice.svelte';
	import Notice from '$lib/parts/Notice.svelte';
	import ProgressLine from '$lib/parts/ProgressLine.svelte';
	import Scroller from '$lib/parts/Scroller.svelte';
	import Table from '$lib/parts/Table.svelte';
	import type { Column } from '$lib/parts/tableRows';
	import WatchFooter from '$lib/parts/WatchFooter.svelte';
	import Weights from './Weights.svelte';

	let { data } = $props();
	const view = $derived(data.view);
	let chosen = $state(0);
	let metric = $derived<string>(data.view.mainMetric);
	const shown = $derived(view.conditions[chosen]);
	const pages = $derived(view.pages.filter(({ endedAt }) => endedAt === null));
	const own = $derived(pages.find(({ role }) => role === 'page'));
	const nameOf = (id: number) => view.pages.find((page) => page.id === id)?.name ?? '';
	const coloured = $derived(pages.map(({ id }) => ({ id, baseline: id === own?.id })));
	const colourOf = (id: number) => armColour(coloured, id);
	const format = (value: number) => (isMetricId(metric) ? formatValue(metric, value) : formatDuration(value));
	type Practice = NonNullable<typeof shown>['practices'][number];
	const main = $derived(shown?.rows.find((row) => row.metric === metric) ?? shown?.rows[0]);
	const ownCell = $derived(main?.cells.find(({ page }) => page === own?.id));
	/** What the same run says under the other metrics, so that nobody crows over one. */
	const places = $derived(
		(shown?.rows ?? []).flatMap(({ metric: id, cells }) => {
			const cell = cells.find(({ page }) => page === own?.id);
			return cell?.from
				? [{ id, from: cell.from, to: cell.to!, all: cells.filter(({ from }) => from !== null).length }]
				: [];
		})
	);
	const surelyFirst = $derived(places.filter(({ to }) => to === 1).length);
	const surelyLast = $derived(places.filter(({ from, all }) => from === all).length);
	const tallyOf = (n: number, place: 'first' | 'last') =>
		n
			? `${n} of ${places.length} metrics ${n === 1 ? 'puts' : 'put'} it surely ${place}`
			: `No metric puts it surely ${place}`;
	const practiceColumns = $derived<Column<Practice>[]>([
		{ key: 'practice', name: 'Practice', isRowHead: true, text: ({ name }) => name },
		...pages.map(({ id, name }) => ({ key: `${id}`, name }))
	]);
	const metrics = $derived((shown?.rows ?? []).map((row) => ({ value: row.metric, text: row.name })));
	const MARKS: Record<string, string> = { yes: 'yes', partly: 'partly', no: 'no', none: '–' };

	const POLL_MS = 2000;
	$effect(() => {
		if (!view.progress) return;
		const timer = setInterval(() => void invalidateAll(), POLL_MS);
		return () => clearInterval(timer);
	});
</script>

<svelte:head><title>{view.name} – Zafra</title></svelte:head>

<div class="page">
	<div class="page-top">
		<h1>{view.name}</h1>
		{#if view.conditions.length > 1}
			<ContentSwitcher size="sm" bind:selectedIndex={chosen} aria-label="Conditions">
				{#each view.conditions as one (one.condition)}<Switch text={one.name} />{/each}
			</ContentSwitcher>
		{/if}
		{#if shown}<a href="/api/standings/{view.id}/places.csv" download>CSV</a>{/if}
		{#if metrics.length}<Choice label="Metric" options={metrics} bind:value={metric} inline hideLabel />{/if}
		{#if view.progress}<Action action="?/stop" text="Stop this run" kind="tertiary" size="field" />
		{:else if view.state === 'active'}<Action
				action="?/read"
				text="Run now"
				kind="primary"
				size="field"
				shortcut="r"
			/>{/if}
	</div>
	{#if view.isRecorded}<Notice
			title="These runs were recorded for the demonstration."
			text="They are drawn from real loads of the simulated web, with their real spread."
		/>{/if}
	{#if view.progress}<ProgressLine done={view.progress.done} total={view.progress.total} />{/if}

	{#if shown && !main}
		<Notice
			kind="warning"
			title="The newest run measured nothing, so that nothing can be ranked."
			text="It took place on {formatMoment(shown.at)}."
		/>
		{#each shown.troubles as trouble (trouble.page)}<Notice
				kind="warning"
				title="{nameOf(trouble.page)}: {trouble.words}"
			/>{/each}
	{:else if !shown || !main}
		<Notice
			title="No run has ended yet."
			text="Ranks come with the first one: at least 8 rounds of each page."
		/>
	{:else}
		{#if own && ownCell}
			<p class="answer">
				{own.name} is {ownCell.words} in {main.name} on the {shown.name.toLowerCase()}.
				{tallyOf(surelyFirst, 'first')}, {tallyOf(surelyLast, 'last').toLowerCase()}.
			</p>
		{/if}
		<p class="muted">
			{formatMoment(shown.at)}, {view.settings.loads} rounds of each page in turn, read {view.scheduleWords}. A
			range of places means that chance cannot be ruled out between them: 5 % for all places that this run
			tells, over the metrics that the standing was asked about and all devices. Other metrics have a figure and
			no place.
		</p>
		{#each shown.troubles as trouble (trouble.page)}<Notice
				kind="warning"
				title="{nameOf(trouble.page)}: {trouble.words}"
			/>{/each}

		<CandidateBoard
			label="Places by metric"
			board={shown.rows}
			{colourOf}
			head="Page"
			isOpenDotted={false}
			hint="Filled: {own?.name ?? 'the own page'}. Distances in margins from the best of each metric."
		/>

		<section>
			<h2>Over time</h2>
			<Lines
				of="standing"
				name={metric}
				caption="{main.name}, {shown.name}: the middle of each run"
				lines={(shown.lines[main.metric] ?? []).map((line) => ({
					name: nameOf(line.page),
					colour: colourOf(line.page),
					points: line.points
				}))}
				markers={view.markers}
				{format}
				dayWords={formatDay}
			/>
		</section>

		<section>
			<h2>Frames side by side</h2>
			{#if shown.films.length}
				{#key shown.condition}<PlaybackInStep films={shown.films} {nameOf} {colourOf} />{/key}
				<Scroller label="Frames side by side"><FramesInStep films={shown.films} {nameOf} {colourOf} /></Scroller
				>{:else}<p class="muted">No frames of the newest run are kept.</p>{/if}
		</section>

		{#if shown.content.length}<section>
				<h2>Practices</h2>
				<Table label="Practices" columns={practiceColumns} rows={shown.practices} key={({ name }) => name}>
					{#snippet cell(row, column)}
						{@const own = row.cells.find(({ page }) => `${page}` === column.key)}
						{#if own}<span class="practice {row.isNeutral ? '' : own.state}">{MARKS[own.state]}</span>
							<span class="small muted"
								><a href="/loads/{own.load}" title={own.evidence.join('\n') || undefined}>{own.words}</a></span
							>{:else}<span class="muted">–</span>{/if}
					{/snippet}
				</Table>
				<p class="muted small">
					From the middle load of the newest run, what comes late from loads after it; point at a cell for the
					files behind it.
				</p>
			</section>{/if}

		<Accordion align="start" size="sm">
			<AccordionItem title="Page weight by kind and owner">
				<Weights content={shown.content} {pages} />
			</AccordionItem>
		</Accordion>
	{/if}

	<ConditionsChanged changed={view.changedConditions} what="this standing" parts="runs" />
	<WatchFooter
		what="this standing"
		state={view.state}
		settings="/standings/{view.id}/change"
		loss="Its {counted(view.runs, 'run')} of {counted(view.pages.length, 'page')} go with it."
	/>
</div>

<style>
	section {
		margin-top: var(--gap-7);
	}
	.page-top :global(.bx--content-switcher) {
		max-width: 18rem;
	}
	.answer {
		font: 1.25rem/1.4 var(--serif);
		margin: 0 0 var(--gap-3);
		max-width: 52rem;
	}
	.practice {
		font-weight: 600;
	}
	.practice.yes {
		color: var(--better);
	}
	.practice.no {
		color: var(--worse);
	}
</style>
