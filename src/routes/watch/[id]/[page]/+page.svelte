<script lang="ts">
	import { Button, ContentSwitcher, Switch } from 'carbon-components-svelte';
	import { isMetricId } from '$core/metrics/catalogue';
	import { formatDay, formatDuration, formatMoment, formatValue } from '$core/wording/format';
	import History from '$lib/charts/History.svelte';
	import ShiftBoard from '$lib/charts/ShiftBoard.svelte';
	import Action from '$lib/parts/Action.svelte';
	import Choice from '$lib/parts/Choice.svelte';
	import MarkerForm from '$lib/parts/MarkerForm.svelte';
	import Notice from '$lib/parts/Notice.svelte';
	import Undo from '$lib/parts/Undo.svelte';

	let { data, form } = $props();
	const view = $derived(data.view);
	let chosen = $derived(
		Math.max(
			0,
			data.view.conditions.findIndex(({ condition }) => condition === data.on)
		)
	);
	let metric = $state<string>('lcp');
	const shown = $derived(view.conditions[chosen]);
	const timeline = $derived(
		shown?.timelines.find((own) => own.metric === metric) ?? shown?.timelines[0] ?? null
	);
	const path = $derived(new URL(view.page.url).pathname);
	const metrics = $derived(
		(shown?.timelines ?? []).map((own) => ({ value: own.metric as string, text: own.name }))
	);
	const newest = $derived(timeline?.points.at(-1));
	const dayOf = (at: string) => formatDay(at.slice(0, 10));
	const format = (value: number) =>
		timeline && isMetricId(timeline.metric) ? formatValue(timeline.metric, value) : formatDuration(value);
	const caption = $derived(
		timeline && newest
			? `${timeline.name}, ${shown?.name}: the middle of each reading and all of its loads. Newest: ${format(newest.middle)}.`
			: ''
	);
</script>

<svelte:head><title>{path} over time – Zafra</title></svelte:head>

