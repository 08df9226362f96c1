<script lang="ts">
	/** A wide table scrolls in a box of its own, which the keyboard can reach. */
	import type { Snippet } from 'svelte';

	let { label, children }: { label: string; children: Snippet } = $props();
</script>

<!-- svelte-ignore a11y_no_noninteractive_tabindex -->
<div class="scroller" role="region" aria-label={label} tabindex="0">{@render children()}</div>

<style>
	.scroller {
		overflow-x: auto;
		/* Hidden words in far columns are placed within the box, not within the page. */
		position: relative;
	}
</style>
