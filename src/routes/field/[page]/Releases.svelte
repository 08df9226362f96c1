<script lang="ts">
	/** What each release did to the visitors of this page, and a form to note one. */
	import { InlineLoading } from 'carbon-components-svelte';
	import type { DeviceClass } from '$core/field/reading';
	import { formatDay } from '$core/wording/format';
	import EffectBoard from '$lib/charts/EffectBoard.svelte';
	import Action from '$lib/parts/Action.svelte';
	import MarkerForm from '$lib/parts/MarkerForm.svelte';
	import type { Form } from '$lib/server/http/form';
	import type { MarkerFields } from '$lib/server/rooms/field/markerForm';
	import type { MarkedEffect } from '$lib/server/rooms/field/effects';

	interface Props {
		pageId: number;
		device: DeviceClass;
		/** Markers that concern the page: effects are asked for anew when they change. */
		marks: readonly { id: number }[];
		form: Form<typeof MarkerFields>;
	}
	let { pageId, device, marks, form }: Props = $props();
	let effects = $state<MarkedEffect[] | null>(null);
	let problem = $state('');

	$effect(() => {
		const asked = `/api/field/${pageId}/effects?device=${device}&marks=${marks.length}`;
		let isOld = false;
		effects = null;
		void fetch(asked)
			.then(async (answer) => {
				if (!answer.ok) throw new Error('The effects could not be worked out. Load this page again.');
				if (!isOld) effects = (await answer.json()) as MarkedEffect[];
			})
			.catch((error: Error) => !isOld && (problem = error.message));
		return () => (isOld = true);
	});
</script>

<section id="releases">
	<h2>Releases</h2>
	{#if problem}<p role="alert">{problem}</p>{/if}
	{#if !marks.length}
		<p class="muted">No release of this page is noted. With its day, Zafra tells what it did to visitors.</p>
	{:else if !effects}
		<InlineLoading description="Working out what each release did" />
	{:else}
		{#each effects as { marker, metrics } (marker.id)}
			<div class="release">
				<div class="spread head">
					<h3>{formatDay(marker.day)}: {marker.words}</h3>
					{#if marker.fileName}<a href="/api/markers/{marker.id}/file" download>{marker.fileName}</a>{/if}
					<Action action="?/unmark" text="Remove" about={marker.words} values={{ id: marker.id }} />
				</div>
				<EffectBoard label="What “{marker.words}” did to visitors on {device}s" rows={metrics} />
			</div>
		{/each}
	{/if}
	<MarkerForm {form} />
</section>
