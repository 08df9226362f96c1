<script lang="ts">
	/** Filters of a list, in one line; they live in the address. */
	import { Search } from 'carbon-components-svelte';
	import type { Snippet } from 'svelte';

	interface Props {
		placeholder: string;
		words: string;
		onsearch: () => void;
		children?: Snippet;
	}
	let { placeholder, words = $bindable(), onsearch, children }: Props = $props();
	const TYPING_MS = 250;
	let typing: ReturnType<typeof setTimeout> | undefined;
	function searchSoon() {
		clearTimeout(typing);
		typing = setTimeout(onsearch, TYPING_MS);
	}
</script>

<div class="row filter-bar no-print">
	<Search
		size="sm"
		labelText="Filter"
		{placeholder}
		bind:value={words}
		on:input={searchSoon}
		on:clear={searchSoon}
	/>
	{@render children?.()}
</div>

<style>
	.filter-bar {
		margin-bottom: var(--gap-5);
	}
	.filter-bar :global(.bx--search) {
		flex: 1 1 14rem;
		max-width: 22rem;
	}
	.filter-bar :global(.bx--form-item) {
		flex: 0 1 10rem;
	}
</style>
