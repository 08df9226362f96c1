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
		margin-bottom: var(--gap-6);
	}
	h3 {
		font-size: var(--type-5);
		margin: var(--gap-3) 0 var(--gap-1);
	}
	p,
	ul {
		margin: 0 0 var(--gap-2);
		max-width: 44rem;
	}
	ul {
		padding-left: var(--gap-7);
		list-style: disc;
	}
	.rest {
		color: var(--muted);
	}
</style>
