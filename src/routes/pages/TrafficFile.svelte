<script lang="ts">
	/** A traffic table of any program: its columns are told apart here, before it is sent. */
	import { Button } from 'carbon-components-svelte';
	import { invalidateAll } from '$app/navigation';
	import { TRAFFIC_FIELDS, type TrafficField } from '$core/formats/traffic';
	import Choice from '$lib/parts/Choice.svelte';
	import FileField from '$lib/parts/FileField.svelte';
	import Notice from '$lib/parts/Notice.svelte';
	import { sendFile } from '$lib/upload';
	import { columnsFrom, columnsQuery, firstLines, type FirstLines } from './trafficColumns';

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
	let file = $state<File | null>(null);
	let lines = $state<FirstLines | null>(null);
	let places: Record<TrafficField, string> = $state({ address: '', visits: '', conversions: '', revenue: '' });
	let problem = $state('');
	let result = $state<Result | null>(null);
	let isSending = $state(false);

	async function choose(chosen: File) {
		[file, problem, result] = [chosen, '', null];
		lines = await firstLines(chosen);
		places = columnsFrom(lines.head);
	}
	async function send() {
		isSending = true;
		const sent = await sendFile<Result>(`/api/sites/${siteId}/traffic?${columnsQuery(places)}`, file!);
		isSending = false;
		problem = sent.problem;
		result = sent.answer;
		if (!result) return;
		[file, lines] = [null, null];
		await invalidateAll();
	}
	const options = $derived([
		{ value: '', text: 'none' },
		...(lines?.head ?? []).map((name, i) => ({ value: String(i), text: name || `column ${i + 1}` }))
	]);
	const example = (field: TrafficField) =>
		places[field] === '' ? '' : (lines?.first[Number(places[field])] ?? '');
</script>

<div class="traffic">
	<h3>A traffic table</h3>
	<p class="muted small">
		CSV of any program: comma, semicolon or tab; 1,234 and 1.234,5. A new table replaces the last.
	</p>
	<FileField
		label={file ? 'Another file' : 'Choose a traffic table'}
		accept={['.csv', '.tsv', '.txt']}
		onfile={choose}
		help={file?.name ?? ''}
	/>
	{#if lines}
		<div class="columns">
			{#each TRAFFIC_FIELDS as field (field)}
				<div>
					<Choice label={NAMES[field]} {options} bind:value={places[field]} />
					<span class="muted small">{example(field)}</span>
				</div>
			{/each}
		</div>
		<Button size="small" disabled={places.address === '' || isSending} on:click={send}
			>{isSending ? 'Reading' : 'Read the table'}</Button
		>
	{/if}
	{#if problem}<Notice kind="error" title="The table was not read." text={problem} />{/if}
	{#if result}<Notice
			kind="success"
			title="{result.pages.toLocaleString('en-GB')} pages with {Math.round(result.visits).toLocaleString(
				'en-GB'
			)} visits."
			text="{result.lines.toLocaleString(
				'en-GB'
			)} lines; {result.joined} joined with another line of the same page; without an address {result.skipped[
				'no-address'
			]}, of other hosts {result.skipped.foreign}, without a number {result.skipped['no-number']}."
		/>{/if}
</div>

<style>
	.traffic {
		display: grid;
		gap: 0.7rem;
		align-content: start;
		justify-items: start;
	}
	h3 {
		margin: 0;
	}
	.columns {
		display: grid;
		grid-template-columns: repeat(auto-fit, minmax(8rem, 1fr));
		gap: 0.6rem;
		width: 100%;
	}
	.columns span {
		overflow-wrap: anywhere;
	}
</style>
