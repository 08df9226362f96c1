<script lang="ts">
	/** What of the requests is listed, and in which order. */
	import type { OwnerShare } from '$core/load/owners';
	import { ORDERS, SPECIAL, type RequestWish } from '$core/load/requestList';

	interface Props {
		wish: RequestWish;
		byOwner: boolean;
		shares: OwnerShare[];
		types: string[];
		/** How many are listed, of how many. */
		shown: number;
		all: number;
		tell: () => void;
	}
	let { wish = $bindable(), byOwner = $bindable(), shares, types, shown, all, tell }: Props = $props();
</script>

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
			><option value="">All</option>{#each shares as share (share.id)}<option value={share.id}
					>{share.name}</option
				>{/each}</select
		></label
	>
	<label
		>Type <select bind:value={wish.type} onchange={tell}
			><option value="">All</option>{#each types as type (type)}<option value={type}>{type}</option
				>{/each}</select
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
	<span class="muted figures" aria-live="polite">{shown} of {all}</span>
</div>

<style>
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
</style>
