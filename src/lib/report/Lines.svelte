<svelte:options css="injected" />

<script lang="ts">
	/** Findings in lines, under the conditions that they are of. */
	import type { BlockBody } from '$core/report/view';

	let { body }: { body: Extract<BlockBody, { kind: 'lines' }> } = $props();
</script>

{#each body.groups as { title, lines }, n (n)}
	<div>
		{#if title}<h3 dir="auto">{title}</h3>{/if}
		{#if lines.length === 1}<p dir="auto">{lines[0]}</p>
		{:else}<ul>
				{#each lines as line, i (i)}<li dir="auto">{line}</li>{/each}
			</ul>{/if}
	</div>
{/each}

<style>
	h3 {
		font-size: 1rem;
		margin: 0.5rem 0 0.1rem;
	}
	p,
	ul {
		margin: 0 0 0.6rem;
		max-width: 44rem;
	}
	ul {
		padding-left: 1.2rem;
		list-style: disc;
	}
	li {
		margin-bottom: 0.2rem;
	}
</style>
