<script lang="ts">
	/** Visits as they come, so that one sees that a site's script works; what it reports, and a checker for one page. */
	import { Accordion, AccordionItem, Button } from 'carbon-components-svelte';
	import { goto, invalidateAll } from '$app/navigation';
	import { bandOf, metricOf } from '$core/metrics/catalogue';
	import { describeMissing, describeNavigation, describeRefusal } from '$core/wording/field';
	import { formatDuration, formatMoment, formatValue } from '$core/wording/format';
	import HourSteps from '$lib/charts/HourSteps.svelte';
	import CopyButton from '$lib/charts/CopyButton.svelte';
	import Action from '$lib/parts/Action.svelte';
	import BandBar from '$lib/parts/BandBar.svelte';
	import Choice from '$lib/parts/Choice.svelte';
	import Field from '$lib/parts/Field.svelte';
	import Hidden from '$lib/parts/Hidden.svelte';
	import Notice from '$lib/parts/Notice.svelte';
	import Table from '$lib/parts/Table.svelte';
	import type { Column } from '$lib/parts/tableRows';
	import ScriptSettings from './ScriptSettings.svelte';

	let { data, form } = $props();
	type Row = NonNullable<typeof data.live>['visits'][number];
	type Checked = NonNullable<typeof data.check>['metrics'][number];
	const METRICS = ['lcp', 'inp', 'cls'] as const;
	const NOTHING_CAME =
		'Open the page, leave it again, and look here. If nothing comes, a blocker may stop the script: ' +
		'it can be served from the site’s own host (docs/visits.md).';
	const LOOK_EVERY_MS = 3000;
	const tag = $derived(
		data.source
			? `<script async src="${data.origin}/visit/zafra.js?site=${data.source.key}"></` + 'script>'
			: ''
	);
	const visits = $derived(data.live?.visits ?? []);
	const today = $derived((data.live?.hours ?? []).reduce((sum, { views }) => sum + views, 0));
	const newest = $derived(visits[0]?.at ?? null);
	const notCounted = $derived(visits.filter(({ fault }) => fault !== null).length);
	const columns: Column<Row>[] = [
		{ key: 'at', name: 'At', text: ({ at }) => formatMoment(at).split(', ')[1]! },
		{ key: 'path', name: 'Page' },
		{
			key: 'device',
			name: 'Device',
			text: ({ device, network }) => (network ? `${device}, ${network}` : device)
		},
		{ key: 'navigation', name: 'Came by', text: ({ navigation }) => describeNavigation(navigation) },
		...METRICS.map((id) => ({ key: id, name: metricOf(id).short })),
		{ key: 'more', name: 'Timings, goals' }
	];
	const checkColumns: Column<Checked>[] = [
		{
			key: 'name',
			name: 'Metric',
			isRowHead: true,
			text: ({ name }) => (isVital(name) ? metricOf(name).name : name)
		},
		{ key: 'came', name: 'Came with', text: ({ came }) => `${came} of ${data.check?.seen} page views` },
		{ key: 'missing', name: 'Why not', text: ({ missing }) => (missing ? describeMissing(missing) : '') }
	];
	const isVital = (name: string): name is 'lcp' => ['lcp', 'inp', 'cls', 'fcp', 'ttfb'].includes(name);
	const show = (site: number) => void goto(`?site=${site}`, { keepFocus: true, noScroll: true });

	$effect(() => {
		if (!data.source) return;
		const timer = setInterval(
			() => document.visibilityState === 'visible' && void invalidateAll(),
			LOOK_EVERY_MS
		);
		return () => clearInterval(timer);
	});
</script>

<svelte:head><title>Live visits – Zafra</title></svelte:head>

