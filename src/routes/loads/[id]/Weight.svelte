<script lang="ts">
	/** Bytes by owner and by kind of file, with what this page never used. */
	import ChartMenu from '$lib/charts/ChartMenu.svelte';
	import Table from '$lib/parts/Table.svelte';
	import type { Column } from '$lib/parts/tableRows';
	import { csvText } from '$lib/charts/csvText';
	import type { OwnerShare } from '$core/load/requests/owners';
	import { thirdPartyTail } from '$core/load/vitals/tail';
	import { sharesByKind } from '$core/load/requests/requestList';
	import { counted, formatBytes, formatDuration } from '$core/wording/format';

	import type { PartProps } from './partProps';

	let { data, colours }: PartProps<'weight'> = $props();
	const { shares } = $derived(data);
	const requests = $derived(data.requests.filter(({ during }) => during === 'load'));
	const tail = $derived(thirdPartyTail(shares));
	const kinds = $derived(sharesByKind(requests));
	const most = $derived(Math.max(1, ...shares.map((share) => share.wireBytes)));
	const mostKind = $derived(Math.max(1, ...kinds.map((share) => share.wireBytes)));
	const unknown = $derived(requests.filter((one) => one.wireBytes === null).length);
	const unused = (bytes: number) => (bytes ? formatBytes(bytes) : '–');
	const owners: Column<OwnerShare>[] = [
		{
			key: 'owner',
			name: 'Owner',
			isRowHead: true,
			text: ({ name, kind }) => `${name}${kind === 'third-party' ? ', third party' : ''}`
		},
		{
			key: 'requests',
			name: 'Requests',
			number: true,
			text: (share) => share.requests,
			sort: (share) => share.requests
		},
		{
			key: 'wire',
			name: 'Transferred',
			number: true,
			text: (share) => formatBytes(share.wireBytes),
			sort: (share) => share.wireBytes
		},
		{ key: 'bar', name: 'Share of the largest', isUnnamed: true, kind: 'bar-cell' },
		{
			key: 'decoded',
			name: 'Decoded',
			number: true,
			text: (share) => formatBytes(share.decodedBytes),
			sort: (share) => share.decodedBytes
		},
		{
			key: 'unused',
			name: 'Never used',
			number: true,
			text: (share) => unused(share.unusedBytes),
			sort: (share) => share.unusedBytes
		},
		{ key: 'first', name: 'First', number: true, text: (share) => formatDuration(share.firstMs) },
		{
			key: 'last',
			name: 'Last',
			number: true,
			text: (share) => (share.lastMs === null ? '–' : formatDuration(share.lastMs)),
			sort: (share) => share.lastMs
		}
	];
	type KindShare = ReturnType<typeof sharesByKind>[number];
	const types: Column<KindShare>[] = [
		{ key: 'kind', name: 'Type of file', isRowHead: true, text: (share) => share.kind },
		{ key: 'requests', name: 'Requests', number: true, text: (share) => share.requests },
		{ key: 'wire', name: 'Transferred', number: true, text: (share) => formatBytes(share.wireBytes) },
		{ key: 'bar', name: 'Share of the largest', isUnnamed: true, kind: 'bar-cell' },
		{ key: 'decoded', name: 'Decoded', number: true, text: (share) => formatBytes(share.decodedBytes) },
		{ key: 'unused', name: 'Never used', number: true, text: (share) => unused(share.unusedBytes) }
	];
	const csv = () =>
		csvText(
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

{#if requests.length}
	<Table label="Weight by owner" columns={owners} rows={shares} key={(share) => share.id}>
		{#snippet cell(share)}
			<span
				class="bar"
				style:width="{(share.wireBytes / most) * 100}%"
				style:background={colours(share.id, share.kind)}
			></span>
		{/snippet}
	</Table>
	<p class="small">
		{tail.tailMs > 0
			? `The site itself was complete after ${formatDuration(tail.ownMs)}; others kept the page busy for ${formatDuration(tail.tailMs)} more.`
			: 'No third party kept the page busy longer than the site itself.'}
		{unknown ? ` The size of ${counted(unknown, 'request')} is unknown.` : ''}
		<ChartMenu name="weight-by-owner" {csv} />
	</p>
	<Table label="Weight by type of file" columns={types} rows={kinds} key={(share) => share.kind}>
		{#snippet cell(share)}
			<span class="bar" style:width="{(share.wireBytes / mostKind) * 100}%"></span>
		{/snippet}
	</Table>
	<p class="small muted">
		“Never used”: script that had not run and style that matched nothing when the page had settled, counted
		function by function and rule by rule.
	</p>
{:else}<p class="muted">No request left the browser.</p>{/if}

<style>
	.bar {
		display: block;
		min-width: 1px;
		height: 0.7rem;
		margin-top: var(--gap-2);
		background: var(--muted);
	}
</style>
