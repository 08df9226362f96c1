<script lang="ts">
	/**
	 * Frames above, requests below, on one time axis; metrics as plumb lines through both; one cursor. The list of
	 * requests is windowed: only the rows in sight are drawn, so that thousands scroll as easily as ten.
	 */
	import { onMount } from 'svelte';
	import { scaleLinear } from 'd3-scale';
	import { Virtualizer, elementScroll, observeElementOffset, observeElementRect } from '@tanstack/virtual-core';
	import type { FrameRecord } from '$core/load/record';
	import type { OwnerShare } from '$core/load/owners';
	import {
		EVERYTHING,
		ORDERS,
		SPECIAL,
		hasFailed,
		kindOf,
		listRequests,
		type OwnedRequest,
		type RequestWish
	} from '$core/load/requestList';
	import { formatBytes, formatDuration } from '$core/wording/format';
	import CopyButton from './CopyButton.svelte';
	import type { OwnerColours } from './ownerColour';
	import RequestDetails from './RequestDetails.svelte';

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
		detailsUrl,
		csv,
		asked = {},
		onchange = () => undefined
	}: Props = $props();

	const ROW = 24;
	const BYTES = 82;
	// svelte-ignore state_referenced_locally
	let wish: RequestWish = $state({ ...EVERYTHING, ...pick(asked) });
	// svelte-ignore state_referenced_locally
	let byOwner = $state(asked.by === 'owner');
	// svelte-ignore state_referenced_locally
	let opened: number | null = $state(Number(asked.open) || null);
	let folded: string[] = $state([]);
	let room = $state(900);
	let cursor: number | null = $state(null);
	let list: HTMLDivElement | undefined = $state();

	function pick({ q = '', owner = '', type = '', show = '', order = 'start' }: Record<string, string>): RequestWish {
		return {
			search: q,
			owner,
			type,
			special: show in SPECIAL ? (show as RequestWish['special']) : '',
			order: order in ORDERS ? (order as RequestWish['order']) : 'start'
		};
	}
	function tell() {
		const { search, owner, type, special, order } = wish;
		onchange({
			q: search,
			owner,
			type,
			show: special,
			order: order === 'start' ? '' : order,
			by: byOwner ? 'owner' : '',
			open: opened === null ? '' : String(opened)
		});
	}

	const narrow = $derived(room < 620);
	const left = $derived(narrow ? 112 : 226);
	const right = $derived(narrow ? 8 : BYTES);
	const end = $derived(
		Math.max(
			100,
			...requests.map((one) => one.endMs ?? one.startMs),
			...frames.map((one) => one.atMs),
			...lines.map((one) => one.atMs)
		)
	);
	const x = $derived(scaleLinear([0, end * 1.02], [left, room - right]));
	const frameWidth = $derived(frameRatio > 1 ? 62 : 104);
	const slots = $derived(frames.length ? Math.max(2, Math.floor((room - right - left) / (frameWidth + 6))) : 0);
	const frameAt = (ms: number) =>
		Math.max(
			0,
			frames.findLastIndex((frame) => frame.atMs <= ms)
		);
	const slotWidth = $derived((room - right - left) / Math.max(1, slots));
	/** Each picture ends at the moment that it shows: its right edge stands on the axis. */
	const strip = $derived(
		Array.from({ length: slots }, (_, i) => ({
			at: x.invert(left + (i + 1) * slotWidth),
			x: left + (i + 1) * slotWidth - frameWidth
		}))
	);
	const stripHeight = $derived(frames.length ? Math.min(130, frameWidth * frameRatio) : 0);
	/** What happened since the picture before. */
	const noteOf = (slot: { at: number }, i: number) => {
		const since = strip[i - 1]?.at ?? -1;
		return frameNotes
			.filter(({ frame }) => frames[frame] && frames[frame].atMs > since && frames[frame].atMs <= slot.at)
			.map((note) => note.words);
	};

	/** Labels of lines that stand close together go down a step. */
	const labelled = $derived.by(() => {
		const ends: number[] = [];
		return lines
			.toSorted((a, b) => a.atMs - b.atMs)
			.map((line) => {
				const at = x(line.atMs);
				const size = line.name.length * 6.6 + 52;
				const from = at + size > room ? at - size : at;
				let level = ends.findIndex((taken) => taken < from);
				if (level < 0) level = ends.length;
				ends[level] = from + size;
				return { ...line, at, level, flip: from !== at };
			});
	});
	const headHeight = $derived((Math.max(0, ...labelled.map((line) => line.level)) + 1) * 15 + 4);
	const notesRow = $derived(frameNotes.length ? 15 : 0);
	const top = $derived(headHeight + stripHeight + 24 + notesRow);

	const shown = $derived(listRequests(requests, wish));
	type Row = { owner: OwnerShare; count: number } | { request: OwnedRequest };
	const rows = $derived.by((): Row[] => {
		if (!byOwner) return shown.map((request) => ({ request }));
		return shares.flatMap((owner): Row[] => {
			const own = shown.filter((request) => request.owner.id === owner.id);
			if (!own.length) return [];
			return [{ owner, count: own.length }, ...(folded.includes(owner.id) ? [] : own.map((request) => ({ request })))];
		});
	});
	const listHeight = $derived(Math.min(rows.length, 22) * ROW + 2);
	const types = $derived([...new Set(requests.map(kindOf))].sort());
	const chosen = $derived(opened === null ? null : (requests[opened - 1] ?? null));
	const underWay = (ms: number) => requests.filter((one) => one.startMs <= ms && (one.endMs ?? Infinity) > ms).length;

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
	const visible = $derived(items.length ? items : rows.slice(0, 22).map((_, index) => ({ index, start: index * ROW })));

	function fileOf(url: string): string {
		const { pathname, hostname } = new URL(url);
		return pathname.split('/').filter(Boolean).pop() ?? hostname;
	}
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
	const wordsOf = (one: OwnedRequest) =>
		`of ${one.owner.name}, ${one.failed ?? one.status ?? 'no answer'}, ${formatDuration(one.startMs)} to ${one.endMs === null ? 'unfinished' : formatDuration(one.endMs)}${one.renderBlocking ? ', blocks rendering' : ''}`;
