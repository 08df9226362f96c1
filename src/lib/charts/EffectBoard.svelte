<script lang="ts">
	/** What one release did, metric by metric, on the axis of the shift board. */
	import { boardMark } from '$core/trial/judge/board';
	import type { EffectAnswer } from '$core/field/effect/types';
	import type { FieldMetric } from '$core/field/histogram';
	import { metricOf } from '$core/metrics/catalogue';
	import {
		asShift,
		describeDrift,
		describeEffectBasis,
		describeMix,
		describeTrend,
		describeTooSoon
	} from '$core/wording/field';
	import { formatValue } from '$core/wording/format';
	import { wordShift, wordVerdict } from '$core/wording/shift';
	import BoardTrack from './BoardTrack.svelte';

	interface Props {
		label: string;
		rows: readonly {
			metric: FieldMetric;
			control: 'other-pages' | 'competitor' | null;
			answer: EffectAnswer;
		}[];
	}
	let { label, rows }: Props = $props();
	/** Said once where it is the same for all metrics. */
	const bases = $derived([
		...new Set(rows.flatMap(({ answer }) => ('effect' in answer ? [describeEffectBasis(answer.effect)] : [])))
	]);
</script>

<!-- A wide table scrolls in a box of its own, which the keyboard can reach. -->
<!-- svelte-ignore a11y_no_noninteractive_tabindex -->
<div class="box" role="region" aria-label={label} tabindex="0">
	<table aria-label={label}>
		<thead>
			<tr>
				<th>Metric, p75</th>
				<th class="number">Before</th>
				<th class="axis"><span>better</span><span>margin</span><span>worse</span></th>
				<th>Verdict</th>
				<th>Change</th>
			</tr>
		</thead>
		<tbody>
			{#each rows as { metric, control, answer } (metric)}
				<tr>
					<th scope="row">{metricOf(metric).short}</th>
					{#if 'effect' in answer}
						{@const result = asShift(metric, answer.effect)}
						<td class="number">{formatValue(metric, answer.effect.before)}</td>
						<td class="axis"><BoardTrack mark={boardMark(result)} /></td>
						<td class="verdict {result.verdict}">{wordVerdict(result)}</td>
						<td>
							{#if result.shift}{wordShift({ ...result, shift: result.shift })}{/if}
							<br /><span class="muted small">{describeDrift(metric, answer.effect, control)}</span>
							{#if answer.effect.mix}<br /><span class="muted small">{describeMix(answer.effect)}</span>{/if}
							{#if answer.effect.trend}<br /><span class="muted small"
									>{describeTrend(metric, answer.effect)}</span
								>{/if}
						</td>
					{:else}
						<td class="number">–</td>
						<td class="axis"><BoardTrack mark={null} /></td>
						<td colspan="2" class="muted">{describeTooSoon(answer.tooSoon)}</td>
					{/if}
				</tr>
			{/each}
		</tbody>
	</table>
</div>
{#each bases as basis (basis)}<p class="muted small basis">{basis}</p>{/each}

<style>
	.box {
		overflow-x: auto;
	}
	table {
		width: 100%;
		border-collapse: collapse;
		margin-bottom: var(--gap-4);
	}
	th,
	td {
		padding: var(--gap-3) var(--gap-5) var(--gap-3) 0;
		text-align: left;
		vertical-align: top;
		border-bottom: 1px solid var(--rule);
	}
	.number {
		text-align: right;
		white-space: nowrap;
		font-variant-numeric: tabular-nums;
	}
	.axis {
		min-width: 11rem;
		width: 26%;
	}
	thead .axis span {
		display: inline-block;
		width: 33%;
		font-weight: 400;
		font-size: var(--type-3);
		color: var(--muted);
	}
	thead .axis span:nth-child(2) {
		text-align: center;
	}
	thead .axis span:nth-child(3) {
		text-align: right;
	}
	.basis {
		margin-bottom: var(--gap-6);
	}
	/* Narrow screens scroll the board: words a letter wide cannot be read. */
	td:last-child {
		min-width: 16rem;
	}
	.verdict {
		min-width: 7rem;
	}
	.better,
	.worse {
		font-weight: 600;
	}
</style>
