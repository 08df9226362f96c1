<script lang="ts">
	/** What further loads of this page would show, and nobody has asked for yet. */
	import type { PartProps } from './partProps';
	import Identity from './Identity.svelte';
	import Outages from './Outages.svelte';
	import { PART_NAMES } from './partNames';
	import Taps from './Taps.svelte';

	let { data, ...rest }: PartProps<'checks'> = $props();
</script>

{#each data.openChecks as check (check)}
	<h3>{PART_NAMES[check]}</h3>
	{#if check === 'outages'}<Outages {data} {...rest} />
	{:else if check === 'taps'}<Taps {data} {...rest} />
	{:else}<Identity {data} {...rest} />{/if}
{/each}
