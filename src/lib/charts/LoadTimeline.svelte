<script lang="ts">
	/** Frames above, requests below, on one time axis; metrics as plumb lines through both; one cursor. */
	import { scaleLinear } from 'd3-scale';
	import type { FrameRecord, RequestRecord } from '../../core/load/record';
	import { ownerOf, type OwnerShare } from '../../core/load/owners';
	import { formatBytes, formatDuration } from '../../core/wording/format';

	interface Props {
		requests: RequestRecord[];
		frames: FrameRecord[];
		/** Address of the picture of frame i, from 0. */
		frameUrl: (index: number) => string;
		/** Height of a frame by its width. */
		frameRatio: number;
		lines: { name: string; atMs: number }[];
		shares: OwnerShare[];
		siteHost: string;
	}
	let { requests, frames, frameUrl, frameRatio, lines, shares, siteHost }: Props = $props();

	const LABEL = 210;
	const RIGHT = 14;
	const ROW = 19;
	const MOST_ROWS = 80;
	let room = $state(900);
	let showAll = $state(false);
	let cursor: number | null = $state(null);

	const width = $derived(Math.max(360, room));
	const left = $derived(width < 620 ? 96 : LABEL);
	const end = $derived(Math.max(100, ...requests.map((one) => one.endMs ?? one.startMs), ...frames.map((one) => one.atMs), ...lines.map((one) => one.atMs)));
	const x = $derived(scaleLinear([0, end * 1.02], [left, width - RIGHT]));
	const frameWidth = $derived(frameRatio > 1 ? 62 : 104);
	const slots = $derived(frames.length ? Math.max(2, Math.floor((width - RIGHT - left) / (frameWidth + 6))) : 0);
	const frameAt = (ms: number) => Math.max(0, frames.findLastIndex((frame) => frame.atMs <= ms));
	const strip = $derived(Array.from({ length: slots }, (_, i) => ({ at: x.invert(left + i * ((width - RIGHT - left) / slots)), x: left + i * ((width - RIGHT - left) / slots) })));
	const stripHeight = $derived(frames.length ? Math.min(130, frameWidth * frameRatio) : 0);

	/** Labels of lines that stand close together go down a step. */
	const labelled = $derived.by(() => {
		const ends: number[] = [];
		return lines.toSorted((a, b) => a.atMs - b.atMs).map((line) => {
			const at = x(line.atMs);
			const size = line.name.length * 6.6 + 52;
			const from = at + size > width ? at - size : at;
			let level = ends.findIndex((taken) => taken < from);
			if (level < 0) level = ends.length;
			ends[level] = from + size;
			return { ...line, at, level, flip: from !== at };
		});
	});
	const headHeight = $derived((Math.max(0, ...labelled.map((line) => line.level)) + 1) * 15 + 4);
	const top = $derived(headHeight + stripHeight + 26);
	const shown = $derived(showAll ? requests : requests.slice(0, MOST_ROWS));
	const height = $derived(top + shown.length * ROW + 6);

	const thirds = $derived(shares.filter((share) => share.kind === 'third-party').map((share) => share.id));
	function colourOf(id: string, kind: string): string {
		if (kind === 'own') return 'var(--ink)';
		if (kind === 'own-cdn') return 'var(--muted)';
		return `var(--arm-${(thirds.indexOf(id) % 7) + 1})`;
	}
	const TYPES: Record<string, string> = { document: 'html', stylesheet: 'css', script: 'js', image: 'img', font: 'font', fetch: 'data', xhr: 'data', ping: 'ping', media: 'media' };
	function fileOf(url: string): string {
		const { pathname, hostname } = new URL(url);
		const name = pathname.split('/').pop() || hostname;
		const most = left === LABEL ? 24 : 9;
		return name.length > most ? `${name.slice(0, most - 1)}…` : name;
	}
	const underWay = (ms: number) => requests.filter((one) => one.startMs <= ms && (one.endMs ?? Infinity) > ms).length;

	function onMove(event: PointerEvent) {
		const box = (event.currentTarget as SVGElement).getBoundingClientRect();
		const at = ((event.clientX - box.left) / box.width) * width;
		cursor = at < left ? null : Math.max(0, Math.min(end, x.invert(at)));
	}
	function onKey(event: KeyboardEvent) {
		const step = { ArrowRight: 0.01, ArrowLeft: -0.01 }[event.key];
		if (step === undefined) return;
		event.preventDefault();
		cursor = Math.max(0, Math.min(end, (cursor ?? 0) + step * end * (event.shiftKey ? 5 : 1)));
	}
</script>

