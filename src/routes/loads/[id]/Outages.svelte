<script lang="ts">
	/** What the page does when an outside service is slow, refuses, or never answers; what hurts most first. */
	import type { RankedOutage } from '$core/load/journey/outage';
	import { metricOf } from '$core/metrics/catalogue';
	import { counted, formatDifference, formatValue } from '$core/wording/format';
	import Action from '$lib/parts/Action.svelte';
	import Table from '$lib/parts/Table.svelte';
	import type { Column } from '$lib/parts/tableRows';
	import type { PartProps } from './partProps';

	let { data }: PartProps<'outages'> = $props();
	const { outages } = $derived(data);
	const { figures } = $derived(data.record);
	const WAYS = { slow: 'answers 3 s late', refused: 'refuses', silent: 'never answers' } as const;
	const with_ = (metric: 'start' | 'lcp', value: number | null, later: number | null) =>
		value === null
			? 'never'
			: `${formatValue(metric, value)}${later === null ? '' : ` (${formatDifference(metric, later)})`}`;
	const stateOf = ({ failed, failedStep, errors }: RankedOutage) =>
		failed ??
		(failedStep
			? `step ${failedStep} failed`
			: errors === 1
				? '1 console error'
				: `${errors || 'no'} console errors`);
	const columns: Column<RankedOutage>[] = [
		{ key: 'service', name: 'Service', isRowHead: true, text: ({ service }) => service },
		{ key: 'how', name: 'It', text: ({ how }) => WAYS[how] },
		{
			key: 'start',
			name: metricOf('start').name,
			number: true,
			text: ({ start, startLater }) => with_('start', start, startLater)
		},
		{ key: 'lcp', name: 'LCP', number: true, text: ({ lcp, lcpLater }) => with_('lcp', lcp, lcpLater) },
		{ key: 'onload', name: 'Load event', number: true, text: ({ onload }) => formatValue('onload', onload) },
		{ key: 'state', name: 'The page', kind: 'note', text: stateOf },
		{ key: 'load', name: 'Load' }
	];
</script>

{#if outages.results.length}
	<p class="muted">
		One load each, against this one (first change on screen {formatValue('start', figures.start)}, LCP {formatValue(
			'lcp',
			figures.lcp
		)}): it shows what happens, and proves no difference.
	</p>
	<Table
		label="Outages of outside services"
		{columns}
		rows={outages.results}
		key={({ load }) => load}
		rowClass={({ isBroken }) => (isBroken ? 'trouble' : '')}
	>
		{#snippet cell(result)}<a href="/loads/{result.load}">Evidence</a>{/snippet}
	</Table>
{:else}<p>
		The page asks {outages.services.join(', ')}. What it does when one of them is slow, refuses or never answers
		is not known yet.
	</p>{/if}
{#if outages.waiting}<p class="muted">
		{counted(outages.waiting, 'load waits', 'loads wait')} for the lab.
	</p>{/if}
<div class="no-print">
	<Action
		action="?/outages"
		text="Load it with each service 3 s late, refusing and silent ({outages.services.length * 3} loads)"
		kind="tertiary"
	/>
</div>
