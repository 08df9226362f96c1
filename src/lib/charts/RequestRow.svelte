<script lang="ts">
	/** One request on the time axis. */
	import { hasFailed, kindOf, type OwnedRequest } from '$core/load/requests/requestList';
	import { formatBytes, formatDuration } from '$core/wording/format';
	import { placeOf } from './timelineLayout';

	interface Props {
		request: OwnedRequest;
		/** Place in the list, and from its top, px. */
		index: number;
		start: number;
		isOpen: boolean;
		colour: string;
		/** The last thing that is known of the load, ms. */
		endMs: number;
		onopen: () => void;
		onkeydown: (event: KeyboardEvent) => void;
	}
	let { request: one, index, start, isOpen, colour, endMs, onopen, onkeydown }: Props = $props();
	const stop = $derived(one.endMs ?? endMs);
	const answered = $derived(one.responseMs ?? stop);
	const place = (ms: number) => placeOf(ms, endMs).toFixed(4);
	const weight = $derived.by(() => {
		if (one.fromCache) return 'cache';
		if (one.fromServiceWorker) return 'worker';
		return one.wireBytes === null ? 'unknown' : formatBytes(one.wireBytes);
	});
	const words = $derived.by(() => {
		const until = one.endMs === null ? 'unfinished' : formatDuration(one.endMs);
		const state = `${one.failed ?? one.status ?? 'no answer'}, ${formatDuration(one.startMs)} to ${until}`;
		return `of ${one.owner.name}, ${state}${one.renderBlocking ? ', blocks rendering' : ''}`;
	});

	function fileOf(url: string): string {
		const { pathname, hostname } = new URL(url);
		return pathname.split('/').filter(Boolean).pop() ?? hostname;
	}
</script>

<button
	class="timeline-row"
	class:open={isOpen}
	style:top="{start}px"
	data-row={index}
	aria-expanded={isOpen}
	onclick={onopen}
	{onkeydown}
>
	<span class="label" class:bad={hasFailed(one)}
		><span class="file">{fileOf(one.url)}</span><span class="type"
			>{kindOf(one)}{#if one.renderBlocking}<span aria-hidden="true">&nbsp;▮</span>{/if}{one.during === 'load'
				? ''
				: ' late'}</span
		></span
	>
	<span class="bar wait" style="--from:{place(one.startMs)};--to:{place(answered)};background:{colour}"></span>
	{#if one.responseMs !== null}<span
			class="bar"
			style="--from:{place(answered)};--to:{place(stop)};background:{colour}"
		></span>{/if}
	<span class="visually-hidden">, {words}</span>
	<span class="bytes">{weight}</span>
</button>

<style>
	.timeline-row:hover,
	.timeline-row.open {
		background: var(--wash);
	}
	.timeline-row:focus-visible {
		outline-offset: -2px;
	}
	.label {
		position: absolute;
		left: 0;
		top: 0;
		width: calc(var(--left) - 8px);
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
		font-size: var(--type-1);
		flex: none;
	}
	.bad .file {
		color: var(--worse);
		text-decoration: underline dotted;
	}
	.bar {
		position: absolute;
		--axis: calc(100% - var(--left) - var(--right));
		left: calc(var(--left) + var(--axis) * var(--from));
		width: max(1.5px, calc(var(--axis) * (var(--to) - var(--from))));
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
		font-size: var(--type-2);
	}
	@container timeline (width < 620px) {
		.bytes {
			display: none;
		}
	}
</style>
