<script lang="ts">
	/**
	 * Frames above, requests below, on one time axis; metrics as plumb lines through both; one cursor. The list of
	 * requests is windowed: only the rows in sight are drawn, so that thousands scroll as easily as ten.
	 */
	import { onMount } from 'svelte';
	import { scaleLinear } from 'd3-scale';
	import { Virtualizer, elementScroll, observeElementOffset, observeElementRect } from '@tanstack/virtual-core';
	import type { CalmRecord, FrameRecord } from '$core/load/record';
	import type { OwnerShare } from '$core/load/owners';
	import { kindOf, listRequests, type OwnedRequest, type RequestWish } from '$core/load/requestList';
	import { formatBytes, formatDuration } from '$core/wording/format';
	import BusyBand from './BusyBand.svelte';
	import ChartMenu from './ChartMenu.svelte';
	import FrameStrip from './FrameStrip.svelte';
	import { chosenOf, rowsByOwner, wishFrom, type TimelineRow } from './timelineRows';
	import { frameAt, lastMoment, placeLines, stripSlots } from './timelineLayout';
	import type { OwnerColours } from './ownerColour';
	import OwnersLegend from './OwnersLegend.svelte';
	import RequestDetails from './RequestDetails.svelte';
	import RequestFilters from './RequestFilters.svelte';
	import RequestRow from './RequestRow.svelte';

	interface Props {
		requests: OwnedRequest[];
		frames: FrameRecord[];
		/** Address of the picture of frame i, from 0. */
		frameUrl: (index: number) => string;
		/** Height of a frame by its width. */
		frameRatio: number;
		lines: { name: string; atMs: number }[];
		shares: OwnerShare[];
		colours: OwnerColours;
		/** Frames that hold something worth a word: LCP, shifts. */
		frameNotes?: { frame: number; words: string }[];
		/** The machine beside the load, where it is known. */
		calm?: CalmRecord | null;
		/** The same in a sentence. */
		calmWords?: string;
		/** Where the rest of what is known of a request is. */
		detailsUrl: (number: number) => string;
		csv: (numbers: ReadonlySet<number>) => Promise<string>;
		asked?: Record<string, string>;
		onchange?: (values: Record<string, string>) => void;
	}
	let {
		requests,
		frames,
		frameUrl,
		frameRatio,
		lines,
		shares,
		colours,
		frameNotes = [],
		calm = null,
		calmWords = '',
		detailsUrl,
		csv,
		asked = {},
		onchange = () => undefined
	}: Props = $props();

	const ROW = 24;
	const BYTES = 82;
	// svelte-ignore state_referenced_locally
	let wish: RequestWish = $state.raw(wishFrom(asked));
	// svelte-ignore state_referenced_locally
	let byOwner = $state(asked.by === 'owner');
	// svelte-ignore state_referenced_locally
	let opened: number | null = $state(Number(asked.open) || null);
	let folded: string[] = $state([]);
	let room = $state(900);
	let cursor: number | null = $state(null);
	let list: HTMLDivElement | undefined = $state();

	const tell = () => onchange(chosenOf(wish, byOwner, opened));
	function filter(next: RequestWish, isByOwner: boolean) {
		wish = next;
		byOwner = isByOwner;
		tell();
	}

	const narrow = $derived(room < 620);
	const left = $derived(narrow ? 112 : 226);
	const right = $derived(narrow ? 8 : BYTES);
	const end = $derived(
		lastMoment([
			...requests.map((one) => one.endMs ?? one.startMs),
			...[...frames, ...lines].map(({ atMs }) => atMs)
		])
	);
	const x = $derived(scaleLinear([0, end * 1.02], [left, room - right]));
	const frameWidth = $derived(frameRatio > 1 ? 62 : 104);
	const strip = $derived(frames.length ? stripSlots(x, left, room - right, frameWidth) : []);
	const slotWidth = $derived((room - right - left) / Math.max(1, strip.length));
	const stripHeight = $derived(frames.length ? Math.min(130, frameWidth * frameRatio) : 0);
	const labelled = $derived(placeLines(lines, x, room));
	const headHeight = $derived((Math.max(0, ...labelled.map((line) => line.level)) + 1) * 15 + 4);
	const notesRow = $derived(frameNotes.length ? 15 : 0);
	const top = $derived(headHeight + stripHeight + 24 + notesRow);

	const shown = $derived(listRequests(requests, wish));
	const rows: TimelineRow[] = $derived(
		byOwner ? rowsByOwner(shown, shares, folded) : shown.map((request) => ({ request }))
	);
	const listHeight = $derived(Math.min(rows.length, 22) * ROW + 2);
	const counts = $derived({ shown: shown.length, all: requests.length });
	const types = $derived([...new Set(requests.map(kindOf))].sort());
	const chosen = $derived(opened === null ? null : (requests[opened - 1] ?? null));
	const underWay = (ms: number) =>
		requests.filter((one) => one.startMs <= ms && (one.endMs ?? Infinity) > ms).length;

	let items: { index: number; start: number }[] = $state([]);
	let virtual: Virtualizer<HTMLDivElement, Element> | undefined;
	onMount(() => {
		virtual = new Virtualizer<HTMLDivElement, Element>({
			count: rows.length,
			getScrollElement: () => list ?? null,
			estimateSize: () => ROW,
			overscan: 12,
			scrollToFn: elementScroll,
			observeElementRect,
			observeElementOffset,
			onChange: (one) => (items = one.getVirtualItems().map(({ index, start }) => ({ index, start })))
		});
		const stop = virtual._didMount();
		virtual._willUpdate();
		items = virtual.getVirtualItems().map(({ index, start }) => ({ index, start }));
		return stop;
	});
	$effect(() => {
		const count = rows.length;
		if (!virtual) return;
		virtual.setOptions({ ...virtual.options, count });
		virtual._willUpdate();
		items = virtual.getVirtualItems().map(({ index, start }) => ({ index, start }));
	});
	/** Before scripts run, and where nothing is windowed yet, the first rows stand there as they are. */
	const visible = $derived(
		items.length ? items : rows.slice(0, 22).map((_, index) => ({ index, start: index * ROW }))
	);

	function onMove(event: PointerEvent) {
		const box = (event.currentTarget as HTMLElement).getBoundingClientRect();
		const at = event.clientX - box.left;
		cursor = at < left ? null : Math.max(0, Math.min(end, x.invert(at)));
	}
	function onKey(event: KeyboardEvent) {
		const step = { ArrowRight: 0.01, ArrowLeft: -0.01 }[event.key];
		if (step === undefined) return;
		event.preventDefault();
		cursor = Math.max(0, Math.min(end, (cursor ?? 0) + step * end * (event.shiftKey ? 5 : 1)));
	}
	/** Up and down go from row to row, beyond the rows in sight too. */
	function onRowKey(event: KeyboardEvent, index: number) {
		const by = { ArrowDown: 1, ArrowUp: -1, PageDown: 15, PageUp: -15 }[event.key];
		if (by === undefined) return;
		event.preventDefault();
		const to = Math.max(0, Math.min(rows.length - 1, index + by));
		virtual?.scrollToIndex(to);
		requestAnimationFrame(() =>
			requestAnimationFrame(() => list?.querySelector<HTMLElement>(`[data-row="${to}"]`)?.focus())
		);
	}
	function open(number: number) {
		opened = opened === number ? null : number;
		tell();
	}
