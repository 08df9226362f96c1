<script lang="ts">
	/** What of the requests is listed, and in which order. */
	import type { OwnerShare } from '$core/load/requests/owners';
	import { ORDERS, SPECIAL, type RequestWish } from '$core/load/requests/requestList';
	import ByOwner from './ByOwner.svelte';
	import RequestChoice from './RequestChoice.svelte';
	import RequestSearch from './RequestSearch.svelte';

	interface Props {
		wish: RequestWish;
		byOwner: boolean;
		shares: OwnerShare[];
		types: string[];
		/** How many are listed, of how many. */
		counts: { shown: number; all: number };
		onchange: (wish: RequestWish, byOwner: boolean) => void;
	}
	let { wish, byOwner, shares, types, counts, onchange }: Props = $props();
	const set = (part: Partial<RequestWish>) => onchange({ ...wish, ...part }, byOwner);
	const group = (checked: boolean) => onchange(wish, checked);
	const search = (words: string) => set({ search: words });
	const every: [string, string] = ['', 'All'];
	type Key = 'owner' | 'type' | 'special' | 'order';
	const choiceOf = (key: Key, label: string, options: [string, string][]) => ({
		key,
		label,
		options,
		onchange: (value: string) => set({ [key]: value })
	});
	const choices = $derived([
		choiceOf('owner', 'Owner', [every, ...shares.map(({ id, name }): [string, string] => [id, name])]),
		choiceOf('type', 'Type', [every, ...types.map((type): [string, string] => [type, type])]),
		choiceOf('special', 'Show', [every, ...Object.entries(SPECIAL)]),
		choiceOf('order', 'Order', Object.entries(ORDERS))
	]);
</script>

<div class="row filters no-print">
	<RequestSearch value={wish.search} onchange={search} />
	{#each choices as { key, label, options, onchange: choose } (key)}
		<RequestChoice {label} {options} value={wish[key]} onchange={choose} />
	{/each}
	<ByOwner checked={byOwner} onchange={group} />
	<span class="muted figures count" aria-live="polite">{counts.shown} of {counts.all}</span>
</div>

<style>
	.filters {
		margin-bottom: var(--gap-4);
	}
	.filters :global(.bx--search) {
		flex: 1 1 10rem;
		max-width: 15rem;
	}
	.filters :global(.bx--form-item) {
		flex: 0 1 7.5rem;
	}
	.count {
		font-size: var(--type-3);
		padding-bottom: var(--gap-3);
	}
</style>
