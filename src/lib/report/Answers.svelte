<svelte:options css="injected" />

<script lang="ts">
	/** The answer, one sentence under each of the conditions. */
	import type { BlockBody } from '$core/report/view';

	let { body }: { body: Extract<BlockBody, { kind: 'answer' }> } = $props();
</script>

{#each body.answers as { conditions, sentence, detail, tone, caveats = [] }, i (i)}
	<div class="together">
		<p class="conditions">{conditions}</p>
		<p class="sentence {tone}" dir="auto">{sentence}</p>
		{#if detail}<p class="detail" dir="auto">{detail}</p>{/if}
		{#each caveats as caveat, n (n)}<p class="caveat" dir="auto">{caveat}</p>{/each}
	</div>
{/each}

<style>
	div {
		margin-bottom: 0.9rem;
	}
	p {
		margin: 0;
		max-width: 44rem;
	}
	.caveat {
		border-left: 3px solid var(--rule-strong);
		padding-left: 0.6rem;
		margin-top: 0.3rem;
		font-size: 0.92rem;
	}
	.conditions {
		font-weight: 600;
		font-size: 0.92rem;
		color: var(--muted);
	}
	.sentence {
		font:
			600 1.25rem/1.3 'Source Serif',
			Georgia,
			serif;
	}
	.better {
		color: var(--better);
	}
	.worse {
		color: var(--worse);
	}
</style>
