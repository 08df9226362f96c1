<script lang="ts">
	import { onMount } from 'svelte';
	import Scroller from '$lib/parts/Scroller.svelte';
	import { METRICS, bandOf, metricOf } from '$core/metrics/catalogue';
	import { formatDifference, formatDuration, formatMoment, formatValue } from '$core/wording/format';
	import type { LoadRecord } from '$core/load/record';
	import { sharesOf } from '$core/load/owners';
	import { frameShowing } from '$core/load/visual';
	import { ownedTasks, timeByOwner } from '$core/load/mainThread';
	import { ownedRequests, requestsCsv, unpackRequests } from '$core/load/requestList';
	import LoadTimeline from '$lib/charts/LoadTimeline.svelte';
	import MainThread from '$lib/charts/MainThread.svelte';
	import PagePicture from '$lib/charts/PagePicture.svelte';
	import Playback from '$lib/charts/Playback.svelte';
	import { ownerColours } from '$lib/charts/ownerColour';
	import { asked, goToSection, keep } from '$lib/fragment';
	import BandBar from '$lib/parts/BandBar.svelte';
	import Sheet from '$lib/parts/Sheet.svelte';
	import Facts from './Facts.svelte';
	import HeldBack from './HeldBack.svelte';
	import Steps from './Steps.svelte';
	import Weight from './Weight.svelte';

	let { data } = $props();
	const record = $derived(data.record);
	const device = $derived(record.conditions?.device ?? { width: 1366, height: 768 });
	const measured = $derived(METRICS.filter((metric) => record.figures[metric.id] !== null));
	const siteHost = $derived(new URL(record.finalUrl || record.url).host);
	const requests = $derived(ownedRequests(unpackRequests(data.requests), siteHost, data.cdnHosts));
	const shares = $derived(sharesOf(requests, siteHost, data.cdnHosts));
	const colours = $derived(ownerColours(shares));
	const tasks = $derived(ownedTasks(record, siteHost, data.cdnHosts));
	const times = $derived(timeByOwner(tasks));
	const LINES = ['ttfb', 'fcp', 'lcp', 'onload', 'full'] as const;
	const lines = $derived(
		LINES.flatMap((id) => (record.figures[id] === null ? [] : [{ name: metricOf(id).short, atMs: record.figures[id] }]))
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
	const repeat = $derived(
		record.firstVisit ? METRICS.filter(({ id }) => record.firstVisit![id] !== null && record.figures[id] !== null) : []
	);

	/** The list holds but a part of each request; a CSV wants all. */
	async function csvOfRequests(numbers: ReadonlySet<number>): Promise<string> {
		const whole = (await (await fetch(`/api/loads/${data.load.id}`)).json()) as LoadRecord;
		return requestsCsv(ownedRequests(whole.requests, siteHost, data.cdnHosts).filter((one) => numbers.has(one.number)));
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
	<header>
		<p class="muted small">
			{#if data.trial}<a href="/trials/{data.trial.id}">{data.trial.question}</a>, arm “{data.trial.arm}”, {data.load
					.warmup
					? 'warm-up'
					: 'round'}
				{data.load.round}.
			{:else if record.source === 'har'}Imported from a HAR file. <a href="/loads">All single loads</a>
			{:else}A single load. <a href="/loads">All single loads</a>{/if}
		</p>
		<h1>{record.page?.title || record.url}</h1>
		<p class="address">{record.finalUrl}</p>
		<p class="verdict">
			{#if record.figures.score !== null}<span
					>Score <b class="figures">{formatValue('score', record.figures.score)}</b>
					<BandBar band={bandOf('score', record.figures.score)!} /></span
				>{/if}
			{#each ['lcp', 'cls', 'tbt', 'inp'] as const as id (id)}
				{#if record.figures[id] !== null}<span
						>{metricOf(id).short} <b class="figures">{formatValue(id, record.figures[id])}</b>
						<BandBar band={bandOf(id, record.figures[id])!} /></span
					>{/if}
			{/each}
		</p>
		<p>
			<b>{record.conditions?.name ?? 'Unknown conditions'}</b>{record.conditions?.summary
				? `, ${record.conditions.summary.toLowerCase()}`
				: ''}{record.conditions?.cache === 'repeat' ? ', repeat visit' : ''}. {formatMoment(record.startedAt)}.
		</p>
		<p class="no-print">
			<a href="/api/loads/{data.load.id}/har" download>HAR</a> ·
			<a href="/api/loads/{data.load.id}" download="zafra-load-{data.load.id}.json">Record as JSON</a>
			(<a href="/api/schemas/load-record">schema</a>)
		</p>
	</header>
	{#if record.failure}
		<div class="failure" role="alert"><b>This load failed.</b> {record.failure.message} {record.failure.advice}</div>
	{/if}
	{#each record.environment.notes as note (note)}<p class="note">{note}</p>{/each}

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

	<section id="figures" aria-labelledby="figures-title">
		<h2 id="figures-title">Figures</h2>
		<Scroller label="Table of figures">
			<table class="ledger">
				<thead
					><tr
						><th scope="col">Metric</th><th scope="col" class="number">Value</th><th scope="col">Band</th><th
							scope="col"
							class="number">Costs the score</th
						><th scope="col">What it is</th></tr
					></thead
				>
				<tbody>
					{#each measured as metric (metric.id)}
						{@const band = bandOf(metric.id, record.figures[metric.id])}
						{@const part = data.score.parts.find((one) => one.metric === metric.id)}
						<tr>
							<th scope="row">{metric.name}</th>
							<td class="number">{formatValue(metric.id, record.figures[metric.id])}</td>
							<td
								>{#if band}<BandBar {band} />{/if}</td
							>
							<td class="number">{part?.cost != null ? `${part.cost.toFixed(1)} of ${part.weight}` : ''}</td>
							<td class="muted">{metric.definition}</td>
						</tr>
					{/each}
				</tbody>
			</table>
		</Scroller>
		{#if record.source === 'har'}<p class="muted small">What the HAR does not hold is unknown and not shown.</p>{/if}
		{#if repeat.length}
			<h3>First visit and repeat visit</h3>
			<Scroller label="First visit against repeat visit">
				<table class="ledger">
					<thead
						><tr
							><th scope="col">Metric</th><th scope="col" class="number">First visit</th><th scope="col" class="number"
								>Repeat visit</th
							><th scope="col" class="number">Difference</th></tr
						></thead
					>
					<tbody>
						{#each repeat as metric (metric.id)}
							<tr
								><th scope="row">{metric.name}</th><td class="number"
									>{formatValue(metric.id, record.firstVisit![metric.id])}</td
								><td class="number">{formatValue(metric.id, record.figures[metric.id])}</td><td class="number"
									>{formatDifference(metric.id, record.figures[metric.id]! - record.firstVisit![metric.id]!)}</td
								></tr
							>
						{/each}
					</tbody>
				</table>
			</Scroller>
		{/if}
	</section>

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
		<section id="frames" aria-labelledby="frames-title">
			<h2 id="frames-title">Frames</h2>
			<Playback
				frames={record.frames}
				{frameUrl}
				width={device.width}
				height={device.height}
				endMs={Math.max(record.frames.at(-1)!.atMs, record.figures.lcp ?? 0)}
			/>
			<Scroller label="Frames">
				<ol class="frames">
					{#each record.frames as frame, i (i)}
						{@const notes = frameNotes.filter((note) => note.frame === i).map((note) => note.words)}
						<li class:noted={notes.length}>
							<a href="/api/loads/{data.load.id}/frames/{i + 1}?format=png"
								><img
									src={frameUrl(i)}
									alt="The page after {formatDuration(frame.atMs)}"
									loading="lazy"
									width={device.width}
									height={device.height}
								/></a
							>
							<span class="figures"
								>{formatDuration(frame.atMs)}<br /><span class="muted"
									>{Math.round(frame.progress * 100)} % painted</span
								>{#if notes.length}<br /><b>{[...new Set(notes)].join(', ')}</b>{/if}</span
							>
						</li>
					{/each}
				</ol>
			</Scroller>
			<p class="muted small">Each distinct frame, with its time and how far its colours are from the finished page.</p>
		</section>
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
					This load ended once the page was quiet: nobody moved. Whether the page keeps work back until somebody does is
					not known.
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

	<section id="circumstances" aria-labelledby="circumstances-title">
		<h2 id="circumstances-title">Circumstances</h2>
		<dl>
			<dt>Conditions</dt>
			<dd>{data.detail ?? 'unknown'}</dd>
			<dt>Browser</dt>
			<dd>{record.environment.browser}</dd>
			{#if record.source === 'lab'}
				<dt>Machine</dt>
				<dd>
					{record.environment.machineSpeed.before?.toFixed(0) ?? '–'} loops/ms before, {record.environment.machineSpeed.after?.toFixed(
						0
					) ?? '–'} after; slowed {record.environment.slowdown.toFixed(1)} times to {record.environment.reachedSpeed?.toFixed(
						0
					) ?? '–'}
				</dd>
				{#if record.environment.network}<dt>Line</dt>
					<dd>
						{record.environment.network.mostConnections} connections at most; {formatValue(
							'wire',
							record.environment.network.downBytes
						)} down, {formatValue('wire', record.environment.network.upBytes)} up, TLS and all
					</dd>{/if}
				<dt>Settled</dt>
				<dd>
					{record.settledMs === null ? '–' : formatDuration(record.settledMs)}{record.capped ? ', at the time cap' : ''}
				</dd>
				<dt>Score recipe</dt>
				<dd>{record.recipe}</dd>
			{/if}
			{#if record.redirects.length}<dt>Redirects</dt>
				<dd>
					{#each record.redirects as step, i (i)}<div>{step}</div>{/each}
				</dd>{/if}
		</dl>
	</section>
</Sheet>

<style>
	header p {
		margin: 0.25rem 0;
	}
	header {
		margin-bottom: 1.2rem;
	}
	.verdict {
		display: flex;
		flex-wrap: wrap;
		gap: 0.2rem 1.3rem;
		align-items: baseline;
	}
	.small {
		font-size: 0.88rem;
	}
	.address {
		overflow-wrap: anywhere;
		color: var(--muted);
	}
	.failure,
	.note {
		border-left: 3px solid var(--worse);
		padding: 0.4rem 0.8rem;
		background: var(--panel);
		margin-bottom: 1rem;
	}
	.note {
		border-left-color: var(--focus);
	}
	th[scope='row'] {
		font-weight: 400;
	}
	.frames {
		list-style: none;
		display: flex;
		gap: 0.6rem;
		padding: 0.6rem 0 0.4rem;
		margin: 0;
	}
	.frames li {
		flex: none;
		width: 118px;
		font-size: 0.84rem;
	}
	.frames img {
		width: 100%;
		height: auto;
		border: 1px solid var(--rule);
		background: #fff;
	}
	.frames .noted img {
		border: 2px solid var(--focus);
	}
	.act {
		background: none;
		border: 1px solid var(--action);
		color: var(--action);
		padding: 0.4rem 1rem;
		cursor: pointer;
	}
	h3 {
		margin-top: 1rem;
	}
	dl {
		display: grid;
		grid-template-columns: 8rem 1fr;
		gap: 0.3rem 1rem;
		margin: 0;
	}
	dt {
		color: var(--muted);
	}
	dd {
		margin: 0;
	}
</style>
