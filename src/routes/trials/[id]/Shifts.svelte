<script lang="ts">
	/** The loads of one metric, drawn with their shifts. */
	import { goto } from '$app/navigation';
	import { METRICS, metricOf } from '$core/metrics/catalogue';
	import { hasPages } from '$core/trial/kinds';
	import EstimationPlot from '$lib/charts/EstimationPlot.svelte';
	import type { SheetView } from '$lib/server/trials/sheetView';

	interface Props {
		data: SheetView;
		/** A sweep draws the arms of one page at a time. */
		drawn: SheetView['arms'];
		armId: number;
	}
	let { data, drawn, armId = $bindable() }: Props = $props();
	const trial = $derived(data.trial);
	const pairs = $derived(data.comparisons.filter((one) => one.id !== 0));

	const isDrawn = (load: SheetView['loads'][number]) =>
		!load.warmup &&
		load.excluded === null &&
		load.figures[data.metric] !== null &&
		drawn.some((arm) => arm.id === load.armId);
	const dotsOf = (id: string) =>
		data.loads
			.filter((load) => load.conditionId === id && isDrawn(load))
			.map((load) => ({
				load: load.id,
				arm: load.armId,
				round: load.round,
				value: load.figures[data.metric]!,
				outlying: data.outlying[data.metric]?.includes(load.id) ?? false
			}));

	function choose(metric: string) {
		void goto(`?metric=${metric}#shifts`, { noScroll: true, keepFocus: true, replaceState: true });
	}
</script>

<section id="shifts" aria-labelledby="shifts-title">
	<div class="with-choice">
		<h2 id="shifts-title">Loads and shift: {metricOf(data.metric).name}</h2>
		<div class="chooser no-print">
			{#if hasPages(trial.kind)}<label
					>Page <select bind:value={armId}
						>{#each pairs as one, i (one.id)}<option value={i === 0 ? 0 : one.id}>{one.page}</option
							>{/each}</select
					></label
				>{/if}
			<label>
				<span>Metric</span>
				<select value={data.metric} onchange={(event) => choose(event.currentTarget.value)}>
					{#each METRICS as metric (metric.id)}<option value={metric.id}>{metric.name}</option>{/each}
				</select>
			</label>
		</div>
	</div>
	<div class="conditions">
		{#each data.conditions as conditions (conditions.id)}
			<div class="panel">
				<h3>{conditions.name}</h3>
				<EstimationPlot
					metric={data.metric}
					title={conditions.name}
					arms={drawn}
					dots={dotsOf(conditions.id)}
					results={data.judgement.results.filter(
						(one) =>
							one.condition === conditions.id &&
							one.metric === data.metric &&
							drawn.some((arm) => arm.id === one.arm)
					)}
				/>
			</div>
		{/each}
	</div>
</section>

<style>
	label {
		font-size: 0.9rem;
		color: var(--muted);
	}
</style>