</script>

<figure>
	<div class="filters no-print">
		<label
			>Search <input
				type="search"
				bind:value={wish.search}
				oninput={tell}
				data-key="/"
				placeholder="Address, type, status"
			/></label
		>
		<label
			>Owner <select bind:value={wish.owner} onchange={tell}
				><option value="">All</option>{#each shares as share (share.id)}<option value={share.id}>{share.name}</option
					>{/each}</select
			></label
		>
		<label
			>Type <select bind:value={wish.type} onchange={tell}
				><option value="">All</option>{#each types as type (type)}<option value={type}>{type}</option>{/each}</select
			></label
		>
		<label
			>Show <select bind:value={wish.special} onchange={tell}
				><option value="">All</option>{#each Object.entries(SPECIAL) as [id, name] (id)}<option value={id}
						>{name}</option
					>{/each}</select
			></label
		>
		<label
			>Order <select bind:value={wish.order} onchange={tell}
				>{#each Object.entries(ORDERS) as [id, name] (id)}<option value={id}>{name}</option>{/each}</select
			></label
		>
		<label class="tick-box"><input type="checkbox" bind:checked={byOwner} onchange={tell} /> By owner</label>
		<span class="muted figures" aria-live="polite">{shown.length} of {requests.length}</span>
	</div>
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
		<svg width={room} height={top} viewBox="0 0 {room} {top}" aria-hidden="true">
			{#each strip as slot, i (slot.x)}
				<image
					href={frameUrl(frameAt(slot.at))}
					x={slot.x}
					y={headHeight}
					width={frameWidth}
					height={stripHeight}
					preserveAspectRatio="xMidYMin slice"
				/>
				<rect
					x={slot.x}
					y={headHeight}
					width={frameWidth}
					height={stripHeight}
					class="frame"
					class:noted={noteOf(slot, i).length}
				/>
				<text x={slot.x + frameWidth} y={headHeight + stripHeight + 13} text-anchor="end" class="tick"
					>{formatDuration(slot.at)}</text
				>
				{#if noteOf(slot, i).length}<text
						x={slot.x + frameWidth}
						y={headHeight + stripHeight + 27}
						text-anchor="end"
						class="note">{[...new Set(noteOf(slot, i))].join(', ').slice(0, Math.floor(slotWidth / 6))}</text
					>{/if}
			{/each}
			{#if !strip.length}{#each x.ticks(6) as tick (tick)}<text x={x(tick)} y={top - 6} class="tick"
						>{formatDuration(tick)}</text
					>{/each}{/if}
		</svg>
		<div class="list" bind:this={list} style:height="{listHeight}px" data-testid="requests">
			<div class="rows" style:height="{rows.length * ROW}px">
				{#each visible as item (item.index)}
					{@const row = rows[item.index]}
					{#if row && 'request' in row}
						{@const one = row.request}
						{@const stop = one.endMs ?? end}
						{@const colour = colours(one.owner.id, one.owner.kind)}
						<button
							class="row"
							class:open={opened === one.number}
							style:top="{item.start}px"
							data-row={item.index}
							aria-expanded={opened === one.number}
							onclick={() => open(one.number)}
							onkeydown={(event) => onRowKey(event, item.index)}
						>
							<span class="label" class:bad={hasFailed(one)} style:width="{left - 8}px"
								><span class="file">{fileOf(one.url)}</span><span class="type"
									>{kindOf(one)}{#if one.renderBlocking}<span aria-hidden="true"> ▮</span>{/if}{one.during === 'load'
										? ''
										: ' late'}</span
								></span
							>
							<span
								class="bar wait"
								style:left="{x(one.startMs)}px"
								style:width="{Math.max(1.5, x(one.responseMs ?? stop) - x(one.startMs))}px"
								style:background={colour}
							></span>
							{#if one.responseMs !== null}<span
									class="bar"
									style:left="{x(one.responseMs)}px"
									style:width="{Math.max(1.5, x(stop) - x(one.responseMs))}px"
									style:background={colour}
								></span>{/if}
							<span class="visually-hidden">, {wordsOf(one)}</span>
							{#if !narrow}<span class="bytes"
									>{one.fromCache
										? 'cache'
										: one.fromServiceWorker
											? 'worker'
											: one.wireBytes === null
												? 'unknown'
												: formatBytes(one.wireBytes)}</span
								>{/if}
						</button>
					{:else if row && 'owner' in row}
						<button
							class="row owner-row"
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
								<i class="swatch" style:background={colours(row.owner.id, row.owner.kind)}></i>{row.owner.name}{row
									.owner.kind === 'third-party'
									? ', third party'
									: ''}: {row.count} requests, {formatBytes(row.owner.wireBytes)}</span
							>
						</button>
					{/if}
				{/each}
			</div>
		</div>
		<svg class="over" width={room} height={top + listHeight} viewBox="0 0 {room} {top + listHeight}" aria-hidden="true">
			{#each labelled as line (line.name)}
				<line x1={line.at} x2={line.at} y1={line.level * 15 + 3} y2={top + listHeight} class="plumb" />
				<text
					x={line.at + (line.flip ? -4 : 4)}
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
				? `${Math.round(frames[frameAt(cursor)]!.progress * 100)} % painted, `
				: ''}{underWay(cursor)} requests under way.
		{:else}Move over the chart, or use the arrow keys, to read it at a moment; a row opens to its details.{/if}
	</p>
	{#if chosen}{#key chosen.number}<RequestDetails
				listed={chosen}
				detailsUrl={detailsUrl(chosen.number)}
				colour={colours(chosen.owner.id, chosen.owner.kind)}
				onclose={() => open(chosen.number)}
			/>{/key}{/if}
	<ul class="owners">
		{#each shares as share (share.id)}
			<li>
				<i class="swatch" style:background={colours(share.id, share.kind)}></i>{share.name}
				<span class="muted"
					>{share.requests} {share.requests === 1 ? 'request' : 'requests'}, {formatBytes(share.wireBytes)}</span
				>
			</li>
		{/each}
	</ul>
	<figcaption>
		Pale is waiting, full is receiving; colours tell whose a request is; ▮ blocks rendering. <CopyButton
			label="Copy these requests as CSV"
			text={() => csv(new Set(shown.map((one) => one.number)))}
			file="requests.csv"
		/>
	</figcaption>
</figure>

<style>
	figure {
		margin: 0;
	}
	.filters {
		display: flex;
		flex-wrap: wrap;
		gap: 0.5rem 0.9rem;
		align-items: end;
		margin-bottom: 0.5rem;
		font-size: 0.86rem;
	}
	.filters label {
		display: grid;
		color: var(--muted);
	}
	.filters .tick-box {
		display: flex;
		gap: 0.35rem;
		align-items: center;
		padding-bottom: 0.25rem;
	}
	.filters input[type='search'],
	.filters select {
		background: var(--panel);
		color: var(--ink);
		border: 1px solid var(--rule);
		padding: 0.25rem 0.4rem;
		max-width: 11.5rem;
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
	.row {
		position: absolute;
		left: 0;
		width: 100%;
		height: 24px;
		border: 0;
		padding: 0;
		background: none;
		color: var(--ink);
		cursor: pointer;
		text-align: left;
		font-size: 12.5px;
		contain: layout style;
	}
	.row:hover,
	.row.open {
		background: var(--wash);
	}
	.row:focus-visible {
		outline-offset: -2px;
	}
	.label {
		position: absolute;
		left: 0;
		top: 0;
		display: flex;
		gap: 6px;
		justify-content: flex-end;
		line-height: 24px;
	}
	.file {
		overflow: hidden;
		text-overflow: ellipsis;
		white-space: nowrap;
	}
	.type {
		color: var(--muted);
		font-size: 11px;
		flex: none;
	}
	.bad .file {
		color: var(--worse);
		text-decoration: underline dotted;
	}
	.bar {
		position: absolute;
		top: 6px;
		height: 12px;
	}
	.wait {
		opacity: 0.3;
	}
	.bytes {
		position: absolute;
		right: 4px;
		top: 0;
		line-height: 24px;
		font-variant-numeric: tabular-nums;
		color: var(--muted);
		font-size: 12px;
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
	.tick,
	.note {
		font-size: 11px;
		fill: var(--muted);
	}
	.note {
		fill: var(--ink);
		font-weight: 600;
	}
	.frame {
		fill: none;
		stroke: var(--rule);
	}
	.frame.noted {
		stroke: var(--focus);
		stroke-width: 2;
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
	figcaption {
		font-size: 0.88rem;
		color: var(--muted);
	}
</style>
