<script lang="ts">
	import Scroller from '$lib/parts/Scroller.svelte';
	import type { RequestRecord } from '../../../core/load/record';
	import { formatBytes, formatDuration } from '../../../core/wording/format';

	let { requests }: { requests: RequestRecord[] } = $props();
	let query = $state('');
	let by: 'startMs' | 'wireBytes' | 'time' = $state('startMs');
	const timeOf = (request: RequestRecord) => (request.endMs === null ? Infinity : request.endMs - request.startMs);
	const shown = $derived(
		requests
			.filter((request) => `${request.url} ${request.type} ${request.status}`.toLowerCase().includes(query.trim().toLowerCase()))
			.toSorted((a, b) => (by === 'startMs' ? a.startMs - b.startMs : by === 'wireBytes' ? b.wireBytes - a.wireBytes : timeOf(b) - timeOf(a)))
	);
	const tail = (url: string) => {
		const { pathname, search } = new URL(url);
		return pathname.split('/').pop() + search || pathname;
	};
</script>

<div class="filters no-print">
	<label>Search <input type="search" bind:value={query} data-key="/" placeholder="Address, type, status" /></label>
	<label>Order <select bind:value={by}><option value="startMs">by start</option><option value="wireBytes">largest first</option><option value="time">longest first</option></select></label>
	<span class="muted figures">{shown.length} of {requests.length}</span>
</div>
<Scroller label="Table of requests">
	<table class="ledger">
		<thead>
			<tr>
				<th scope="col">File</th><th scope="col">Host</th><th scope="col">Type</th><th scope="col" class="number">Status</th>
				<th scope="col" class="number">Start</th><th scope="col" class="number">First byte</th><th scope="col" class="number">End</th>
				<th scope="col" class="number">On the wire</th><th scope="col" class="number">Decoded</th><th scope="col">Asked for by</th>
			</tr>
		</thead>
		<tbody>
			{#each shown as request (request.id)}
				<tr class:bad={request.failed !== null || (request.status ?? 0) >= 400}>
					<td class="file" title={request.url}>{tail(request.url)}</td>
					<td class="host">{request.host}</td>
					<td>{request.type}{request.renderBlocking ? ', blocks rendering' : ''}</td>
					<td class="number">{request.failed ?? request.status ?? '–'}{request.fromCache ? ' (cache)' : ''}</td>
					<td class="number">{formatDuration(request.startMs)}</td>
					<td class="number">{request.responseMs === null ? '–' : formatDuration(request.responseMs)}</td>
					<td class="number">{request.endMs === null ? 'unfinished' : formatDuration(request.endMs)}</td>
					<td class="number">{formatBytes(request.wireBytes)}</td>
					<td class="number">{formatBytes(request.decodedBytes)}</td>
					<td class="file" title={request.initiatorUrl ?? ''}>{request.initiatorType}{request.initiatorUrl ? `: ${tail(request.initiatorUrl)}` : ''}</td>
				</tr>
			{/each}
		</tbody>
	</table>
</Scroller>

<style>
	.filters {
		display: flex;
		gap: 1.2rem;
		align-items: baseline;
		flex-wrap: wrap;
		margin-bottom: 0.5rem;
		font-size: 0.9rem;
	}
	input,
	select {
		background: var(--panel);
		color: var(--ink);
		border: 1px solid var(--rule);
		padding: 0.25rem 0.4rem;
	}
	table {
		font-size: 0.86rem;
	}
	.file {
		max-width: 15rem;
		overflow: hidden;
		text-overflow: ellipsis;
		white-space: nowrap;
	}
	.host {
		white-space: nowrap;
	}
	.bad td {
		color: var(--worse);
	}
</style>
