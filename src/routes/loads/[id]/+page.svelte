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
	import Sheet from '$lib/parts/Sheet.svelte';
	import Circumstances from './Circumstances.svelte';
	import Facts from './Facts.svelte';
	import Figures from './Figures.svelte';
	import Frames from './Frames.svelte';
	import Head from './Head.svelte';
	import HeldBack from './HeldBack.svelte';
	import Steps from './Steps.svelte';
	import Weight from './Weight.svelte';

	let { data } = $props();
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
			...requests.map((one) => one.endMs ?? one.startMs),
			...record.frames.map((one) => one.atMs),
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
	const parts = $derived([
		...(requests.length ? [{ id: 'timeline', name: 'Timeline', state: `${requests.length} requests` }] : []),
		{ id: 'figures', name: 'Figures' },
		...(record.steps.length
			? [
					{
						id: 'steps',
						name: 'Steps',
						state: record.steps.some((step) => step.status === 'failed')
							? 'one failed'
							: `${record.steps.length} went well`
					}
				]
			: []),
		...(data.load.hasPicture ? [{ id: 'picture', name: 'Page picture' }] : []),
		...(record.frames.length ? [{ id: 'frames', name: 'Frames', state: `${record.frames.length}` }] : []),
		{ id: 'weight', name: 'What it weighs' },
		...(tasks.length ? [{ id: 'thread', name: 'Main thread', state: `${tasks.length} long tasks` }] : []),
		...(record.source === 'lab'
			? [{ id: 'held', name: 'What it holds back', state: record.heldBack ? undefined : 'not asked' }]
			: []),
		...(record.page ? [{ id: 'facts', name: 'Facts' }] : []),
		{ id: 'circumstances', name: 'Circumstances' }
	]);
	/** The list holds but a part of each request; a CSV wants all. */
	async function csvOfRequests(numbers: ReadonlySet<number>): Promise<string> {
		const whole = (await (await fetch(`/api/loads/${data.load.id}`)).json()) as LoadRecord;
		return requestsCsv(
			ownedRequests(whole.requests, siteHost, data.cdnHosts).filter((one) => numbers.has(one.number))
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
<Sheet {parts}>
	<Head {data} />

	{#if requests.length}
		<section id="timeline" aria-labelledby="timeline-title">
			<h2 id="timeline-title">Timeline</h2>
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
					detailsUrl={(number) => `/api/loads/${data.load.id}/requests/${number}`}
					csv={csvOfRequests}
					asked={asked('timeline')}
					onchange={(values) => keep('timeline', values)}
				/>
			{/key}
		</section>
	{/if}

	<Figures {data} />

	{#if record.steps.length}
		<section id="steps" aria-labelledby="steps-title">
			<h2 id="steps-title">Steps</h2>
			<Steps steps={record.steps} picture="/api/loads/{data.load.id}/step-picture" />
		</section>
	{/if}

	{#if data.load.hasPicture}
		<section id="picture" aria-labelledby="picture-title">
			<h2 id="picture-title">Page picture</h2>
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
		</section>
	{/if}

	{#if record.frames.length}
		<Frames {data} {device} {frameUrl} {frameNotes} />
	{/if}

	<section id="weight" aria-labelledby="weight-title">
		<h2 id="weight-title">What it weighs</h2>
		{#if requests.length}<Weight
				requests={requests.filter((one) => one.during === 'load')}
				{shares}
				{colours}
			/>{:else}<p class="muted">No request left the browser.</p>{/if}
	</section>

	{#if tasks.length}
		<section id="thread" aria-labelledby="thread-title">
			<h2 id="thread-title">Main thread</h2>
			<MainThread
				{tasks}
				{times}
				{endMs}
				lines={lines.filter((line) => line.name === 'FCP' || line.name === 'LCP')}
				{colours}
			/>
		</section>
	{/if}

	{#if record.source === 'lab'}
		<section id="held" aria-labelledby="held-title">
			<h2 id="held-title">What it holds back</h2>
			{#if record.heldBack}<HeldBack heldBack={record.heldBack} figures={record.figures} />
			{:else}
				<p>
					This load ended once the page was quiet: nobody moved. Whether the page keeps work back until somebody
					does is not known.
				</p>
				<form method="POST" action="?/nudge" class="no-print">
					<button class="act">Load it again and nudge it</button>
				</form>
			{/if}
		</section>
	{/if}

	{#if record.page}
		<section id="facts" aria-labelledby="facts-title">
			<h2 id="facts-title">Facts</h2>
			<Facts page={record.page} {requests} marks={record.marks} />
		</section>
	{/if}

	<Circumstances {data} />
</Sheet>

<style>
	.act {
		background: none;
		border: 1px solid var(--action);
		color: var(--action);
		padding: 0.4rem 1rem;
		cursor: pointer;
	}
</style>
