<script lang="ts">
	/** The loads of one metric, drawn with their shifts. */
	import { page } from '$app/state';
	import { queryWith } from '$lib/fragmentText';
	import { gotoLoaded } from '$lib/gotoLoaded';
	import Choice from '$lib/parts/Choice.svelte';
	import EstimationPlot from '$lib/charts/EstimationPlot.svelte';
	import type { PartProps } from './partProps';

	let { data, drawn }: PartProps<'shifts'> = $props();

	const isDrawn = ({ arm }: { arm: number }) => drawn.some(({ id }) => id === arm);
	const dotsOf = (condition: string) => data.dots.filter((dot) => dot.condition === condition && isDrawn(dot));
	const shiftsOf = (condition: string) =>
		data.shifts.filter((shift) => shift.condition === condition && isDrawn(shift));

	function choose(metric: string) {
		const isThere = ({ chosen }: { chosen?: { metric?: string } }) => chosen?.metric === metric;
		void gotoLoaded(queryWith(page.url.search, { metric }), isThere);
	}
</script>

<div class="chooser no-print">
	<Choice
		label="Metric"
		inline
		options={data.metrics.map(({ id, name }) => ({ value: id, text: name }))}
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
				results={shiftsOf(conditions.id)}
			/>
		</div>
	{/each}
</div>
