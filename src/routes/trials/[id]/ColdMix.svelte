<script lang="ts">
	/** What cold visits mean for the mix: share of them by traffic and life of the cache, and the weighted figure. */
	import { NumberInput } from 'carbon-components-svelte';
	import { coldShare, weightedFigure } from '$core/trial/design/cold';
	import { counted, formatDuration } from '$core/wording/format';

	interface Props {
		/** Middle largest paint of the warm baseline and of the cold variant, ms. */
		mixes: readonly { key: string; name: string; warm: number; cold: number }[];
	}
	let { mixes }: Props = $props();
	let visits: number | null = $state(10);
	let life: number | null = $state(60);
	const share = $derived(coldShare(Math.max(0, visits ?? 0), Math.max(0, life ?? 0)));
</script>

<h3>Cold visits</h3>
<div class="cells no-print" style:--cell="12rem">
	<NumberInput labelText="Visits to the page an hour" size="sm" min={0} allowEmpty bind:value={visits} />
	<NumberInput labelText="Life of the cache, minutes" size="sm" min={0} allowEmpty bind:value={life} />
</div>
<p>
	With {counted(visits ?? 0, 'visit')} an hour at random and a cache that lives {counted(life ?? 0, 'minute')},
	<b class="figures">{(share * 100).toFixed(share < 0.1 ? 1 : 0)} %</b> of them find it empty.
</p>
<ul class="plain">
	{#each mixes as mix (mix.key)}<li>
			{mix.name}: middle largest paint {formatDuration(mix.cold)} cold, {formatDuration(mix.warm)} warm;
			<b class="figures">{formatDuration(weightedFigure(mix.warm, mix.cold, share))}</b> over both.
		</li>{/each}
</ul>
