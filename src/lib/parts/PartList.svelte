<script lang="ts">
	/** The parts of a sheet, each with a wrapper of its own, which no list may hold. */
	import { Accordion } from 'carbon-components-svelte';
	import type { Snippet } from 'svelte';

	interface Props {
		/** Only so that the list notices that it changed. */
		shows?: unknown;
		children: Snippet;
	}
	let { children }: Props = $props();
</script>

<Accordion align="start" size="sm" role="none">{@render children()}</Accordion>
