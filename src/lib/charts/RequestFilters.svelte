<script lang="ts">
	/** What of the requests is listed, and in which order. */
	import { Checkbox, Search, Select, SelectItem } from 'carbon-components-svelte';
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
		onchange: (wish: RequestWish, byOwner: boolean) => void;
	}
	let { wish, byOwner, shares, types, shown, all, onchange }: Props = $props();
	const set = (part: Partial<RequestWish>) => onchange({ ...wish, ...part }, byOwner);
</script>

{#snippet choice(label: string, key: 'owner' | 'type' | 'special' | 'order', options: [string, string][])}
	<Select
		labelText={label}
		size="sm"
		selected={wish[key]}
		on:update={(event) => {
			if (event.detail !== wish[key]) set({ [key]: event.detail });
		}}
	>
		{#each options as [value, text] (value)}<SelectItem {value} {text} />{/each}
	</Select>
{/snippet}

<div class="filters no-print">
	<Search
		size="sm"
		labelText="Find requests"
		placeholder="Address, type, status"
		bind:value={() => wish.search, (search) => search !== wish.search && set({ search })}
	/>
	{@render choice('Owner', 'owner', [
		['', 'All'],
		...shares.map(({ id, name }): [string, string] => [id, name])
	])}
	{@render choice('Type', 'type', [['', 'All'], ...types.map((type): [string, string] => [type, type])])}
	{@render choice('Show', 'special', [['', 'All'], ...Object.entries(SPECIAL)])}
	{@render choice('Order', 'order', Object.entries(ORDERS))}
	<Checkbox
		labelText="By owner"
		bind:checked={() => byOwner, (checked) => checked !== byOwner && onchange(wish, checked)}
	/>
	<span class="muted figures count" aria-live="polite">{shown} of {all}</span>
</div>

<style>
	.filters {
		display: flex;
		flex-wrap: wrap;
		gap: 0.4rem 0.8rem;
		align-items: end;
		margin-bottom: 0.5rem;
	}
	.filters :global(.bx--search) {
		flex: 1 1 10rem;
		max-width: 15rem;
	}
	.filters :global(.bx--form-item) {
		flex: 0 1 7.5rem;
	}
	.count {
		font-size: 0.86rem;
		padding-bottom: 0.35rem;
	}
</style>
