<script lang="ts">
	/** What began only once somebody moved, and the score with and without it. */
	import type { HeldBackRecord } from '$core/load/record';
	import { METRICS, type Figures } from '$core/metrics/catalogue';
	import { formatBytes, formatDifference, formatDuration, formatValue } from '$core/wording/format';

	let { heldBack, figures }: { heldBack: HeldBackRecord; figures: Figures } = $props();
	const changed = $derived(
		METRICS.filter(
			({ id }) =>
				figures[id] !== null && heldBack.figuresWith[id] !== null && figures[id] !== heldBack.figuresWith[id]
		)
	);
	const share = $derived(figures.wire ? heldBack.wireBytes / (figures.wire + heldBack.wireBytes) : 0);
</script>

{#if heldBack.requests || heldBack.scriptMs > 50}
	<p>
		At {formatDuration(heldBack.nudgedAtMs)} the lab moved the pointer, scrolled and pressed a key. Only then did
		the page start
		<b class="figures">{heldBack.requests} requests</b> with
		<b class="figures">{formatBytes(heldBack.wireBytes)}</b>
		({Math.round(share * 100)} % of all it weighs) and
		<b class="figures">{formatDuration(heldBack.scriptMs)}</b> of script. Every visitor pays for it with the first
		touch.
	</p>
{:else}<p>
		The lab moved the pointer, scrolled and pressed a key: next to nothing began only then. The load shows what
		the page does.
	</p>{/if}
{#if changed.length}
	<table class="ledger">
		<thead
			><tr
				><th scope="col">Metric</th><th scope="col" class="number">As loaded</th><th scope="col" class="number"
					>With what was held back</th
				><th scope="col" class="number">Difference</th></tr
			></thead
		>
		<tbody>
			{#each changed as metric (metric.id)}
				<tr
					><th scope="row">{metric.name}</th><td class="number">{formatValue(metric.id, figures[metric.id])}</td
					><td class="number">{formatValue(metric.id, heldBack.figuresWith[metric.id])}</td><td class="number"
						>{formatDifference(metric.id, heldBack.figuresWith[metric.id]! - figures[metric.id]!)}</td
					></tr
				>
			{/each}
		</tbody>
	</table>
{/if}

<style>
	th[scope='row'] {
		font-weight: 400;
	}
	table {
		max-width: 44rem;
	}
</style>