<div class="page">
	<div class="page-top">
		<h1>Live visits</h1>
		{#if data.site}<Choice
				label="Site"
				options={data.sites.map(({ id, host, client }) => ({ value: id, text: `${host} (${client})` }))}
				value={data.site.id}
				onchange={show}
			/>{/if}
	</div>
	{#if !data.site}
		<p>No site of a client’s own yet. <a href="/clients">Make one</a>.</p>
	{:else if !data.source}
		<section class="panel">
			<h2>No script on {data.site.host} yet</h2>
			<p>
				A small script reports what each page view had: the vitals, from which element they came, and the page’s
				own timings. No cookie, nothing stored, nobody known again.
			</p>
			<Action
				action="?/begin"
				text="Make the script tag"
				kind="primary"
				size="field"
				values={{ site: data.site.id }}
			/>
		</section>
	{:else}
		<p>
			{#if newest}<b>The script works:</b>
				{today} page {today === 1 ? 'view' : 'views'} since midnight, the newest at {formatMoment(newest).split(
					', '
				)[1]}{#if notCounted}; {notCounted} by programs, not counted{/if}.
			{:else if data.live?.kept}No page view since midnight; {data.live.kept} in the last seven days.
			{:else}No page view has come by this script in the last seven days.{/if}
		</p>
		<div class="row tag no-print">
			<code>{tag}</code>
			<CopyButton text={() => tag} label="Copy the script tag" file="zafra-script.html" />
		</div>
		{#if visits.length}
			<HourSteps hours={data.live?.hours ?? []} timeZone={data.live?.timeZone ?? 'UTC'} />
			<Table label="The newest page views" {columns} rows={visits} key={({ id }) => id} pageSize={25}>
				{#snippet cell(row, column)}
					{@const id = METRICS.find((metric) => metric === column.key)}
					{#if column.key === 'path'}<span class="path">{row.path}</span>
					{:else if id}
						{@const value = row.metrics[id]}
						{#if value === undefined}<span class="muted">–</span>{:else}
							<span class="figures">{formatValue(id, value)}</span><br /><BandBar
								band={bandOf(id, value) ?? 'good'}
							/>{/if}
					{:else}
						{#each Object.entries(row.timings) as [name, ms] (name)}<span class="part"
								>{name} {formatDuration(ms)}</span
							>{/each}
						{#each row.goals as goal (goal)}<span class="part"><b>{goal}</b></span>{/each}
						{#if row.fault}<span class="muted small">{describeRefusal(row.fault)}</span>{/if}
					{/if}
				{/snippet}
			</Table>
		{/if}
		{#if data.live?.refusals.length}
			<h2>Not counted, in the last seven days</h2>
			<ul>
				{#each data.live.refusals as { reason, count } (reason)}<li>
						<span class="figures">{count.toLocaleString('en-GB')}</span>: {describeRefusal(reason)}
					</li>{/each}
			</ul>
		{/if}
		<h2>Check a page</h2>
		<form method="GET" class="row check" data-sveltekit-noscroll data-sveltekit-keepfocus>
			<Hidden name="site" value={data.site.id} />
			<Field label="Path of the page" name="check" placeholder="/timetable" value={data.check?.path ?? ''} />
			<Button type="submit" kind="tertiary" size="field">Check</Button>
		</form>
		{#if data.check}
			{#if data.check.seen && data.check.lastAt}
				<p>
					The script was seen in {data.check.seen} page views of {data.check.path}, the last at {formatMoment(
						data.check.lastAt
					)}.
				</p>
				<Table
					label="What came from {data.check.path}"
					columns={checkColumns}
					rows={data.check.metrics}
					key={({ name }) => name}
				/>
			{:else}
				<Notice title="No page view of {data.check.path} has come." text={NOTHING_CAME} />
			{/if}
		{/if}
		<Accordion align="start" size="sm">
			<AccordionItem title="What the script reports" open={Boolean(form && 'problem' in form)}>
				{#key data.site.id}<ScriptSettings form={data.form} />{/key}
			</AccordionItem>
		</Accordion>
		{#if form && 'saved' in form}<Notice
				kind="success"
				title="The script’s settings are saved."
				text="Visitors get them within the hour."
			/>{/if}
	{/if}
</div>

<style>
	.page-top :global(.bx--form-item) {
		flex: 0 1 20rem;
	}
	.tag {
		margin-bottom: var(--gap-6);
	}
	.part {
		display: block;
	}
	.check {
		margin-bottom: var(--gap-5);
	}
	.check :global(.bx--form-item) {
		flex: 0 1 18rem;
	}
</style>