<figure bind:clientWidth={room}>
	<!-- svelte-ignore a11y_no_noninteractive_tabindex, a11y_no_noninteractive_element_interactions -->
	<svg
		{width}
		{height}
		viewBox="0 0 {width} {height}"
		role="group"
		aria-label="Frames and requests over time. Arrow keys move the cursor."
		tabindex="0"
		onpointermove={onMove}
		onpointerleave={() => (cursor = null)}
		onkeydown={onKey}
	>
		{#each strip as slot (slot.x)}
			<image href={frameUrl(frameAt(slot.at))} x={slot.x} y={headHeight} width={frameWidth} height={stripHeight} preserveAspectRatio="xMidYMin slice" />
			<rect x={slot.x} y={headHeight} width={frameWidth} height={stripHeight} class="frame" />
			<text x={slot.x} y={headHeight + stripHeight + 13} class="tick">{formatDuration(slot.at)}</text>
		{/each}
		{#each shown as request, i (request.id)}
			{@const owner = ownerOf(request.host, siteHost)}
			{@const y = top + i * ROW}
			{@const stop = request.endMs ?? end}
			<g>
				<title>{request.url}, {formatBytes(request.wireBytes)}, {formatDuration(request.startMs)} to {request.endMs === null ? 'unfinished' : formatDuration(request.endMs)}</title>
				<text x={left - 8} y={y + 13} text-anchor="end" class="file" class:bad={request.failed !== null}>{fileOf(request.url)}<tspan class="type" dx="5">{TYPES[request.type] ?? request.type}</tspan></text>
				<rect x={x(request.startMs)} y={y + 3} width={Math.max(1.5, x(request.responseMs ?? stop) - x(request.startMs))} height={ROW - 7} fill={colourOf(owner.id, owner.kind)} opacity="0.3" />
				{#if request.responseMs !== null}
					<rect x={x(request.responseMs)} y={y + 3} width={Math.max(1.5, x(stop) - x(request.responseMs))} height={ROW - 7} fill={colourOf(owner.id, owner.kind)} />
				{/if}
			</g>
		{/each}
		{#each labelled as line (line.name)}
			<line x1={line.at} x2={line.at} y1={line.level * 15 + 3} y2={height} class="plumb" />
			<text x={line.at + (line.flip ? -4 : 4)} y={line.level * 15 + 12} text-anchor={line.flip ? 'end' : 'start'} class="metric">{line.name} {formatDuration(line.atMs)}</text>
		{/each}
		{#if cursor !== null}<line x1={x(cursor)} x2={x(cursor)} y1={headHeight} y2={height} class="cursor" />{/if}
	</svg>
	<p class="reading figures" aria-live="polite">
		{#if cursor !== null}
			At {formatDuration(cursor)}: {frames.length ? `${Math.round(frames[frameAt(cursor)]!.progress * 100)} % painted, ` : ''}{underWay(cursor)} requests under way.
		{:else}Move over the chart, or use the arrow keys, to read it at a moment.{/if}
	</p>
	<ul class="owners">
		{#each shares as share (share.id)}
			<li><i style:background={colourOf(share.id, share.kind)}></i>{share.name} <span class="muted">{share.requests} requests, {formatBytes(share.wireBytes)}</span></li>
		{/each}
	</ul>
	{#if requests.length > MOST_ROWS}<button onclick={() => (showAll = !showAll)}>{showAll ? `Show the first ${MOST_ROWS}` : `Show all ${requests.length} requests`}</button>{/if}
	<figcaption>Pale is waiting, full is receiving; colours tell whose a request is.</figcaption>
</figure>

<style>
	figure {
		margin: 0;
	}
	svg {
		display: block;
		max-width: 100%;
	}
	text {
		font-family: var(--sans);
		font-variant-numeric: tabular-nums;
		fill: var(--ink);
	}
	.tick {
		font-size: 11px;
		fill: var(--muted);
	}
	.file {
		font-size: 12px;
	}
	.type {
		font-size: 10px;
		fill: var(--muted);
	}
	.bad {
		fill: var(--worse);
	}
	.frame {
		fill: none;
		stroke: var(--rule);
	}
	.plumb {
		stroke: var(--focus);
		stroke-dasharray: 3 2;
	}
	.metric {
		font-size: 11.5px;
		font-weight: 600;
	}
	.cursor {
		stroke: var(--action);
		stroke-width: 1.5;
	}
	.reading {
		font-size: 0.88rem;
		margin: 0.3rem 0;
	}
	.owners {
		list-style: none;
		display: flex;
		flex-wrap: wrap;
		gap: 0.2rem 1.2rem;
		padding: 0;
		margin: 0.3rem 0;
		font-size: 0.88rem;
	}
	.owners i {
		display: inline-block;
		width: 0.7rem;
		height: 0.7rem;
		margin-right: 0.4rem;
	}
	button {
		background: none;
		border: 1px solid var(--rule);
		color: var(--action);
		padding: 0.2rem 0.7rem;
		cursor: pointer;
	}
	figcaption {
		font-size: 0.88rem;
		color: var(--muted);
	}
</style>
