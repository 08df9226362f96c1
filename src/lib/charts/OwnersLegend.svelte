<script lang="ts">
	/** Whose requests have which colour. */
	import type { OwnerShare } from '$core/load/requests/owners';
	import { formatBytes } from '$core/wording/format';
	import type { OwnerColours } from './ownerColour';

	interface Props {
		shares: OwnerShare[];
		colours: OwnerColours;
	}
	let { shares, colours }: Props = $props();
</script>

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

<style>
	.owners {
		list-style: none;
		display: flex;
		flex-wrap: wrap;
		gap: var(--gap-2) var(--gap-7);
		padding: 0;
		margin: var(--gap-3) 0;
		font-size: var(--type-3);
	}
</style>
