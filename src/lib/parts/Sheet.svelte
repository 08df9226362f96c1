<script lang="ts">
	/** A sheet: one column, with a sticky margin that lists its parts and their state. */
	import type { Snippet } from 'svelte';

	interface Props {
		parts: { id: string; name: string; state?: string }[];
		children: Snippet;
	}
	let { parts, children }: Props = $props();
</script>

<div class="sheet">
	<nav class="margin no-print" aria-label="Parts of this sheet">
		<ol>
			{#each parts as part (part.id)}
				<li>
					<a href="#{part.id}">{part.name}</a>{#if part.state}<span>{part.state}</span>{/if}
				</li>
			{/each}
		</ol>
	</nav>
	<div class="column">{@render children()}</div>
</div>

<style>
	.sheet {
		display: grid;
		grid-template-columns: 118px minmax(0, 1040px);
		gap: 1.4rem;
	}
	.margin {
		position: sticky;
		top: 3rem;
		align-self: start;
		font-size: 0.88rem;
	}
	ol {
		list-style: none;
		margin: 0;
		padding: 0;
	}
	li {
		margin-bottom: 0.45rem;
		padding-left: 0.6rem;
		border-left: 2px solid var(--rule);
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
		font-size: 0.8rem;
	}
	.column :global(section) {
		margin-bottom: 1.9rem;
		scroll-margin-top: 3rem;
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
