<script lang="ts">
	/** What began only after the page had settled: by itself, or after an interaction; and the figures with it. */
	import { METRICS, type Metric } from '$core/metrics/catalogue';
	import { formatBytes, formatDifference, formatDuration, formatValue } from '$core/wording/format';
	import type { PartProps } from './partProps';
	import Action from '$lib/parts/Action.svelte';
	import Table from '$lib/parts/Table.svelte';
	import type { Column } from '$lib/parts/tableRows';

	let { data }: PartProps<'held'> = $props();
	const figures = $derived(data.record.figures);
	const { heldBack, postponed } = $derived(data);
	const late = $derived(postponed ?? heldBack);
	const changed = $derived(
		METRICS.filter(
			({ id }) =>
				late && figures[id] !== null && late.figuresWith[id] !== null && figures[id] !== late.figuresWith[id]
		)
	);
	const share = $derived(late && figures.wire ? late.wireBytes / (figures.wire + late.wireBytes) : 0);
	const columns: Column<Metric>[] = [
		{ key: 'name', name: 'Metric', isRowHead: true, text: ({ name }) => name },
		{ key: 'loaded', name: 'As loaded', number: true, text: ({ id }) => formatValue(id, figures[id]) },
		{
			key: 'with',
			name: 'With what came late',
			number: true,
			text: ({ id }) => formatValue(id, late!.figuresWith[id])
		},
		{
			key: 'difference',
			name: 'Difference',
			number: true,
			text: ({ id }) => formatDifference(id, late!.figuresWith[id]! - figures[id]!)
		}
	];
</script>

{#if !late}
	<p>
		This load ended once the page was quiet: nobody waited on, and no interaction was simulated. Whether the
		page puts work off until later is not known.
	</p>
{:else}
	<p>
		{#if postponed}From {formatDuration(postponed.fromMs)} to {formatDuration(postponed.untilMs)} nobody moved and
			the lab waited on.
		{:else if heldBack}At {formatDuration(heldBack.nudgedAtMs)} the lab moved the pointer, scrolled and pressed a
			key.{/if}
		{#if late.requests || late.scriptMs > 50}Only then did the page start
			<b class="figures">{late.requests} {late.requests === 1 ? 'request' : 'requests'}</b> with
			<b class="figures">{formatBytes(late.wireBytes)}</b>
			({Math.round(share * 100)} % of the page weight) and
			<b class="figures">{formatDuration(late.scriptMs)}</b>
			of script{postponed?.firstMs ? `, from ${formatDuration(postponed.firstMs)} on` : ''}.
		{:else}Next to nothing began then.{/if}
	</p>
	{#if changed.length}
		<Table label="Figures with what came late" {columns} rows={changed} key={({ id }) => id} />
	{/if}
{/if}
<div class="no-print buttons">
	{#if !postponed}<Action action="?/wait" text="Load it again and wait on" kind="tertiary" />{/if}
	{#if !heldBack}<Action action="?/nudge" text="Load it again and simulate interaction" kind="tertiary" />{/if}
</div>
