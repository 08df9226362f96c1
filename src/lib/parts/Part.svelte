<script lang="ts">
	/** A part of a sheet: one line of finding, opened in place. */
	import type { Snippet } from 'svelte';
	import Later from '../Later.svelte';
	import { openParts } from './openParts.svelte';
	import PartItem from './PartItem.svelte';

	interface Props {
		id: string;
		title: string;
		finding: string;
		/** `trouble` is seen at a glance. */
		tone?: 'plain' | 'trouble';
		/** Printed though it is closed. */
		printed?: boolean;
		/** Fetch what the part needs: it is about to be opened. */
		prefetch?: () => void;
		/** What a part that is printed while it is closed tells: when it changes, so does the part. */
		shows?: unknown;
		children: Snippet;
	}
	let { id, title, finding, tone = 'plain', printed = false, prefetch, shows, children }: Props = $props();
	const parts = openParts();
	const isOpen = $derived(parts.isOpen(id));
	const onopen = (open: boolean) => parts.set(id, open);
</script>

<Later
	of={PartItem}
	awake={isOpen}
	props={{ shows, id, title, finding, tone, printed, isOpen, onopen, prefetch, children }}
/>
