<script lang="ts">
	/** The loads of one metric, drawn with their shifts. */
	import { goto } from '$app/navigation';
	import { METRICS } from '$core/metrics/catalogue';
	import Choice from '$lib/parts/Choice.svelte';
	import EstimationPlot from '$lib/charts/EstimationPlot.svelte';
	import type { SheetView } from '$lib/server/rooms/trials/sheetView';

	interface Props {
		data: SheetView;
		/** A sweep draws the variants of one page at a time. */
		drawn: SheetView['arms'];
	}
	let { data, drawn }: Props = $props();

	/** Others would be empty drawings; the one that the address asks for stands all the same. */
	const metrics = $derived(
		METRICS.filter(
			({ id }) =>
				id === data.metric || data.judgement.results.some(({ metric, shift }) => metric === id && shift)
		)
	);
	const isDrawn = (load: SheetView['loads'][number]) =>
		load.counts &&
		load.excluded === null &&
		load.figures[data.metric] != null &&
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
		const url = new URL(location.href);
		url.searchParams.set('metric', metric);
		void goto(url, { noScroll: true, keepFocus: true, replaceState: true });
	}
</script>

<div class="chooser no-print">
	<Choice
		label="Metric"
		inline
		options={metrics.map(({ id, name }) => ({ value: id, text: name }))}
		value={data.metric}
		onchange={choose}
	/>
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
