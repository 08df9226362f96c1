<script lang="ts">
	/** Some of a client's pages: the chosen ones on top, the others found by words, type and site. */
	import { Button, Checkbox, Tag } from 'carbon-components-svelte';
	import { live } from '$lib/live.svelte';
	import type { PageOffer } from '$lib/server/rooms/watch/pageChoice';
	import Choice from './Choice.svelte';
	import FilterBar from './FilterBar.svelte';
	import type { FoundPage, PageChoice } from '$lib/server/rooms/watch/view';

	interface Props {
		kind: 'watch' | 'standing';
		clientId: string;
		offer: PageOffer;
		pages: FoundPage[];
	}
	let { kind, clientId, offer, pages = $bindable() }: Props = $props();
	let words = $state('');
	let type = $state('');
	let site = $state('');
	let found = $state<PageChoice | null>(null);
	let isSearching = $state(false);
	let newest = '';
	const shown = $derived(found ?? offer);
	const chosen = $derived(new Set(pages.map(({ id }) => id)));
	const open = $derived(shown.pages.filter(({ id }) => !chosen.has(id)));
	const types = $derived([
		{ value: '', text: 'All types' },
		...offer.types.map((own) => ({ value: own, text: own }))
	]);
	const sites = $derived([
		{ value: '', text: 'All sites' },
		...offer.sites.map(({ id, name }) => ({ value: String(id), text: name }))
	]);

	const nameOf = ({ url }: FoundPage) => {
		const { host, pathname } = new URL(url);
		return kind === 'standing' ? `${host}${pathname}` : pathname;
	};
	const toggle = (page: FoundPage, isOn: boolean) =>
		(pages = isOn ? [...pages, page] : pages.filter(({ id }) => id !== page.id));

	async function search() {
		isSearching = true;
		const asked = `/api/clients/${clientId}/pages?${new URLSearchParams({ for: kind, words, type, site })}`;
		newest = asked;
		const answer = await fetch(asked).catch(() => null);
		// A slow answer to an earlier search says nothing any more.
		if (asked !== newest) return;
		isSearching = false;
		if (answer?.ok) found = (await answer.json()) as PageChoice;
		else live.noteUnreachable();
	}
	// Another client has other pages.
	$effect(() => {
		void offer;
		found = null;
		words = type = site = '';
	});
</script>

{#if offer.pairs.length}
	<div class="pairs" role="group" aria-label="Compare by page type">
		<span class="muted small">One page type, yours and competitors’:</span>
		{#each offer.pairs as pair (pair.type)}<Button
				kind="tertiary"
				size="small"
				on:click={() => (pages = pair.pages)}>{pair.type} ({pair.pages.length})</Button
			>{/each}
	</div>
{/if}
{#if pages.length}
	<ul class="taken" aria-label="Selected pages">
		{#each pages as page (page.id)}<li>
				<Tag filter size="sm" title="Remove {nameOf(page)}" on:close={() => toggle(page, false)}
					>{nameOf(page)}</Tag
				>
			</li>{/each}
	</ul>
{/if}
<FilterBar placeholder="Part of an address" bind:words onsearch={() => void search()}>
	{#if offer.types.length > 1}<Choice
			label="Type"
			hideLabel
			options={types}
			bind:value={type}
			onchange={() => void search()}
		/>{/if}
	{#if offer.sites.length > 1}<Choice
			label="Site"
			hideLabel
			options={sites}
			bind:value={site}
			onchange={() => void search()}
		/>{/if}
</FilterBar>
<div class="cells found" style:--cell="17rem" aria-busy={isSearching}>
	{#each open as page (page.id)}<Checkbox
			labelText={[nameOf(page), page.type, page.isChosen ? 'chosen' : ''].filter(Boolean).join(' · ')}
			checked={false}
			on:check={({ detail }) => toggle(page, detail)}
		/>{:else}<p class="muted small">
			{shown.total === 0
				? words || type || site
					? 'No page matches.'
					: 'This client has no pages yet: add them under Pages.'
				: 'All matching pages are selected.'}
		</p>{/each}
</div>
{#if shown.total > shown.pages.length}<p class="muted small">
		The {shown.pages.length} busiest of {shown.total.toLocaleString('en-GB')}: search to find the others.
	</p>{/if}

<style>
	.pairs,
	.taken {
		display: flex;
		flex-wrap: wrap;
		gap: var(--gap-3);
		align-items: center;
		margin: 0 0 var(--gap-4);
		padding: 0;
		list-style: none;
	}
	.found {
		max-height: 15rem;
		overflow-y: auto;
	}
	p {
		margin: var(--gap-3) 0 0;
	}
</style>
