<script lang="ts">
	/** What further loads of this page would show, and nobody has asked for yet. */
	import type { Figures } from '$core/metrics/catalogue';
	import type { LoadView } from '$lib/server/rooms/loads/view';
	import Identity from './Identity.svelte';
	import Outages from './Outages.svelte';
	import { PART_NAMES } from './partNames';
	import Taps from './Taps.svelte';

	interface Props {
		view: Pick<LoadView, 'outages' | 'taps' | 'identity' | 'openChecks'>;
		figures: Figures;
		form: never;
	}
	let { view, figures, form }: Props = $props();
</script>

{#each view.openChecks as check (check)}
	<h3>{PART_NAMES[check]}</h3>
	{#if check === 'outages'}<Outages outages={view.outages} {figures} />
	{:else if check === 'taps'}<Taps taps={view.taps} {form} />
	{:else}<Identity identity={view.identity} />{/if}
{/each}
