<script lang="ts">
	/** A part of a sheet: one line of finding, opened in place. */
	import { AccordionItem } from 'carbon-components-svelte';
	import type { Snippet } from 'svelte';
	import { openParts } from './openParts.svelte';

	interface Props {
		id: string;
		title: string;
		finding: string;
		/** `trouble` is seen at a glance. */
		tone?: 'plain' | 'trouble';
		children: Snippet;
	}
	let { id, title, finding, tone = 'plain', children }: Props = $props();
	const parts = openParts();
	const isOpen = $derived(parts.isOpen(id));
</script>

<AccordionItem {id} bind:open={() => isOpen, (open: boolean) => void parts.set(id, open)}>
	<svelte:fragment slot="title"
		><span class="part-title">{title}</span><span class="part-finding {tone}">{finding}</span></svelte:fragment
	>
	{#if isOpen}<section aria-label={title}>
			<!-- The line above is a control: this stands in the outline of the page. -->
			<h2 class="visually-hidden">{title}</h2>
			{@render children()}
		</section>{/if}
</AccordionItem>
