<svelte:options css="injected" />

<script lang="ts">
	/** What somebody else says, and what can be said about it. */
	import type { BlockBody } from '$core/report/view';

	let { body }: { body: Extract<BlockBody, { kind: 'outside' }> } = $props();
</script>

{#each body.items as { said, own, lines, rest }, n (n)}
	<div class="together">
		<h3 dir="auto">{said}</h3>
		{#if own}<p>{own}</p>{/if}
		<ul>
			{#each lines as line, i (i)}<li dir="auto">{line}</li>{/each}
		</ul>
		{#if rest}<p class="rest">{rest}</p>{/if}
	</div>
{/each}

<style>
	div {
		margin-bottom: 0.9rem;
	}
	h3 {
		font-size: 1rem;
		margin: 0.4rem 0 0.1rem;
	}
	p,
	ul {
		margin: 0 0 0.2rem;
		max-width: 44rem;
	}
	ul {
		padding-left: 1.2rem;
		list-style: disc;
	}
	.rest {
		color: var(--muted);
	}
</style>