<div class="page">
	<div class="page-top">
		<h1>{path}</h1>
		{#if view.conditions.length > 1}
			<ContentSwitcher size="sm" bind:selectedIndex={chosen} aria-label="Conditions">
				{#each view.conditions as own (own.condition)}<Switch text={own.name} />{/each}
			</ContentSwitcher>
		{/if}
		{#if timeline}<Choice label="Metric" options={metrics} bind:value={metric} inline hideLabel />{/if}
	</div>
	<p class="muted">
		{new URL(view.page.url).host}, watched in <a href="/watch/{view.watch.id}">{view.watch.name}</a>.
		{#if view.page.endedAt}Not watched since {dayOf(view.page.endedAt)}.{/if}
	</p>
	{#if shown?.trouble}<Notice kind="warning" title={shown.trouble} text="In the newest reading." />{/if}

	{#if !shown || !timeline}
		<Notice title="No reading of this page has ended yet." />
	{:else}
		<History
			name={timeline.metric}
			{caption}
			points={timeline.points}
			steps={timeline.steps}
			breaks={view.breaks}
			markers={view.markers}
			thresholds={timeline.thresholds}
			{format}
			dayWords={formatDay}
		/>
		<p class="key muted small">
			Coloured line: a step beyond the noise. Open dot: far from its neighbours, no step. Flag: something was
			released. Dotted: the lab changed.
			{#if timeline.isTiming}A timing of the page’s own is drawn; nothing is called on it.{/if}
		</p>

		<section aria-labelledby="moved">
			<h2 id="moved">What moved</h2>
			{#each shown.changes as change, i (i)}
				<article>
					<h3>{change.title}, {change.when}</h3>
					<div class="told">
						<ShiftBoard
							label={change.title}
							rows={change.rows}
							baseline="Before"
							arm="After"
							colour="#C4621A"
						/>
						<ul>
							{#each change.markers as marker, i (i)}<li>
									Released in this time: <b>{marker.words}</b>, {formatDay(marker.day)}. That both fall together
									proves no cause.
								</li>{/each}
							{#each change.lines as line, i (i)}<li>{line}</li>{/each}
						</ul>
					</div>
				</article>
			{:else}<p class="muted">{shown.quiet}</p>{/each}
			{#each view.breaks as own (own.at)}<p>
					<b>{dayOf(own.at)}: {own.title}.</b>
					<span class="muted">{own.lines.join(' ')}</span>
				</p>{/each}
			{#each view.gaps as gap (gap.at)}<p class="muted">{dayOf(gap.at)}: {gap.words}</p>{/each}
		</section>

		{#if shown.then && shown.now}
			<section aria-labelledby="frames">
				<h2 id="frames">Then and now</h2>
				<div class="pictures">
					{#each [shown.then, shown.now] as side (side.at)}
						<figure>
							<figcaption><a href="/loads/{side.load}">{formatMoment(side.at)}</a></figcaption>
							<img src="/api/loads/{side.load}/picture" alt="The page as loaded on {dayOf(side.at)}" />
						</figure>
					{/each}
				</div>
			</section>
		{/if}
	{/if}

	{#if data.field.length}
		<section aria-labelledby="field">
			<h2 id="field">What visitors had</h2>
			<ul class="plain">
				{#each data.field as row (row.device)}
					<li>
						On {row.device}s: <b>{row.assessmentWords}</b>{#if row.metrics?.lcp}, LCP {formatValue(
								'lcp',
								row.metrics.lcp.p75
							)} at the 75th percentile{/if}
						<span class="muted">({row.scopeWords}{row.until ? `, until ${formatDay(row.until)}` : ''})</span>
					</li>
				{/each}
			</ul>
			{#if view.page.pageId}<a href="/field/{view.page.pageId}">The windows of this page</a>{/if}
		</section>
	{/if}

	<section aria-labelledby="markers">
		<h2 id="markers">Releases</h2>
		{#each view.markers as marker (marker.id)}
			<div class="marker">
				<span
					>{formatDay(marker.day)}: {marker.words}{#if marker.trial}<span class="muted"
							>, between stages of <a href="/trials/{marker.trial.id}">{marker.trial.question}</a></span
						>{:else if marker.fileName}, <a href="/api/markers/{marker.id}/file" download>{marker.fileName}</a
						>{/if}</span
				>
				{#if !marker.trial}<Action
						action="?/unmark"
						text="Remove"
						about={marker.words}
						values={{ id: marker.id }}
					/>{/if}
			</div>
		{/each}
		<MarkerForm form={data.form} />
	</section>
	<div class="actions no-print">
		<Button kind="tertiary" size="field" href="/api/watches/{view.watch.id}/readings.csv?page={view.page.id}"
			>Loads as CSV</Button
		>
	</div>
</div>

{#if form && 'binned' in form && form.binned}<Undo id={form.binned.id} name={form.binned.name} />{/if}

<style>
	section {
		margin-top: var(--gap-7);
	}
	.page-top :global(.bx--content-switcher) {
		max-width: 18rem;
	}
	.key {
		margin: var(--gap-2) 0 0;
	}
	h3 {
		font: 600 1.05rem var(--serif);
		margin: 0 0 var(--gap-3);
	}
	article {
		margin-bottom: var(--gap-7);
	}
	.told {
		display: grid;
		grid-template-columns: minmax(0, 3fr) minmax(0, 2fr);
		gap: var(--gap-7);
		container-type: inline-size;
	}
	.pictures {
		display: grid;
		grid-template-columns: repeat(2, minmax(0, 22rem));
		gap: var(--gap-6);
	}
	img {
		width: 100%;
		border: 1px solid var(--rule);
		max-height: 24rem;
		object-fit: cover;
		object-position: top;
	}
	.marker {
		display: flex;
		gap: var(--gap-6);
		align-items: center;
		justify-content: space-between;
		border-bottom: 1px solid var(--rule);
		max-width: 44rem;
	}
	.actions {
		margin-top: var(--gap-7);
	}
	@media (max-width: 720px) {
		.told {
			grid-template-columns: minmax(0, 1fr);
		}
	}
</style>
