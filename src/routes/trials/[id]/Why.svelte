<script lang="ts">
	/** Why a variant differs, once its records were compared. */
	import type { PartProps } from './partProps';
	import Awaited from './Awaited.svelte';
	import WhyDetails from './WhyDetails.svelte';

	let { data, pair, condition, nameOf }: PartProps<'why'> = $props();
</script>

{#if data.why}
	<p class="muted small">“{pair.name}” against “{pair.baseline}”, {condition.name}.</p>
	<WhyDetails why={data.why} baseline={pair.baseline} arm={nameOf(pair.id)} verdicts={data.verdicts} />
{:else}<Awaited {data} />{/if}