</script>

<figure>
	<RequestFilters {wish} {asked} {byOwner} {shares} {types} {counts} onchange={filter} />
	<!-- svelte-ignore a11y_no_noninteractive_tabindex, a11y_no_noninteractive_element_interactions -->
	<div
		class="chart"
		bind:clientWidth={room}
		role="group"
		aria-label="Frames and requests over time. Left and right arrow keys move the cursor."
		tabindex="0"
		onpointermove={onMove}
		onpointerleave={() => (cursor = null)}
		onkeydown={onKey}
	>
		<FrameStrip
			{frames}
			{frameUrl}
			{frameNotes}
			{strip}
			{x}
			{room}
			{top}
			{headHeight}
			{stripHeight}
			{frameWidth}
			{slotWidth}
		/>
		{#if calm?.track.endsMs.length}<BusyBand {calm} words={calmWords} {x} {room} {left} />{/if}
		<div class="list" bind:this={list} style:height="{listHeight}px" data-testid="requests">
			<div class="rows" style:height="{rows.length * ROW}px">
				{#each visible as item (item.index)}
					{@const row = rows[item.index]}
					{#if row && 'request' in row}
						{@const { number, owner } = row.request}
						<RequestRow
							request={row.request}
							index={item.index}
							start={item.start}
							isOpen={opened === number}
							colour={colours(owner.id, owner.kind)}
							{left}
							{narrow}
							{end}
							{x}
							onopen={() => open(number)}
							onkeydown={(event) => onRowKey(event, item.index)}
						/>
					{:else if row && 'owner' in row}
						<button
							class="timeline-row owner-row"
							style:top="{item.start}px"
							data-row={item.index}
							aria-expanded={!folded.includes(row.owner.id)}
							onclick={() =>
								(folded = folded.includes(row.owner.id)
									? folded.filter((id) => id !== row.owner.id)
									: [...folded, row.owner.id])}
							onkeydown={(event) => onRowKey(event, item.index)}
						>
							<span
								>{folded.includes(row.owner.id) ? '▸' : '▾'}
								<i class="swatch" style:background={colours(row.owner.id, row.owner.kind)}></i>{row.owner
									.name}{row.owner.kind === 'third-party' ? ', third party' : ''}: {row.count} requests, {formatBytes(
									row.owner.wireBytes
								)}</span
							>
						</button>
					{/if}
				{/each}
			</div>
		</div>
		<svg
			class="over"
			width={room}
			height={top + listHeight}
			viewBox="0 0 {room} {top + listHeight}"
			aria-hidden="true"
		>
			{#each labelled as line, i (i)}
				<line x1={line.x} x2={line.x} y1={line.level * 15 + 3} y2={top + listHeight} class="plumb" />
				<text
					x={line.x + (line.flip ? -4 : 4)}
					y={line.level * 15 + 12}
					text-anchor={line.flip ? 'end' : 'start'}
					class="metric">{line.name} {formatDuration(line.atMs)}</text
				>
			{/each}
			{#if cursor !== null}<line
					x1={x(cursor)}
					x2={x(cursor)}
					y1={headHeight}
					y2={top + listHeight}
					class="cursor"
				/>{/if}
		</svg>
	</div>
	<p class="reading figures" aria-live="polite">
		{#if cursor !== null}
			At {formatDuration(cursor)}: {frames.length
				? `${Math.round(frames[frameAt(frames, cursor)]!.progress * 100)} % painted, `
				: ''}{underWay(cursor)} requests under way.
		{:else}Move over the chart, or use the arrow keys, to read it at a moment; a row opens to its details.{/if}
	</p>
	{#if chosen}{#key chosen.number}<RequestDetails
				listed={chosen}
				detailsUrl={detailsUrl(chosen.number)}
				colour={colours(chosen.owner.id, chosen.owner.kind)}
				onclose={() => open(chosen.number)}
			/>{/key}{/if}
	<OwnersLegend {shares} {colours} />
	<figcaption>
		Pale is waiting, full is receiving; colours tell the owner; ▮ blocks rendering. <ChartMenu
			name="requests"
			csv={() => csv(new Set(shown.map((request) => request.number)))}
		/>
	</figcaption>
</figure>

<style>
	figure {
		margin: 0;
	}
	.chart {
		position: relative;
	}
	.chart > svg {
		max-width: 100%;
		display: block;
	}
	.over {
		position: absolute;
		left: 0;
		top: 0;
		pointer-events: none;
	}
	.list {
		overflow-y: auto;
		overflow-x: hidden;
		contain: strict;
		border-top: 1px solid var(--rule);
		border-bottom: 1px solid var(--rule);
	}
	.rows {
		position: relative;
	}
	.owner-row {
		background: var(--paper);
		font-weight: 600;
		z-index: 1;
	}
	text {
		font-family: var(--sans);
		font-variant-numeric: tabular-nums;
		fill: var(--ink);
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
	figcaption {
		font-size: 0.88rem;
		color: var(--muted);
	}
</style>
