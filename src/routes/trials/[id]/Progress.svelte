<script lang="ts">
	/** Between looks: how far the trial is and how noisy its loads are, and nothing that compares. */
	import { metricOf } from '$core/metrics/catalogue';
	import type { PooledSpread } from '$core/trial/types';
	import { formatIn } from '$core/wording/format';
	import { plainName } from '$core/wording/plainNames';
	import Scroller from '$lib/parts/Scroller.svelte';

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
</script>

<p>
	{trial.wholeRounds}
	{trial.wholeRounds === 1 ? 'round is' : 'rounds are'} whole.
	{#if trial.nextLook}The answer comes at the look after {trial.nextLook} rounds: an answer that is watched as it
		grows would be wrong far more often.{/if}
</p>
{#if spread.length}
	<Scroller label="Spread of the loads so far">
		<table class="ledger">
			<caption>How much loads of the same variant differ so far</caption>
			<thead
				><tr
					><th scope="col">Metric</th>{#each conditions as one (one.id)}<th scope="col" class="number"
							>{one.name}</th
						>{/each}</tr
				></thead
			>
			<tbody>
				{#each metrics as metric (metric)}
					<tr
						><th scope="row">{plainName(metric)}</th>{#each conditions as one (one.id)}<td class="number"
								>{words(of(metric, one.id))}</td
							>{/each}</tr
					>
				{/each}
			</tbody>
		</table>
	</Scroller>
{/if}

<style>
	caption {
		text-align: left;
		color: var(--muted);
		padding: 0.4rem 0;
	}
</style>
