<script lang="ts">
	/** Why a variant differs, once its records were compared. */
	import type { SheetView } from '$lib/server/rooms/trials/sheetView';
	import Awaited from './Awaited.svelte';
	import WhyDetails from './WhyDetails.svelte';

	interface Props {
		data: SheetView;
		evidence: NonNullable<SheetView['evidence']>['arms'][number] | null;
		pair: SheetView['comparisons'][number];
		condition: { id: string; name: string };
		nameOf: (arm: number) => string;
	}
	let { data, evidence, pair, condition, nameOf }: Props = $props();
	const verdicts = $derived(
		Object.fromEntries(
			data.judgement.results
				.filter((result) => result.primary && result.condition === condition.id && result.arm === pair.id)
				.map((result) => [result.metric, result.verdict])
		)
	);
</script>

{#if evidence?.why}
	<p class="muted small">“{pair.name}” against “{pair.baseline}”, {condition.name}.</p>
	<WhyDetails why={evidence.why} baseline={pair.baseline} arm={nameOf(pair.id)} {verdicts} />
{:else}<Awaited {data} />{/if}
