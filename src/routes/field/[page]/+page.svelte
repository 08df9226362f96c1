<script lang="ts">
	import { ContentSwitcher, Switch } from 'carbon-components-svelte';
	import { FIELD_METRICS } from '$core/field/histogram';
	import { metricOf } from '$core/metrics/catalogue';
	import { describeSource } from '$core/wording/field';
	import { formatDay, formatMoment, formatValue } from '$core/wording/format';
	import FieldHistogram from '$lib/charts/FieldHistogram.svelte';
	import Windows from '$lib/charts/Windows.svelte';
	import Table from '$lib/parts/Table.svelte';
	import type { Column } from '$lib/parts/tableRows';
	import Undo from '$lib/parts/Undo.svelte';
	import { pathOf } from '../../pages/pageWords';
	import OwnVisits from './OwnVisits.svelte';
	import Releases from './Releases.svelte';

	let { data, form } = $props();
	let chosen = $state(0);
	const path = $derived(pathOf(data.view.page.url));
	const shown = $derived(data.view.devices[chosen]!);
	const DEVICES = { phone: 'Phone', desktop: 'Desktop' };
	const told = $derived(
		FIELD_METRICS.flatMap((id) => {
			const reading = shown.newest?.metrics?.[id];
			const { name, thresholds } = metricOf(id);
			return reading && thresholds ? [{ id, name, thresholds, reading }] : [];
		})
	);
	type Lab = (typeof data.view.lab)[number];
	const conditionName = (id: string) => data.conditions.find((one) => one.id === id)?.name ?? id;
	const LAB_METRICS = ['lcp', 'cls', 'fcp', 'ttfb'] as const;
	const labColumns: Column<Lab>[] = [
		{
			key: 'conditions',
			name: 'Conditions',
			isRowHead: true,
			text: ({ conditionId }) => conditionName(conditionId)
		},
		{ key: 'loads', name: 'Loads', number: true, text: ({ loads }) => loads },
		...LAB_METRICS.map((id) => ({
			key: id,
			name: `${metricOf(id).short}, middle`,
			number: true,
			text: ({ figures }: Lab) => (figures[id] === undefined ? '–' : formatValue(id, figures[id]))
		})),
		{ key: 'newest', name: 'Newest', text: ({ newestAt }) => formatMoment(newestAt) }
	];
	const windowsOf = (id: (typeof FIELD_METRICS)[number]) =>
		shown.windows.flatMap(({ from, until, p75 }) =>
			p75[id] === undefined ? [] : [{ from, until, value: p75[id] }]
		);
</script>

<svelte:head><title>Field of {path} – Zafra</title></svelte:head>

<div class="page">
	<div class="page-top">
		<h1>{path}</h1>
		<ContentSwitcher size="sm" bind:selectedIndex={chosen} aria-label="Device">
			{#each data.view.devices as { device } (device)}<Switch text={DEVICES[device]} />{/each}
		</ContentSwitcher>
	</div>
	<p>
		<b class={shown.assessment}>On {DEVICES[shown.device].toLowerCase()}s: {shown.assessmentWords}.</b>
		<span class="muted">
			{#if shown.newest}Figures of {shown.scopeWords}, from {shown.source && describeSource(shown.source)}, {formatDay(
					shown.newest.from
				)} to {formatDay(shown.newest.until)}.{:else}Figures: {shown.scopeWords}.{/if}
		</span>
	</p>
	{#each told as { id, name, thresholds, reading } (id)}
		<section>
			<h2>{name}</h2>
			<div class="cells" style:--cell="24rem">
				{#if reading.bins.length && reading.shares}<FieldHistogram
						name="{id}-histogram"
						caption="{Math.round(reading.shares[0] * 100)} % of the visits had it good, {Math.round(
							reading.shares[2] * 100
						)} % poor"
						bins={reading.bins}
						p75={reading.p75}
						{thresholds}
						format={(value) => formatValue(id, value)}
					/>{/if}
				{#if windowsOf(id).length > 1}<Windows
						name={id}
						caption="75th percentile of overlapping windows of 28 days"
						windows={windowsOf(id)}
						{thresholds}
						format={(value) => formatValue(id, value)}
						dayWords={formatDay}
						markers={data.view.markers}
					/>{/if}
			</div>
		</section>
	{/each}
	<Releases pageId={data.view.page.id} device={shown.device} marks={data.view.markers} form={data.form} />
	{#if data.visits?.[chosen]?.views}<OwnVisits
			visits={data.visits[chosen]!}
			siteId={data.view.page.siteId}
		/>{/if}
	{#if shown.newest}
		<section>
			<h2>In the lab</h2>
			{#if data.view.lab.length}<Table
					label="The same page in the lab"
					columns={labColumns}
					rows={data.view.lab}
					key={({ conditionId }) => conditionId}
				/>
				<h3>Why it shows other figures</h3>
				<ul>
					<li>The lab loads under one set of conditions; visitors come with many devices and networks.</li>
					<li>The lab’s first visit finds no file in the browser’s cache; many visitors have some.</li>
					<li>Visitors scroll and tap: shifts after that and the response to input show in the field alone.</li>
					<li>Visitors answer consent layers; an anonymous load in the lab does not.</li>
				</ul>
			{:else}<p class="muted">This page was not loaded in the lab yet.</p>{/if}
		</section>
	{/if}
</div>

{#if form && 'binned' in form && form.binned}<Undo id={form.binned.id} name={form.binned.name} />{/if}

<style>
	section {
		margin-top: var(--gap-7);
	}
	.page-top :global(.bx--content-switcher) {
		max-width: 16rem;
	}
	h3 {
		margin-top: var(--gap-6);
	}
</style>
