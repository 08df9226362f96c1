<script lang="ts">
	/** The shift of each figure broken down into parts that add up to it. */
	import Scroller from '$lib/parts/Scroller.svelte';
	import CopyButton from '$lib/charts/CopyButton.svelte';
	import { csvOf } from '$core/formats/csv';
	import { metricOf } from '$core/metrics/catalogue';
	import type { Verdict } from '$core/trial/types';
	import { listOf, plainName } from '$core/wording/plainNames';
	import type { Breakdown } from '$core/compare/breakdowns';
	import type { WhyText } from '$core/wording/causes';
	import { formatBytes, formatDifference, formatValue } from '$core/wording/format';

	interface Props {
		why: WhyText;
		baseline: string;
		arm: string;
		/** Of the metrics that the trial decides on. */
		verdicts: Partial<Record<string, Verdict>>;
	}
	let { why, baseline, arm, verdicts }: Props = $props();
	/** What is not decided has nothing to explain; a cause is one only of a difference. */
	const isOpen = (metric: string) => verdicts[metric] === 'undecided' || verdicts[metric] === 'none';
	const differs = (metric: string) => ['better', 'worse', 'slight'].includes(verdicts[metric] ?? '');
	/** Requests are no metric of most trials: they go with the bytes. */
	const causes = $derived(
		why.causes.filter(({ metric }) => differs(metric) || (metric === 'requests' && differs('wire')))
	);
	const breakdowns = $derived(why.breakdowns.filter((one) => !isOpen(one.metric)));
	const open = $derived(why.breakdowns.filter((one) => isOpen(one.metric)).map((one) => plainName(one.metric)));
	let allFiles = $state(false);
	const MOST_PARTS = 6;
	const STATES = { added: 'added', gone: 'gone', changed: 'changed', alike: 'alike' };
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
		csvOf(
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
		{#each causes.slice(0, 5) as cause (cause.subject + cause.metric)}<li>{cause.words}</li>{/each}
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
<div class="grid">
	{#each breakdowns as breakdown (breakdown.metric)}
		{@const rows = rowsOf(breakdown)}
		{@const most = Math.max(...rows.map((row) => Math.abs(row.shift)), 1e-9)}
		<div>
			<h4>{metricOf(breakdown.metric).name}: {formatDifference(breakdown.metric, breakdown.shift)}</h4>
			{#if rows.length}
				<table>
					<tbody>
						{#each rows as row (row.name)}
							<tr>
								<th scope="row">{row.name}</th>
								<td class="figures">{formatDifference(breakdown.metric, row.shift)}</td>
								<td class="track" aria-hidden="true"
									><span class:less={row.shift < 0} style:width="{(Math.abs(row.shift) / most) * 50}%"
									></span></td
								>
							</tr>
						{/each}
					</tbody>
				</table>
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
	<Scroller label="Files that differ">
		<table class="ledger">
			<thead
				><tr
					><th scope="col">File</th><th scope="col">Whose</th><th scope="col">Type</th><th
						scope="col"
						class="number">{baseline}</th
					><th scope="col" class="number">{arm}</th><th scope="col" class="number">Shift</th><th scope="col"
						>State</th
					></tr
				></thead
			>
			<tbody>
				{#each files.slice(0, allFiles ? undefined : 12) as file (file.key)}
					<tr>
						<td class="file" title={file.key}>{file.name}</td><td>{file.owner?.name ?? ''}</td><td
							>{file.kind}</td
						>
						<td class="number">{file.state === 'added' ? '–' : formatBytes(file.before)}</td><td class="number"
							>{file.state === 'gone' ? '–' : formatBytes(file.after)}</td
						>
						<td class="number">{formatDifference('wire', file.shift)}</td><td>{STATES[file.state]}</td>
					</tr>
				{/each}
			</tbody>
		</table>
	</Scroller>
{/if}
<p class="no-print small">
	<button onclick={() => (allFiles = !allFiles)}
		>{allFiles ? 'Fold what is alike' : `Show all ${why.files.length} files`}</button
	>
	<CopyButton label="Copy all parts as CSV" text={csv} file="why.csv" />
</p>

<style>
	.causes {
		padding-left: 1.3rem;
		list-style: decimal;
		margin-bottom: 0.8rem;
	}
	.causes li:first-child {
		font-weight: 600;
	}
	.grid {
		display: grid;
		grid-template-columns: repeat(auto-fit, minmax(min(100%, 21rem), 1fr));
		gap: 0.6rem 1.8rem;
		margin-bottom: 0.8rem;
	}
	h4 {
		font: 600 0.95rem/1.3 var(--sans);
		margin: 0.4rem 0 0.2rem;
	}
	.grid table {
		width: 100%;
		border-collapse: collapse;
		font-size: 0.88rem;
	}
	.grid th {
		font-weight: 400;
		text-align: left;
		padding: 0.1rem 0.4rem 0.1rem 0;
		overflow-wrap: anywhere;
	}
	.grid td {
		text-align: right;
		white-space: nowrap;
		padding: 0.1rem 0.4rem;
	}
	.track {
		width: 32%;
		position: relative;
	}
	.track span {
		position: absolute;
		left: 50%;
		top: 0.35rem;
		height: 0.6rem;
		background: var(--ink);
	}
	.track span.less {
		left: auto;
		right: 50%;
		background: none;
		border: 1px solid var(--ink);
	}
	.small {
		font-size: 0.86rem;
		margin: 0.1rem 0 0.4rem;
	}
	.file {
		max-width: 16rem;
		overflow: hidden;
		text-overflow: ellipsis;
		white-space: nowrap;
	}
	code {
		overflow-wrap: anywhere;
	}
</style>
