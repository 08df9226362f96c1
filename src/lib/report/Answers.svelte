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
		margin-bottom: var(--gap-6);
	}
	p {
		margin: 0;
		max-width: 44rem;
	}
	.caveat {
		border-left: 3px solid var(--rule-strong);
		padding-left: var(--gap-4);
		margin-top: var(--gap-3);
		font-size: var(--type-4);
	}
	.conditions {
		font-weight: 600;
		font-size: var(--type-4);
		color: var(--muted);
	}
	.sentence {
		font:
			600 1.25rem/1.3 'Source Serif',
			Georgia,
			serif;
	}
</style>
