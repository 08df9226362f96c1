<script lang="ts">
	/** The shift of each figure broken down into parts that add up to it. */
	import { Button } from 'carbon-components-svelte';
	import ChartMenu from '$lib/charts/ChartMenu.svelte';
	import SignedBars from '$lib/charts/SignedBars.svelte';
	import Table from '$lib/parts/Table.svelte';
	import type { Column } from '$lib/parts/tableRows';
	import { csvText } from '$lib/charts/csvText';
	import { metricOf } from '$core/metrics/catalogue';
	import type { Verdict } from '$core/trial/types';
	import { listOf, plainName } from '$core/wording/plainNames';
	import type { Breakdown, Part } from '$core/compare/breakdowns';
	import { toldCauses, type WhyText } from '$core/wording/causes';
	import { formatBytes, formatDifference, formatValue } from '$core/wording/format';

	interface Props {
		why: WhyText;
		baseline: string;
		arm: string;
		/** Of the metrics that the trial decides on. */
		verdicts: Partial<Record<string, Verdict>>;
	}
	let { why, baseline, arm, verdicts }: Props = $props();
	/** What is not decided has nothing to explain. */
	const isOpen = (metric: string) => verdicts[metric] === 'undecided' || verdicts[metric] === 'none';
	const causes = $derived(toldCauses(why.causes, verdicts));
	const breakdowns = $derived(why.breakdowns.filter((one) => !isOpen(one.metric)));
	const open = $derived(why.breakdowns.filter((one) => isOpen(one.metric)).map((one) => plainName(one.metric)));
	let allFiles = $state(false);
	const MOST_PARTS = 6;
	const columns: Column<Part>[] = $derived([
		{ key: 'name', name: 'File', kind: 'file', text: (file) => file.name, sort: (file) => file.name },
		{
			key: 'owner',
			name: 'Owner',
			text: (file) => file.owner?.name ?? '',
			sort: (file) => file.owner?.name ?? ''
		},
		{ key: 'kind', name: 'Type', text: (file) => file.kind },
		{
			key: 'before',
			name: baseline,
			number: true,
			text: (file) => (file.state === 'added' ? '–' : formatBytes(file.before))
		},
		{
			key: 'after',
			name: arm,
			number: true,
			text: (file) => (file.state === 'gone' ? '–' : formatBytes(file.after))
		},
		{
			key: 'shift',
			name: 'Shift',
			number: true,
			text: (file) => formatDifference('wire', file.shift),
			sort: (file) => Math.abs(file.shift)
		},
		{ key: 'state', name: 'State', text: (file) => file.state }
	]);
	const partName = (breakdown: Breakdown, name: string) =>
		breakdown.metric === 'score' ? metricOf(name).name : name;
	/** Files are many: they are gathered by owner here, and listed one by one below. */
	function rowsOf(breakdown: Breakdown) {
		const gathered =
			breakdown.metric === 'wire' || breakdown.metric === 'requests'
				? byOwner(breakdown)
				: breakdown.parts.map((part) => ({ name: partName(breakdown, part.name), shift: part.shift }));
		const sorted = gathered
			.filter((row) => row.shift !== 0)
			.sort((a, b) => Math.abs(b.shift) - Math.abs(a.shift));
		// What is next to nothing beside the largest part goes together at the end, so that the sum still holds.
		const small = sorted.findIndex(
			(row, i) => i >= MOST_PARTS || Math.abs(row.shift) < 0.01 * Math.abs(sorted[0]!.shift)
		);
		const told = small < 0 || small === sorted.length - 1 ? sorted : sorted.slice(0, small);
		const folded = sorted.slice(told.length);
		return [
			...told,
			...(folded.length
				? [{ name: `${folded.length} small ones`, shift: folded.reduce((sum, row) => sum + row.shift, 0) }]
				: [])
		];
	}
	function byOwner(breakdown: Breakdown) {
		const sums: Record<string, number> = {};
		for (const part of breakdown.parts) {
			const name = part.owner?.kind === 'third-party' ? part.owner.name : `the site’s own ${part.kind}`;
			sums[name] = (sums[name] ?? 0) + part.shift;
		}
		return Object.entries(sums).map(([name, shift]) => ({ name, shift }));
	}
	const files = $derived(why.files.filter((file) => allFiles || file.state !== 'alike'));
	const csv = () =>
		csvText(
			['metric', 'part', 'owner', 'before', 'after', 'shift', 'state'],
			why.breakdowns.flatMap((one) =>
				one.parts.map((part) => [
					one.metric,
					part.name,
					part.owner?.name ?? '',
					part.before,
					part.after,
					part.shift,
					part.state
				])
			)
		);
</script>

{#if causes.length}
	<ol class="causes">
		{#each causes.slice(0, 5) as cause, i (i)}<li>{cause.words}</li>{/each}
	</ol>
{:else}<p>No decided difference of “{arm}” from “{baseline}” has a cause in the evidence.</p>{/if}
{#if open.length}<p class="small muted">Not decided, and so not explained: {listOf(open)}.</p>{/if}
{#if why.lcpElements.before !== why.lcpElements.after}
	<p class="small">
		The largest element is another one: <code>{why.lcpElements.before ?? 'none'}</code> in “{baseline}”,
		<code>{why.lcpElements.after ?? 'none'}</code>
		in “{arm}”.
	</p>
{/if}
<div class="cells grid" style:--cell="21rem">
	{#each breakdowns as breakdown (breakdown.metric)}
		{@const rows = rowsOf(breakdown)}
		<div>
			<h4>{metricOf(breakdown.metric).name}: {formatDifference(breakdown.metric, breakdown.shift)}</h4>
			{#if rows.length}
				<SignedBars {rows} valueOf={(shift) => formatDifference(breakdown.metric, shift)} />
			{:else}<p class="muted small">No part of it differs.</p>{/if}
			<p class="muted small">
				{formatValue(breakdown.metric, breakdown.before)} to
				{formatValue(breakdown.metric, breakdown.after)} on average;
				{Math.abs(breakdown.remainder) <= 0.005 * Math.max(Math.abs(breakdown.shift), 1)
					? 'the parts add up to it.'
					: `the parts leave ${formatDifference(breakdown.metric, -breakdown.remainder)} unexplained.`}
			</p>
		</div>
	{/each}
</div>
<h4>
	Files: {why.requests.added} added, {why.requests.gone} gone, {why.requests.changed} changed, {why.requests
		.alike} alike
</h4>
{#if files.length}
	<Table
		label="Files that differ"
		{columns}
		rows={files}
		key={(file) => file.key}
		pageSize={12}
		size="compact"
	/>
{/if}
<p class="no-print small">
	<Button kind="ghost" size="small" on:click={() => (allFiles = !allFiles)}
		>{allFiles ? 'Only files that differ' : `All ${why.files.length} files`}</Button
	>
	<ChartMenu name="why" {csv} />
</p>

<style>
	.causes {
		padding-left: var(--gap-7);
		list-style: decimal;
		margin-bottom: var(--gap-5);
	}
	.causes li:first-child {
		font-weight: 600;
	}
	.grid {
		margin-bottom: var(--gap-5);
	}
	h4 {
		font: 600 0.95rem/1.3 var(--sans);
		margin: var(--gap-3) 0 var(--gap-2);
	}
	.small {
		font-size: var(--type-3);
		margin: var(--gap-1) 0 var(--gap-3);
	}
</style>
