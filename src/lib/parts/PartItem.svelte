<script lang="ts">
	/** The line of a part, and below it what it holds. */
	import { AccordionItem } from 'carbon-components-svelte';
	import type { Snippet } from 'svelte';

	interface Props {
		id: string;
		title: string;
		finding: string;
		tone: 'plain' | 'trouble';
		printed: boolean;
		isOpen: boolean;
		/** Only so that the part notices that it changed. */
		shows?: unknown;
		onopen: (open: boolean) => void;
		prefetch?: () => void;
		children: Snippet;
	}
	let { id, title, finding, tone, printed, isOpen, onopen, prefetch, children }: Props = $props();
</script>

<AccordionItem
	{id}
	bind:open={() => isOpen, onopen}
	class={printed ? 'printed' : ''}
	on:mouseenter={() => prefetch?.()}
>
	<svelte:fragment slot="title"
		><span class="part-title">{title}</span><span class="part-finding {tone}">{finding}</span></svelte:fragment
	>
	{#if isOpen || printed}<section aria-label={title}>
			<!-- The line above is a control: this stands in the outline of the page. -->
			<h2 class="visually-hidden">{title}</h2>
			{@render children()}
		</section>{/if}
</AccordionItem>
