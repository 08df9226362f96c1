<script lang="ts">
	/** A sheet: its answer first, then parts that open in place; a sticky margin lists them with their state. */
	import { Accordion } from 'carbon-components-svelte';
	import type { Snippet } from 'svelte';
	import { afterNavigate } from '$app/navigation';
	import { page } from '$app/state';
	import { provideOpenParts } from './openParts.svelte';

	interface Props {
		parts: { id: string; name: string; state?: string }[];
		/** The first screen. */
		first: Snippet;
		children: Snippet;
		/** What follows the parts. */
		last?: Snippet;
	}
	let { parts, first, children, last }: Props = $props();
	const open = provideOpenParts(page.url.searchParams);
	const follow = () => void open.followAddress(page.url.searchParams);
	// Once the router stands, and after each link within the sheet; opening a part is a step of its own.
	afterNavigate(({ type, from, to }) => {
		if (type !== 'goto' || from?.url.pathname !== to?.url.pathname) follow();
	});

	function go(event: MouseEvent, id: string) {
		if (event.ctrlKey || event.metaKey || event.shiftKey) return;
		event.preventDefault();
		void open.goTo(id);
	}
</script>

<svelte:window onhashchange={follow} />

<div class="sheet">
	<nav class="margin no-print" aria-label="Parts of this sheet">
		<ol>
			{#each parts as part (part.id)}
				<li class:open={open.isOpen(part.id)}>
					<a href="?open={part.id}#{part.id}" onclick={(event) => go(event, part.id)}>{part.name}</a
					>{#if part.state}<span>{part.state}</span>{/if}
				</li>
			{/each}
			<li><a href="?open={parts.map(({ id }) => id).join(',')}">Open all parts</a></li>
		</ol>
	</nav>
	<div class="column">
		{@render first()}
		<Accordion align="start" size="sm" role="none">{@render children()}</Accordion>
		{@render last?.()}
	</div>
</div>

<style>
	.sheet {
		display: grid;
		grid-template-columns: 118px minmax(0, 1040px);
		gap: var(--gap-7);
	}
	.margin {
		position: sticky;
		top: 3rem;
		align-self: start;
		font-size: var(--type-3);
	}
	ol {
		list-style: none;
		margin: 0;
		padding: 0;
	}
	li {
		margin-bottom: var(--gap-3);
		padding-left: var(--gap-4);
		border-left: 2px solid var(--rule);
	}
	li.open {
		border-left-color: var(--action);
	}
	li a {
		color: var(--ink);
		text-decoration: none;
	}
	li a:hover {
		text-decoration: underline;
	}
	li span {
		display: block;
		color: var(--muted);
		font-size: var(--type-2);
	}
	@media (max-width: 1000px) {
		.sheet {
			grid-template-columns: minmax(0, 1fr);
		}
		.margin {
			display: none;
		}
	}
	@media print {
		.sheet {
			display: block;
		}
	}
</style>
