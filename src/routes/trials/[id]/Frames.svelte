<script lang="ts">
	/** The load in the middle of each variant, frame by frame on one time axis. */
	import { hasPages } from '$core/trial/design/kinds';
	import FramesInStep from '$lib/charts/FramesInStep.svelte';
	import PlaybackInStep from '$lib/charts/PlaybackInStep.svelte';
	import Scroller from '$lib/parts/Scroller.svelte';
	import type { SheetView } from '$lib/server/rooms/trials/sheetView';

	interface Props {
		data: SheetView;
		condition: { id: string };
		pair: SheetView['comparisons'][number];
		nameOf: (arm: number) => string;
		colourOf: (arm: number) => string;
	}
	let { data, condition, pair, nameOf, colourOf }: Props = $props();
	const films = $derived(
		(data.evidence?.films ?? []).filter(
			(film) =>
				film.condition === condition.id &&
				(!hasPages(data.trial.kind) || film.arm === pair.id || film.arm === pair.baselineId)
		)
	);
</script>

{#if films.length}{#key films[0]?.load}<PlaybackInStep {films} {nameOf} {colourOf} />{/key}<Scroller
		label="Frames side by side"><FramesInStep {films} {nameOf} {colourOf} /></Scroller
	>
{:else}<p class="muted">There are no frames yet.</p>{/if}
