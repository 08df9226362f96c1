<script lang="ts">
	/** What began only after an interaction, and the figures with and without it. */
	import { METRICS, type Metric } from '$core/metrics/catalogue';
	import { formatBytes, formatDifference, formatDuration, formatValue } from '$core/wording/format';
	import type { LoadView } from '$lib/server/loads/view';
	import Action from '$lib/parts/Action.svelte';
	import Table from '$lib/parts/Table.svelte';
	import type { Column } from '$lib/parts/tableRows';

	let { data }: { data: LoadView } = $props();
	const heldBack = $derived(data.record.heldBack);
	const figures = $derived(data.record.figures);
	const changed = $derived(
		METRICS.filter(
			({ id }) =>
				heldBack &&
				figures[id] !== null &&
				heldBack.figuresWith[id] !== null &&
				figures[id] !== heldBack.figuresWith[id]
		)
	);
	const share = $derived(
		heldBack && figures.wire ? heldBack.wireBytes / (figures.wire + heldBack.wireBytes) : 0
	);
	const columns: Column<Metric>[] = [
		{ key: 'name', name: 'Metric', isRowHead: true, text: ({ name }) => name },
		{ key: 'loaded', name: 'As loaded', number: true, text: ({ id }) => formatValue(id, figures[id]) },
		{
			key: 'with',
			name: 'With what waited',
			number: true,
			text: ({ id }) => formatValue(id, heldBack!.figuresWith[id])
		},
		{
			key: 'difference',
			name: 'Difference',
			number: true,
			text: ({ id }) => formatDifference(id, heldBack!.figuresWith[id]! - figures[id]!)
		}
	];
</script>

{#if !heldBack}
	<p>
		No interaction was simulated: this load ended once the page was quiet. Whether the page keeps work back
		until the visitor moves is not known.
	</p>
	<div class="no-print">
		<Action action="?/nudge" text="Load it again and simulate interaction" kind="tertiary" />
	</div>
{:else}
	{#if heldBack.requests || heldBack.scriptMs > 50}
		<p>
			At {formatDuration(heldBack.nudgedAtMs)} the lab moved the pointer, scrolled and pressed a key. Only then did
			the page start
			<b class="figures">{heldBack.requests} requests</b> with
			<b class="figures">{formatBytes(heldBack.wireBytes)}</b>
			({Math.round(share * 100)} % of the page weight) and
			<b class="figures">{formatDuration(heldBack.scriptMs)}</b> of script.
		</p>
	{:else}<p>The lab moved the pointer, scrolled and pressed a key: next to nothing began only then.</p>{/if}
	{#if changed.length}
		<Table label="Figures with what waited for interaction" {columns} rows={changed} key={({ id }) => id} />
	{/if}
{/if}
