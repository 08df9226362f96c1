<script lang="ts">
	/** Search over everything; `/` goes here, the arrows walk through what was found. */
	import { Search } from 'carbon-components-svelte';
	import { afterNavigate, goto } from '$app/navigation';
	import type { Hit } from '$lib/server/desk/search';
	import { HIT_KINDS } from './hitKinds';

	let words = $state('');
	let hits = $state<Hit[]>([]);
	let isOpen = $state(false);
	let asked = '';
	let box: HTMLElement;
	const TYPING_MS = 150;
	let typing: ReturnType<typeof setTimeout> | undefined;

	function searchSoon() {
		clearTimeout(typing);
		typing = setTimeout(() => void find(), TYPING_MS);
	}

	async function find() {
		asked = words.trim();
		if (asked.length < 2) {
			hits = [];
			return;
		}
		const query = asked;
		const answer = await fetch(`/api/search?q=${encodeURIComponent(query)}`).catch(() => null);
		// A slow answer to an earlier word says nothing any more.
		if (!answer?.ok || query !== asked) return;
		hits = (await answer.json()) as Hit[];
		isOpen = true;
	}

	function onKey(event: KeyboardEvent) {
		if (event.key === 'Escape') isOpen = false;
		else if (event.key === 'ArrowDown' || event.key === 'ArrowUp') step(event.key === 'ArrowDown' ? 1 : -1);
		else if (event.key === 'Enter' && (event.target as HTMLElement).tagName === 'INPUT')
			void goto(hits[0]?.href ?? `/search?q=${encodeURIComponent(words)}`);
		else return;
		event.preventDefault();
	}

	function step(by: number) {
		const stops = [...box.querySelectorAll<HTMLElement>('input, a')];
		const at = stops.indexOf(document.activeElement as HTMLElement);
		stops[Math.max(0, Math.min(stops.length - 1, at + by))]?.focus();
	}

	function onLeave(event: FocusEvent) {
		if (!box.contains(event.relatedTarget as Node | null)) isOpen = false;
	}

	afterNavigate(() => {
		words = '';
		hits = [];
		isOpen = false;
	});
</script>

<!-- svelte-ignore a11y_no_static_element_interactions -->
<div class="search-box" bind:this={box} onkeydown={onKey} onfocusout={onLeave}>
	<Search
		size="sm"
		labelText="Search clients, sites, pages, trials and loads"
		placeholder="Search"
		bind:value={words}
		data-key="/"
		on:input={searchSoon}
		on:clear={() => (hits = [])}
		on:focus={() => (isOpen = true)}
	/>
	{#if isOpen && words.trim().length >= 2}
		<div class="hits" role="status">
			{#if hits.length}
				<ul aria-label="Found">
					{#each hits as hit (hit.kind + hit.href + hit.text)}
						<li>
							<a href={hit.href}
								><span class="kind">{HIT_KINDS[hit.kind]}</span><b>{hit.text}</b><span>{hit.note}</span></a
							>
						</li>
					{/each}
				</ul>
			{:else}<p>Nothing found.</p>{/if}
		</div>
	{/if}
</div>

<style>
	.search-box {
		position: relative;
		width: 15rem;
		max-width: 100%;
	}
	.hits {
		position: absolute;
		right: 0;
		top: 100%;
		width: min(32rem, 92vw);
		max-height: 70vh;
		overflow: auto;
		background: var(--panel);
		border: 1px solid var(--rule-strong);
		z-index: 20;
	}
	ul {
		list-style: none;
		margin: 0;
		padding: 0;
	}
	p {
		padding: var(--gap-4) var(--gap-5);
		color: var(--muted);
	}
	a {
		display: grid;
		grid-template-columns: 3.4rem minmax(0, 1fr);
		gap: 0 var(--gap-4);
		padding: var(--gap-3) var(--gap-5);
		text-decoration: none;
		color: var(--ink);
		overflow-wrap: anywhere;
	}
	a:hover,
	a:focus {
		background: var(--wash);
	}
	a span:last-child {
		grid-column: 2;
		font-size: var(--type-3);
		color: var(--muted);
	}
	.kind {
		font-size: var(--type-3);
		color: var(--muted);
	}
	b {
		font-weight: 400;
	}
	@media (max-width: 720px) {
		.search-box {
			width: 100%;
		}
		.hits {
			left: 0;
			right: auto;
		}
	}
</style>
