<script lang="ts">
	/** Whether a variant still does what the baseline does, once its records were compared. */
	import type { SheetView } from '$lib/server/trials/sheetView';
	import Awaited from './Awaited.svelte';
	import Regressions from './Regressions.svelte';

	interface Props {
		data: SheetView;
		evidence: NonNullable<SheetView['evidence']>['arms'][number] | null;
		pair: SheetView['comparisons'][number];
		nameOf: (arm: number) => string;
	}
	let { data, evidence, pair, nameOf }: Props = $props();
</script>

{#if evidence}<Regressions
		broke={evidence.broke}
		picture={evidence.picture ? `/api/trials/${data.trial.id}/pictures/${evidence.picture}` : null}
		baseline={pair.baseline}
		arm={nameOf(pair.id)}
	/>
{:else}<Awaited {data} />{/if}
