<script lang="ts">
	/** A level: its middle figure, its range, and the band that its loads fall into. */
	import BandBar from '$lib/parts/BandBar.svelte';
	import type { AuditView } from '$lib/server/rooms/audits/view';

	interface Props {
		level: NonNullable<AuditView['pages'][number]['metrics']['lcp']> | null;
		/** Of its page. */
		isWorst: boolean;
	}
	let { level, isWorst }: Props = $props();
</script>

{#if level}
	<span class:worst={isWorst}>{level.words}</span>
	{#if level.span}<span class="span">{level.span}</span>{/if}
	{#if level.band === 'line'}<span class="span">about the line</span
		>{:else if level.band && level.band !== 'good'}<BandBar band={level.band} />{/if}
{:else}–{/if}

<style>
	.worst {
		font-weight: 600;
	}
	.span {
		display: block;
		color: var(--muted);
		font-size: var(--type-2);
	}
</style>
