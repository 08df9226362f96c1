<script lang="ts">
	/** What the site's own script reported of this page: custom timings, and goals by speed. */
	import type { BandOutcome } from '$core/field/outcome';
	import { describeCaveat, describeOutcome } from '$core/wording/field';
	import { formatDuration } from '$core/wording/format';
	import BandBar from '$lib/parts/BandBar.svelte';
	import Table from '$lib/parts/Table.svelte';
	import type { Column } from '$lib/parts/tableRows';
	import type { PageVisits, TimingReading } from '$lib/server/rooms/visits/pageVisits';

	let { visits, siteId }: { visits: PageVisits; siteId: number } = $props();
	const BANDS: Record<BandOutcome['band'], 'good' | 'needs improvement' | 'poor'> = {
		good: 'good',
		'needs-improvement': 'needs improvement',
		poor: 'poor'
	};
	const bandOfTiming = ({ timing, p75 }: TimingReading) =>
		p75 <= timing.good ? 'good' : p75 > timing.poor ? 'poor' : 'needs improvement';
	const timingColumns: Column<TimingReading>[] = [
		{ key: 'name', name: 'Timing', isRowHead: true, text: ({ timing }) => timing.name },
		{ key: 'views', name: 'Page views', number: true, text: ({ views }) => views.toLocaleString('en-GB') },
		{ key: 'p75', name: 'p75', number: true, text: ({ p75 }) => formatDuration(p75) },
		{ key: 'band', name: 'Band' }
	];
	const goalColumns: Column<BandOutcome>[] = [
		{ key: 'band', name: 'Largest paint of the page view', isRowHead: true },
		{
			key: 'rate',
			name: 'Reached it',
			number: true,
			text: ({ rate }) => (rate === null ? '–' : `${(rate * 100).toFixed(1)} %`)
		},
		{ key: 'interval', name: 'Of', text: describeOutcome }
	];
</script>

<section id="visits">
	<h2>Own visits</h2>
	<p>
		{visits.views.toLocaleString('en-GB')} page views reported in the last 28 days.
		<a href="/field/visits?site={siteId}">Live visits</a>
	</p>
	{#if visits.timings.length}
		<h3>Custom timings</h3>
		<Table
			label="Custom timings"
			columns={timingColumns}
			rows={visits.timings}
			key={({ timing }) => timing.name}
		>
			{#snippet cell(row)}<BandBar band={bandOfTiming(row)} />{/snippet}
		</Table>
	{/if}
	{#each visits.goals as { goal, bands } (goal)}
		<h3>“{goal}” by speed</h3>
		<Table label="“{goal}” by speed" columns={goalColumns} rows={bands} key={({ band }) => band}>
			{#snippet cell(row)}<BandBar band={BANDS[row.band]} />{/snippet}
		</Table>
		<p class="muted small">{describeCaveat()}</p>
	{/each}
</section>

<style>
	h3 {
		margin-top: var(--gap-6);
	}
</style>
