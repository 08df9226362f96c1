<script lang="ts">
	import Scroller from '$lib/parts/Scroller.svelte';
	import { METRICS, bandOf, metricOf } from '../../../core/metrics/catalogue';
	import { formatBytes, formatDuration, formatMoment, formatValue } from '../../../core/wording/format';
	import { sharesOf, thirdPartyTail } from '../../../core/load/owners';
	import LoadTimeline from '$lib/charts/LoadTimeline.svelte';
	import BandBar from '$lib/parts/BandBar.svelte';
	import Sheet from '$lib/parts/Sheet.svelte';
	import RequestTable from './RequestTable.svelte';

	let { data } = $props();
	const record = $derived(data.record);
	const device = $derived(record.conditions.device);
	const measured = $derived(METRICS.filter((metric) => record.figures[metric.id] !== null));
	const moved = $derived(record.shifts.filter((shift) => shift.value >= 0.0005));
	const siteHost = $derived(new URL(record.finalUrl || record.url).host);
	const shares = $derived(sharesOf(record.requests, siteHost));
	const tail = $derived(thirdPartyTail(shares));
	const LINES = ['ttfb', 'fcp', 'lcp', 'onload', 'full'] as const;
	const lines = $derived(
		LINES.flatMap((id) => (record.figures[id] === null ? [] : [{ name: metricOf(id).short, atMs: record.figures[id] }]))
	);
	const parts = $derived([
		{ id: 'timeline', name: 'Timeline' },
		{ id: 'figures', name: 'Figures' },
		{ id: 'picture', name: 'Page picture' },
		{ id: 'frames', name: 'Frames', state: `${record.frames.length}` },
		{ id: 'weight', name: 'What it weighs' },
		{ id: 'requests', name: 'Requests', state: `${record.requests.length}` },
		{ id: 'circumstances', name: 'Circumstances' }
	]);
</script>

<svelte:head><title>Load of {record.url} – Zafra</title></svelte:head>

