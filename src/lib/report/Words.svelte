<svelte:options css="injected" />

<script lang="ts">
	/** The analyst's words, with figures that lead back to where they come from. */
	import type { ShownInline, ShownText } from '$core/report/richText';

	let { parts }: { parts: readonly ShownText[] } = $props();
</script>

{#snippet inline(content: readonly ShownInline[])}
	{#each content as part, i (i)}{#if part.type === 'break'}<br />{:else if part.type === 'figure'}<span
				class:gone={part.isMissing}
				title={part.about}
				data-figure={part.isMissing ? undefined : part.ref}>{part.text}</span
			>{:else if part.isBold && part.isItalic}<b><i>{part.text}</i></b>{:else if part.isBold}<b>{part.text}</b
			>{:else if part.isItalic}<i>{part.text}</i>{:else}{part.text}{/if}{/each}
{/snippet}

<div class="words" dir="auto">
	{#each parts as part, i (i)}
		{#if part.type === 'paragraph'}<p>{@render inline(part.content)}</p>
		{:else}<ul>
				{#each part.items as item, n (n)}<li>{@render inline(item)}</li>{/each}
			</ul>{/if}
	{/each}
</div>

<style>
	p,
	ul {
		margin: 0 0 0.7rem;
		max-width: 44rem;
	}
	ul {
		padding-left: 1.2rem;
		list-style: disc;
	}
	.gone {
		color: var(--muted);
		border-bottom: 1px dotted;
	}
</style>
