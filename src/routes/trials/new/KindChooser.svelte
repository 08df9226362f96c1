<script lang="ts">
	/** What kind of question it is. */
	import { RadioTile, TileGroup } from 'carbon-components-svelte';
	import type { TrialKind } from '$core/trial/types';
	import { afterPaint } from '$lib/afterPaint';

	interface Props {
		templates: readonly { id: string; kind: TrialKind; name: string; hint: string }[];
		kind: TrialKind;
		choose: (kind: TrialKind) => void;
	}
	let { templates, kind, choose }: Props = $props();
</script>

<TileGroup
	legendText="What kind of question is it?"
	selected={kind}
	on:select={({ detail }) => afterPaint(() => choose(detail as TrialKind))}
>
	{#each templates as template (template.id)}
		<RadioTile value={template.kind} checked={kind === template.kind}
			><b>{template.name}</b><br /><span class="muted small">{template.hint}</span></RadioTile
		>
	{/each}
</TileGroup>
