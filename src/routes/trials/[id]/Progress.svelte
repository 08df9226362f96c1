<script lang="ts">
	/** Between looks: how far the trial is and how noisy its loads are, and nothing that compares. */
	import { metricOf } from '$core/metrics/catalogue';
	import type { PooledSpread } from '$core/trial/types';
	import { formatIn } from '$core/wording/format';
	import { plainName } from '$core/wording/plainNames';
	import Table from '$lib/parts/Table.svelte';
	import type { Column } from '$lib/parts/tableRows';

	interface Props {
		trial: { nextLook: number | null; wholeRounds: number; kind: string };
		spread: PooledSpread[];
		conditions: { id: string; name: string }[];
	}
	let { trial, spread, conditions }: Props = $props();
	const metrics = $derived([...new Set(spread.map((one) => one.metric))]);
	const of = (metric: string, condition: string) =>
		spread.find((one) => one.metric === metric && one.condition === condition);
	const words = (one: PooledSpread | undefined) =>
		one
			? `${formatIn(metricOf(one.metric).unit, one.spread, true)}${one.share === null ? '' : ` (${(one.share * 100).toFixed(0)} %)`}`
			: '–';
	const columns: Column<(typeof metrics)[number]>[] = $derived([
		{ key: 'metric', name: 'Spread between loads of one variant', isRowHead: true, text: plainName },
		...conditions.map(({ id, name }) => ({
			key: id,
			name,
			number: true,
			text: (metric: string) => words(of(metric, id))
		}))
	]);
</script>

<p>
	{trial.wholeRounds}
	{trial.wholeRounds === 1 ? 'round is' : 'rounds are'} whole.
	{#if trial.nextLook}The answer comes at the look after {trial.nextLook} rounds: an answer that is watched as it
		grows would be wrong far more often.{/if}
</p>
{#if spread.length}
	<Table
		label="How much loads of the same variant differ so far"
		{columns}
		rows={metrics}
		key={(metric) => metric}
	/>
{/if}
