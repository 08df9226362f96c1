<script lang="ts">
	/**
	 * Frames above, requests below, on one time axis; metrics as plumb lines through both; one cursor. The list of
	 * requests is windowed: only the rows in sight are drawn, so that thousands scroll as easily as ten.
	 */
	import { onMount } from 'svelte';
	import { Virtualizer, elementScroll, observeElementOffset, observeElementRect } from '@tanstack/virtual-core';
	import type { CalmRecord, FrameRecord } from '$core/load/record/record';
	import type { OwnerShare } from '$core/load/requests/owners';
	import { kindOf, listRequests, type OwnedRequest, type RequestWish } from '$core/load/requests/requestList';
	import { counted, formatBytes, formatDuration } from '$core/wording/format';
	import BusyBand from './BusyBand.svelte';
	import ChartMenu from './ChartMenu.svelte';
	import FrameStrip from './FrameStrip.svelte';
	import { chosenOf, rowsByOwner, wishFrom, type TimelineRow } from './timelineRows';
	import { frameAt } from '$core/compare/film';
	import { axisMs, CHART_WIDTHS, LABEL_HEIGHT, labelsFor, lastMoment, placeOf } from './timelineLayout';
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
	let wish: RequestWish = $derived(wishFrom(asked));
	let byOwner = $derived(asked.by === 'owner');
	let opened: number | null = $derived(Number(asked.open) || null);
	let folded: string[] = $state([]);
	let cursor: number | null = $state(null);
	let axis: HTMLDivElement | undefined = $state();
	let list: HTMLDivElement | undefined = $state();

	const tell = () => onchange(chosenOf(wish, byOwner, opened));
	function filter(next: RequestWish, isByOwner: boolean) {
		wish = next;
		byOwner = isByOwner;
		tell();
	}

	const end = $derived(
		lastMoment([
			...requests.map((one) => one.endMs ?? one.startMs),
			...[...frames, ...lines].map(({ atMs }) => atMs)
		])
	);
	const frameWidth = $derived(frameRatio > 1 ? 62 : 104);
	const strip = $derived({
		frames,
		frameUrl,
		frameNotes,
		endMs: end,
		width: frameWidth,
		height: Math.min(130, Math.round(frameWidth * frameRatio))
	});
	const [narrow, wide] = $derived([
		labelsFor(lines, CHART_WIDTHS[0]!, end),
		labelsFor(lines, CHART_WIDTHS[1]!, end)
	]);

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

	const csvOfShown = () => csv(new Set(shown.map((request) => request.number)));

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
		const { left, width } = axis!.getBoundingClientRect();
		const at = (event.clientX - left) / width;
		cursor = at < 0 ? null : Math.min(end, at * axisMs(end));
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
	<RequestFilters {wish} {byOwner} {shares} {types} {counts} onchange={filter} />
	<!-- svelte-ignore a11y_no_noninteractive_tabindex, a11y_no_noninteractive_element_interactions -->
	<div
		class="chart"
		style:--head-narrow="{narrow.height}px"
		style:--head-wide="{wide.height}px"
		role="group"
		aria-label="Frames and requests over time. Left and right arrow keys move the cursor."
		tabindex="0"
		onpointermove={onMove}
		onpointerleave={() => (cursor = null)}
		onkeydown={onKey}
	>
		{#if frames.length}<FrameStrip {...strip} />{/if}
		{#if calm?.track.endsMs.length}<BusyBand {calm} words={calmWords} endMs={end} />{/if}
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
							endMs={end}
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
									.name}{row.owner.kind === 'third-party' ? ', third party' : ''}: {counted(
									row.count,
									'request'
								)}, {formatBytes(row.owner.wireBytes)}</span
							>
						</button>
					{/if}
				{/each}
			</div>
		</div>
		<div class="over" bind:this={axis} aria-hidden="true">
			{#each [narrow, wide] as { name, placed } (name)}
				{#each placed as line, i (i)}<i
						class="plumb {name}"
						style:left="{line.place * 100}%"
						style:top="{line.level * LABEL_HEIGHT + 3}px"
						><b class:flip={line.flip}>{line.name} {formatDuration(line.atMs)}</b></i
					>{/each}
			{/each}
			{#if cursor !== null}<i class="cursor" style:left="{placeOf(cursor, end) * 100}%"></i>{/if}
		</div>
	</div>
	<p class="reading figures" aria-live="polite">
		{#if cursor !== null}
			At {formatDuration(cursor)}: {frames.length
				? `${Math.round(frames[frameAt({ frames }, cursor)]!.progress * 100)} % painted, `
				: ''}{counted(underWay(cursor), 'request')} under way.
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
			csv={csvOfShown}
		/>
	</figcaption>
</figure>

<style>
	figure {
		margin: 0;
		container: timeline / inline-size;
	}
	/* The same widths as CHART_WIDTHS. */
	.chart {
		position: relative;
		--left: 226px;
		--right: 82px;
		padding-top: var(--head-wide);
	}
	.plumb.narrow {
		display: none;
	}
	@container timeline (width < 620px) {
		.chart {
			--left: 112px;
			--right: 8px;
			padding-top: var(--head-narrow);
		}
		.plumb.narrow {
			display: block;
		}
		.plumb.wide {
			display: none;
		}
	}
	.over {
		position: absolute;
		inset: 0 var(--right) 0 var(--left);
		pointer-events: none;
	}
	.plumb,
	.cursor {
		position: absolute;
		bottom: 0;
		border-left: 1px dashed var(--focus);
	}
	.cursor {
		top: var(--head-wide);
		border-left: 1.5px solid var(--action);
	}
	.plumb b {
		position: absolute;
		top: -4px;
		left: 4px;
		font-size: var(--type-1);
		line-height: 15px;
		font-style: normal;
		font-variant-numeric: tabular-nums;
		white-space: nowrap;
	}
	.plumb b.flip {
		left: auto;
		right: 4px;
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
	.reading {
		font-size: var(--type-3);
		margin: var(--gap-3) 0;
	}
</style>
