<script lang="ts">
	import { onMount } from 'svelte';
	import { metricOf } from '$core/metrics/catalogue';
	import type { LoadRecord } from '$core/load/record';
	import { sharesOf } from '$core/load/owners';
	import { frameShowing } from '$core/load/visual';
	import { ownedTasks, timeByOwner } from '$core/load/mainThread';
	import { ownedRequests, requestsCsv, unpackRequests } from '$core/load/requestList';
	import LoadTimeline from '$lib/charts/LoadTimeline.svelte';
	import MainThread from '$lib/charts/MainThread.svelte';
	import PagePicture from '$lib/charts/PagePicture.svelte';
	import { ownerColours } from '$lib/charts/ownerColour';
	import { asked, goToSection, keep } from '$lib/fragment';
	import Later from '$lib/Later.svelte';
	import Part from '$lib/parts/Part.svelte';
	import Sheet from '$lib/parts/Sheet.svelte';
	import Circumstances from './Circumstances.svelte';
	import Facts from './Facts.svelte';
	import Figures from './Figures.svelte';
	import Frames from './Frames.svelte';
	import Head from './Head.svelte';
	import HeldBack from './HeldBack.svelte';
	import Identity from './Identity.svelte';
	import Outages from './Outages.svelte';
	import { PART_NAMES } from './partNames';
	import Steps from './Steps.svelte';
	import Taps from './Taps.svelte';
	import Weight from './Weight.svelte';

	let { data, form } = $props();
	const record = $derived(data.record);
	const device = $derived(record.conditions?.device ?? { width: 1366, height: 768 });
	const siteHost = $derived(new URL(record.finalUrl || record.url).host);
	const requests = $derived(ownedRequests(unpackRequests(data.requests), siteHost, data.cdnHosts));
	const shares = $derived(sharesOf(requests, siteHost, data.cdnHosts));
	const colours = $derived(ownerColours(shares));
	const tasks = $derived(ownedTasks(record, siteHost, data.cdnHosts));
	const times = $derived(timeByOwner(tasks));
	const LINES = ['ttfb', 'fcp', 'lcp', 'onload', 'full'] as const;
	const lines = $derived(
		LINES.flatMap((id) =>
			record.figures[id] === null ? [] : [{ name: metricOf(id).short, atMs: record.figures[id] }]
		)
	);
	const endMs = $derived(
		Math.max(
			100,
			...requests.map((request) => request.endMs ?? request.startMs),
			...record.frames.map((frame) => frame.atMs),
			...tasks.map((task) => task.startMs + task.durationMs),
			...lines.map((line) => line.atMs)
		)
	);
	const frameUrl = $derived((index: number) => `/api/loads/${data.load.id}/frames/${index + 1}`);
	/** Which frame holds LCP, and which each shift. */
	const frameNotes = $derived(
		[
			...(record.lcp ? [{ frame: frameShowing(record.frames, record.lcp.atMs), words: 'LCP' }] : []),
			...record.shifts
				.filter((shift) => shift.value >= 0.0005)
				.map((shift) => ({ frame: frameShowing(record.frames, shift.atMs), words: 'shift' }))
		].filter((note) => note.frame >= 0)
	);
	const margin = $derived(data.parts.map(({ id }) => ({ id, name: PART_NAMES[id] })));
	/** The list holds but a part of each request; a CSV wants all. */
	async function csvOfRequests(numbers: ReadonlySet<number>): Promise<string> {
		const whole = (await (await fetch(`/api/loads/${data.load.id}`)).json()) as LoadRecord;
		return requestsCsv(
			ownedRequests(whole.requests, siteHost, data.cdnHosts).filter(({ number }) => numbers.has(number))
		);
	}

	onMount(() => setTimeout(goToSection, 50));
	/** A link to another place of the same sheet makes its parts read the address again. */
	let hashes = $state(0);
</script>

<svelte:head><title>Load of {record.url} – Zafra</title></svelte:head>

<svelte:window
	onhashchange={() => {
		hashes++;
		setTimeout(goToSection, 50);
	}}
/>
<Sheet parts={margin}>
	{#snippet first()}
		<Later of={Head} props={{ data }} />
		{#if requests.length}
			<section id="timeline" aria-label="Timeline">
				{#key hashes}
					<LoadTimeline
						{requests}
						frames={record.frames}
						{frameUrl}
						frameRatio={device.height / device.width}
						{lines}
						{shares}
						{colours}
						{frameNotes}
						calm={record.environment.calm}
						calmWords={data.calm}
						detailsUrl={(number) => `/api/loads/${data.load.id}/requests/${number}`}
						csv={csvOfRequests}
						asked={asked('timeline')}
						onchange={(values) => keep('timeline', values)}
					/>
				{/key}
			</section>
		{/if}
	{/snippet}

	{#each data.parts as part (part.id)}
		<Part
			id={part.id}
			title={PART_NAMES[part.id]}
			finding={part.finding}
			tone={part.isTrouble ? 'trouble' : 'plain'}
			printed={part.id === 'figures' || part.id === 'circumstances'}
			shows={data}
		>
			{#if part.id === 'figures'}
				<Later of={Figures} props={{ data }} />
			{:else if part.id === 'steps'}
				<Steps steps={record.steps} picture="/api/loads/{data.load.id}/step-picture" />
			{:else if part.id === 'picture'}
				{#key hashes}
					<PagePicture
						picture="/api/loads/{data.load.id}/picture"
						width={device.width}
						height={device.height}
						lcp={record.lcp}
						shifts={record.shifts}
						asked={asked('picture')}
						onchange={(values) => keep('picture', values)}
					/>
				{/key}
			{:else if part.id === 'frames'}
				<Frames {data} {device} {frameUrl} {frameNotes} />
			{:else if part.id === 'weight'}
				{#if requests.length}<Weight
						requests={requests.filter((request) => request.during === 'load')}
						{shares}
						{colours}
					/>{:else}<p class="muted">No request left the browser.</p>{/if}
			{:else if part.id === 'thread'}
				<MainThread
					{tasks}
					{times}
					{endMs}
					lines={lines.filter((line) => line.name === 'FCP' || line.name === 'LCP')}
					{colours}
				/>
			{:else if part.id === 'held'}
				<HeldBack {data} />
			{:else if part.id === 'outages'}
				<Outages outages={data.outages} figures={record.figures} />
			{:else if part.id === 'taps'}
				<Taps taps={data.taps} {form} />
			{:else if part.id === 'identity'}
				<Identity identity={data.identity} />
			{:else if part.id === 'facts' && record.page}
				<Facts page={record.page} {requests} marks={record.marks} />
			{:else}
				<Later of={Circumstances} props={{ data }} />
			{/if}
		</Part>
	{/each}
</Sheet>
