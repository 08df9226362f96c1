<script lang="ts">
	/** The load in the middle of each variant, frame by frame on one time axis. */
	import FramesInStep from '$lib/charts/FramesInStep.svelte';
	import PlaybackInStep from '$lib/charts/PlaybackInStep.svelte';
	import Scroller from '$lib/parts/Scroller.svelte';
	import type { PartProps } from './partProps';

	let { data, nameOf, colourOf }: PartProps<'frames'> = $props();
	const { films } = $derived(data);
</script>

{#if films.length}{#key films[0]?.load}<PlaybackInStep {films} {nameOf} {colourOf} />{/key}<Scroller
		label="Frames side by side"><FramesInStep {films} {nameOf} {colourOf} /></Scroller
	>
{:else}<p class="muted">There are no frames yet.</p>{/if}