<Sheet {parts}>
	<header>
		<p class="muted small">
			{#if data.trial}<a href="/trials/{data.trial.id}">{data.trial.question}</a>, arm “{data.trial.arm}”, {data.load.warmup ? 'warm-up' : 'round'} {data.load.round}.{/if}
		</p>
		<h1>{record.page?.title || record.url}</h1>
		<p class="address">{record.finalUrl}</p>
		<p>
			<b>{record.conditions.name}</b>, {record.conditions.summary.toLowerCase()}. {formatMoment(record.startedAt)}.
			{#if record.figures.score !== null}Score <b class="figures">{formatValue('score', record.figures.score)}</b> <BandBar band={bandOf('score', record.figures.score)!} />{/if}
		</p>
		<p class="no-print">
			<a href="/api/loads/{data.load.id}/har" download>HAR</a> · <a href="/api/loads/{data.load.id}" download="zafra-load-{data.load.id}.json">Record as JSON</a>
		</p>
	</header>
	{#if record.failure}
		<div class="failure" role="alert"><b>This load failed.</b> {record.failure.message} {record.failure.advice}</div>
	{/if}
	{#each record.environment.notes as note (note)}<p class="note">{note}</p>{/each}

	{#if record.requests.length}
		<section id="timeline" aria-labelledby="timeline-title">
			<h2 id="timeline-title">Timeline</h2>
			<LoadTimeline
				requests={record.requests}
				frames={record.frames}
				frameUrl={(index) => `/api/loads/${data.load.id}/frames/${index + 1}`}
				frameRatio={device.height / device.width}
				{lines}
				{shares}
				{siteHost}
			/>
		</section>
	{/if}

	<section id="figures" aria-labelledby="figures-title">
		<h2 id="figures-title">Figures</h2>
		<Scroller label="Table of figures">
			<table class="ledger">
				<thead><tr><th scope="col">Metric</th><th scope="col" class="number">Value</th><th scope="col">Band</th><th scope="col" class="number">Costs the score</th><th scope="col">What it is</th></tr></thead>
				<tbody>
					{#each measured as metric (metric.id)}
						{@const band = bandOf(metric.id, record.figures[metric.id])}
						{@const part = data.score.parts.find((one) => one.metric === metric.id)}
						<tr>
							<th scope="row">{metric.name}</th>
							<td class="number">{formatValue(metric.id, record.figures[metric.id])}</td>
							<td>{#if band}<BandBar {band} />{/if}</td>
							<td class="number">{part?.cost != null ? `${part.cost.toFixed(1)} of ${part.weight}` : ''}</td>
							<td class="muted">{metric.definition}</td>
						</tr>
					{/each}
				</tbody>
			</table>
		</Scroller>
	</section>

	<section id="picture" aria-labelledby="picture-title">
		<h2 id="picture-title">Page picture</h2>
		{#if data.load.hasPicture}
			<div class="seen">
				<figure class="shot" style:aspect-ratio="{device.width} / {device.height}" style:max-width="{device.mobile ? 300 : 640}px">
					<img src="/api/loads/{data.load.id}/picture" alt="The finished page as the visitor sees it first" width={device.width} height={device.height} />
					{#if record.lcp?.box}
						{@const box = record.lcp.box}
						<div
							class="lcp"
							style:left="{(box.x / device.width) * 100}%"
							style:top="{(box.y / device.height) * 100}%"
							style:width="{(box.width / device.width) * 100}%"
							style:height="{(box.height / device.height) * 100}%"
						></div>
					{/if}
				</figure>
				<div>
					{#if record.lcp}
						<h3>Largest Contentful Paint, outlined</h3>
						<p>{formatDuration(record.lcp.atMs)}: <code>{record.lcp.selector ?? 'an element that is gone'}</code>{record.lcp.text ? ` “${record.lcp.text}”` : ''}</p>
						{#if record.lcp.url}<p class="address small">{record.lcp.url}</p>{/if}
					{/if}
					<h3>What moved</h3>
					{#if moved.length}
						<ul>
							{#each moved as shift (shift.atMs)}
								<li>
									<b class="figures">{formatValue('cls', shift.value)}</b> at {formatDuration(shift.atMs)}{shift.recentInput ? ', left out by the browser: just after input or a change of the viewport' : ''}:
									{#each shift.elements.slice(0, 4) as element, i (i)}<code>{element.selector}</code>{i < Math.min(3, shift.elements.length - 1) ? ', ' : ''}{/each}
								</li>
							{/each}
						</ul>
					{:else}<p>Nothing moved.</p>{/if}
					{#if record.page?.consoleErrors.length}
						<h3>Errors in the console</h3>
						<ul>{#each record.page.consoleErrors as message, i (i)}<li>{message}</li>{/each}</ul>
					{/if}
				</div>
			</div>
		{:else}<p class="muted">There is no picture: the load ended before the page was there.</p>{/if}
	</section>

	<section id="frames" aria-labelledby="frames-title">
		<h2 id="frames-title">Frames</h2>
		{#if record.frames.length}
			<Scroller label="Frames">
			<ol class="frames">
				{#each record.frames as frame, i (i)}
					<li>
						<img src="/api/loads/{data.load.id}/frames/{i + 1}" alt="The page after {formatDuration(frame.atMs)}" loading="lazy" width={device.width} height={device.height} />
						<span class="figures">{formatDuration(frame.atMs)}<br /><span class="muted">{Math.round(frame.progress * 100)} % painted</span></span>
					</li>
				{/each}
			</ol>
			</Scroller>
			<p class="muted small">Each distinct frame, with its time and how far its colours are from the finished page.</p>
		{:else}<p class="muted">No frame was painted.</p>{/if}
	</section>

	<section id="weight" aria-labelledby="weight-title">
		<h2 id="weight-title">What it weighs</h2>
		<Scroller label="Weight by owner">
			<table class="ledger">
				<thead><tr><th scope="col">Whose</th><th scope="col" class="number">Requests</th><th scope="col" class="number">On the wire</th><th scope="col" class="number">Decoded</th><th scope="col" class="number">Last response</th></tr></thead>
				<tbody>
					{#each shares as share (share.id)}
						<tr>
							<th scope="row">{share.name}{share.kind === 'third-party' ? ', third party' : ''}</th>
							<td class="number">{share.requests}</td>
							<td class="number">{formatBytes(share.wireBytes)}</td>
							<td class="number">{formatBytes(share.decodedBytes)}</td>
							<td class="number">{share.lastMs === null ? '–' : formatDuration(share.lastMs)}</td>
						</tr>
					{/each}
				</tbody>
			</table>
		</Scroller>
		<p class="small muted">
			{tail.tailMs > 0
				? `The site itself was complete after ${formatDuration(tail.ownMs)}; others kept the page busy for ${formatDuration(tail.tailMs)} more.`
				: 'No third party kept the page busy longer than the site itself.'}
		</p>
	</section>

	<section id="requests" aria-labelledby="requests-title">
		<h2 id="requests-title">Requests</h2>
		<p>{record.requests.length} requests, {formatBytes(record.figures.wire ?? 0)} on the wire, {formatBytes(record.figures.decoded ?? 0)} decoded.</p>
		<RequestTable requests={record.requests} />
	</section>

	<section id="circumstances" aria-labelledby="circumstances-title">
		<h2 id="circumstances-title">Circumstances</h2>
		<dl>
			<dt>Conditions</dt><dd>{data.detail}</dd>
			<dt>Browser</dt><dd>{record.environment.browser}</dd>
			<dt>Machine</dt>
			<dd>
				{record.environment.machineSpeed.before?.toFixed(0) ?? '–'} loops/ms before, {record.environment.machineSpeed.after?.toFixed(0) ?? '–'} after;
				slowed {record.environment.slowdown.toFixed(1)} times to {record.environment.reachedSpeed?.toFixed(0) ?? '–'}
			</dd>
			<dt>Settled</dt><dd>{record.settledMs === null ? '–' : formatDuration(record.settledMs)}{record.capped ? ', at the time cap' : ''}</dd>
			<dt>Score recipe</dt><dd>{record.recipe}</dd>
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
	.seen {
		display: flex;
		gap: 1.6rem;
		flex-wrap: wrap;
	}
	.seen > div {
		flex: 1;
		min-width: 16rem;
	}
	.shot {
		position: relative;
		margin: 0;
		width: 100%;
		border: 1px solid var(--rule);
		overflow: hidden;
	}
	.shot img {
		width: 100%;
		height: 100%;
		display: block;
	}
	.lcp {
		position: absolute;
		border: 3px solid var(--focus);
		box-shadow: 0 0 0 1px #fff;
	}
	.frames {
		list-style: none;
		display: flex;
		gap: 0.6rem;
		padding: 0 0 0.4rem;
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
	ul {
		padding-left: 1.1rem;
		list-style: disc;
	}
	code {
		font-size: 0.86rem;
		overflow-wrap: anywhere;
	}
	h3 {
		margin-top: 0.6rem;
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
