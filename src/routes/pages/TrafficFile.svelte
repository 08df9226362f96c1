<script lang="ts">
	/** A traffic table of any program. */
	import { counted } from '$core/wording/format';
	import { guessColumns, TRAFFIC_FIELDS, type TrafficField } from '$core/pages/traffic';
	import ColumnFile from '$lib/parts/ColumnFile.svelte';
	import { placesOf } from '$lib/parts/tableColumns';

	let { siteId }: { siteId: number } = $props();
	interface Result {
		pages: number;
		visits: number;
		lines: number;
		joined: number;
		skipped: Record<string, number>;
	}
	const NAMES: Record<TrafficField, string> = {
		address: 'Address or path',
		visits: 'Visits',
		conversions: 'Conversions',
		revenue: 'Revenue'
	};
	const count = (n: number) => Math.round(n).toLocaleString('en-GB');
	const wordsOf = ({ pages, visits, lines, joined, skipped }: Result) => ({
		title: `${counted(pages, 'page')} with ${counted(Math.round(visits), 'visit')}.`,
		text: `${count(lines)} lines; ${joined} joined with another line of the same page; without an address ${skipped['no-address']}, of other hosts ${skipped.foreign}, without a number ${skipped['no-number']}.`
	});
</script>

<div class="stack">
	<h3>A traffic table</h3>
	<p class="muted small">
		CSV of any program: comma, semicolon or tab; 1,234 and 1.234,5. A new table replaces the last.
	</p>
	<ColumnFile
		label="Choose a traffic table"
		fields={TRAFFIC_FIELDS.map((key) => ({ key, name: NAMES[key] }))}
		guess={(head) => placesOf(guessColumns(head))}
		url="/api/sites/{siteId}/traffic"
		{wordsOf}
	/>
</div>

<style>
	h3 {
		margin: 0;
	}
</style>
