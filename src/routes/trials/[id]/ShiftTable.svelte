<script lang="ts">
	import { metricDefinition } from '$core/wording/metricDefinition';
	import Scroller from '$lib/parts/Scroller.svelte';
	import { METRICS } from '$core/metrics/catalogue';
	import { csvText } from '$lib/charts/csvText';
	import ChartMenu from '$lib/charts/ChartMenu.svelte';
	import { formatDifference, formatDuration, formatValue } from '$core/wording/format';
	import { wordReferenceCost, wordShift, wordTimingShift } from '$core/wording/shift';
	import type { PartProps } from './partProps';
	import Table from '$lib/parts/Table.svelte';
	import type { Column } from '$lib/parts/tableRows';
	import VerdictMark from '$lib/parts/VerdictMark.svelte';

	let { data }: PartProps<'table'> = $props();
	const { results, timings } = $derived(data);
	const conditions = $derived(data.conditions);
	const comparisons = $derived(data.comparisons);
	const of = (metric: string, condition: string, arm: number) =>
		results.find((one) => one.metric === metric && one.condition === condition && one.arm === arm);
	const csv = () =>
		csvText(
			[
				'arm',
				'baseline',
				'conditions',
				'metric',
				'baseline_median',
				'arm_median',
				'shift',
				'low',
				'high',
				'raw_shift',
				'relative',
				'scale',
				'level',
				'margin',
				'p',
				'adjusted_p',
				'rounds',
				'primary',
				'verdict'
			],
			results
				.filter((one) => one.shift)
				.map((one) => {
					const names = comparisons.find((other) => other.id === one.arm);
					return [
						names?.name ?? '',
						names?.baseline ?? '',
						one.condition,
						one.metric,
						one.baselineMedian,
						one.armMedian,
						one.shift!.estimate,
						one.shift!.low,
						one.shift!.high,
						one.rawShift?.estimate ?? null,
						one.shift!.relative,
						one.scale,
						one.level,
						one.margin,
						one.p,
						one.adjustedP,
						one.n,
						one.primary,
						one.verdict
					];
				})
		);
	type TimingRow = (typeof timings)[number];
	const nameOfArm = (id: number) => comparisons.find((arm) => arm.id === id)?.name ?? '';
	const nameOfConditions = (id: string) => conditions.find((one) => one.id === id)?.name ?? id;
	const timingColumns = $derived<Column<TimingRow>[]>([
		{ key: 'name', name: 'Timing', isRowHead: true, text: ({ name }) => name },
		{
			key: 'arm',
			name: 'Variant',
			text: ({ armId, condition }) => `${nameOfArm(armId)}, ${nameOfConditions(condition)}`
		},
		{ key: 'baseline', name: 'Baseline', number: true, text: ({ baseline }) => formatDuration(baseline) },
		{ key: 'own', name: 'Variant’s own', number: true, text: ({ arm }) => formatDuration(arm) },
		{ key: 'shift', name: 'Shift', text: ({ shift }) => wordTimingShift(shift) },
		...(timings.some(({ marginWords }) => marginWords)
			? [{ key: 'margin', name: 'Its interval', text: ({ marginWords }: TimingRow) => marginWords }]
			: []),
		{ key: 'rounds', name: 'Rounds', number: true, text: ({ rounds }) => rounds }
	]);
	/** Metrics that nothing was measured for would be rows of dashes. */
	const shown = $derived(
		METRICS.filter((metric) => results.some((one) => one.metric === metric.id && one.shift))
	);
	const costOf = (result: Parameters<typeof wordReferenceCost>[0]) => {
		const cost = wordReferenceCost(result);
		return cost && `; ${cost}`;
	};
</script>

{#each comparisons as arm (arm.id)}
	{#if comparisons.length > 1}<h3>{arm.name}</h3>{/if}
	<Scroller label="Shift of {arm.name}">
		<table class="ledger">
			<caption class="visually-hidden">Shift of {arm.name} from {arm.baseline}</caption>
			<thead>
				<tr>
					<th rowspan="2" scope="col">Metric</th>
					{#each conditions as group (group.id)}<th colspan="3" scope="colgroup" class="group">{group.name}</th
						>{/each}
				</tr>
				<tr>
					{#each conditions as group (group.id)}
						<th class="number first" scope="col">{arm.baseline}</th>
						<th class="number" scope="col">{arm.name}</th>
						<th scope="col">Shift and verdict</th>
					{/each}
				</tr>
			</thead>
			<tbody>
				{#each shown as metric (metric.id)}
					<tr class:primary={results.some((one) => one.metric === metric.id && one.primary)}>
						<th scope="row" title={metricDefinition(metric.id)}>{metric.name}</th>
						{#each conditions as one (one.id)}
							{@const result = of(metric.id, one.id, arm.id)}
							<td class="number first"
								>{formatValue(metric.id, result?.baselineMedian ?? null)}<span class="span"
									>{result?.spans.baseline}</span
								></td
							>
							<td class="number"
								>{formatValue(metric.id, result?.armMedian ?? null)}<span class="span">{result?.spans.arm}</span
								></td
							>
							<td class="shift"
								>{result?.shift ? wordShift({ ...result, shift: result.shift }) : '–'}{#if result?.rawShift}<br
									/><span class="muted"
										>before the correction by the reference page: {formatDifference(
											metric.id,
											result.rawShift.estimate
										)}{result.referenceCorrelation === null
											? ''
											: `; page and reference move together by ${result.referenceCorrelation.toFixed(2)}`}{costOf(
											result
										)}</span
									>{/if}{#if result?.primary}<br /><VerdictMark {result} />{/if}</td
							>
						{/each}
					</tr>
				{/each}
			</tbody>
		</table>
	</Scroller>
{/each}
<p class="muted note">
	Medians of the counted loads, with the least and the most below. Metrics in bold were chosen to decide on
	before the first load; the others are shown to explore. <ChartMenu name="shifts" {csv} />
</p>

{#if timings.length}
	<h3>Custom timings</h3>
	<Table
		label="Custom timings"
		columns={timingColumns}
		rows={timings}
		key={({ condition, armId, name }) => `${condition}/${armId}/${name}`}
	/>
	<p class="muted note">
		Marks and measures that the pages set themselves. Shown to explore, with intervals of {(
			timings[0]!.level * 100
		).toFixed(1)} %; nothing was decided on them.
	</p>
{/if}

<style>
	.group {
		color: var(--ink);
		border-left: 1px solid var(--rule);
		text-align: left;
	}
	.first {
		border-left: 1px solid var(--rule);
	}
	th[scope='row'] {
		font-weight: 400;
		min-width: 8rem;
	}
	.primary th[scope='row'] {
		font-weight: 600;
	}
	.span {
		display: block;
		color: var(--muted);
		font-size: var(--type-2);
	}
	.shift {
		min-width: 10rem;
		font-size: var(--type-3);
	}
	table {
		font-size: var(--type-3);
	}
	thead .number {
		white-space: normal;
		min-width: 4.6rem;
	}
	.note {
		font-size: var(--type-3);
		margin-top: var(--gap-3);
	}
</style>
