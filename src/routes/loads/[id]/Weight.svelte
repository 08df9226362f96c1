<script lang="ts">
	/** Bytes by owner and by kind of file, with what this page never used. */
	import Scroller from '$lib/parts/Scroller.svelte';
	import CopyButton from '$lib/charts/CopyButton.svelte';
	import { csvOf } from '$core/formats/csv';
	import { thirdPartyTail, type OwnerShare } from '$core/load/owners';
	import { sharesByKind, type OwnedRequest } from '$core/load/requestList';
	import { formatBytes, formatDuration } from '$core/wording/format';
	import type { OwnerColours } from '$lib/charts/ownerColour';

	interface Props {
		requests: OwnedRequest[];
		shares: OwnerShare[];
		colours: OwnerColours;
	}
	let { requests, shares, colours }: Props = $props();
	const tail = $derived(thirdPartyTail(shares));
	const kinds = $derived(sharesByKind(requests));
	const most = $derived(Math.max(1, ...shares.map((share) => share.wireBytes)));
	const mostKind = $derived(Math.max(1, ...kinds.map((share) => share.wireBytes)));
	const unknown = $derived(requests.filter((one) => one.wireBytes === null).length);
	const csv = () =>
		csvOf(
			['owner', 'kind', 'requests', 'wire', 'decoded', 'unused', 'first', 'last'],
			shares.map((one) => [
				one.name,
				one.kind,
				one.requests,
				one.wireBytes,
				one.decodedBytes,
				one.unusedBytes,
				one.firstMs,
				one.lastMs
			])
		);
</script>

<Scroller label="Weight by owner">
	<table class="ledger">
		<thead
			><tr
				><th scope="col">Whose</th><th scope="col" class="number">Requests</th><th scope="col" class="number"
					>On the wire</th
				><th scope="col" aria-hidden="true"></th><th scope="col" class="number">Decoded</th><th
					scope="col"
					class="number">Never used</th
				><th scope="col" class="number">First</th><th scope="col" class="number">Last</th></tr
			></thead
		>
		<tbody>
			{#each shares as share (share.id)}
				<tr>
					<th scope="row">{share.name}{share.kind === 'third-party' ? ', third party' : ''}</th>
					<td class="number">{share.requests}</td>
					<td class="number">{formatBytes(share.wireBytes)}</td>
					<td class="track" aria-hidden="true"
						><span
							style:width="{(share.wireBytes / most) * 100}%"
							style:background={colours(share.id, share.kind)}
						></span></td
					>
					<td class="number">{formatBytes(share.decodedBytes)}</td>
					<td class="number">{share.unusedBytes ? formatBytes(share.unusedBytes) : '–'}</td>
					<td class="number">{formatDuration(share.firstMs)}</td>
					<td class="number">{share.lastMs === null ? '–' : formatDuration(share.lastMs)}</td>
				</tr>
			{/each}
		</tbody>
	</table>
</Scroller>
<p class="small">
	{tail.tailMs > 0
		? `The site itself was complete after ${formatDuration(tail.ownMs)}; others kept the page busy for ${formatDuration(tail.tailMs)} more.`
		: 'No third party kept the page busy longer than the site itself.'}
	{unknown ? ` The size of ${unknown} requests is unknown.` : ''}
	<CopyButton label="Copy as CSV" text={csv} file="weight-by-owner.csv" />
</p>
<Scroller label="Weight by kind of file">
	<table class="ledger">
		<thead
			><tr
				><th scope="col">Kind of file</th><th scope="col" class="number">Requests</th><th
					scope="col"
					class="number">On the wire</th
				><th scope="col" aria-hidden="true"></th><th scope="col" class="number">Decoded</th><th
					scope="col"
					class="number">Never used</th
				></tr
			></thead
		>
		<tbody>
			{#each kinds as share (share.kind)}
				<tr>
					<th scope="row">{share.kind}</th><td class="number">{share.requests}</td><td class="number"
						>{formatBytes(share.wireBytes)}</td
					>
					<td class="track" aria-hidden="true"
						><span style:width="{(share.wireBytes / mostKind) * 100}%"></span></td
					>
					<td class="number">{formatBytes(share.decodedBytes)}</td><td class="number"
						>{share.unusedBytes ? formatBytes(share.unusedBytes) : '–'}</td
					>
				</tr>
			{/each}
		</tbody>
	</table>
</Scroller>
<p class="small muted">
	“Never used”: script that had not run and style that matched nothing when the page had settled, counted
	function by function and rule by rule.
</p>

<style>
	th[scope='row'] {
		font-weight: 400;
	}
	.track {
		width: 22%;
		vertical-align: middle;
	}
	.track span {
		display: block;
		height: 0.7rem;
		background: var(--muted);
	}
	.small {
		font-size: 0.88rem;
	}
</style>
