<script lang="ts">
	import Scroller from '$lib/parts/Scroller.svelte';
	import { metricOf, type Figures, type MetricId } from '../../../core/metrics/catalogue';
	import { formatMoment, formatValue } from '../../../core/wording/format';

	interface Row {
		id: number;
		armId: number;
		conditionId: string;
		round: number;
		warmup: boolean;
		status: string;
		capped: boolean;
		reason: string | null;
		startedAt: string;
		figures: Figures;
	}
	interface Props {
		loads: Row[];
		arms: { id: number; name: string }[];
		conditions: { id: string; name: string }[];
		primary: MetricId[];
		outlying: Record<string, number[]>;
	}
	let { loads, arms, conditions, primary, outlying }: Props = $props();
	let condition = $state('');
	let arm = $state(0);
	const shown = $derived(loads.filter((load) => (!condition || load.conditionId === condition) && (!arm || load.armId === arm)));
	const nameOf = (id: number) => arms.find((one) => one.id === id)?.name ?? '';
	const conditionName = (id: string) => conditions.find((one) => one.id === id)?.name ?? id;
</script>

{#if loads.length}
	<div class="filters">
		<label>Conditions <select bind:value={condition}><option value="">All</option>{#each conditions as one (one.id)}<option value={one.id}>{one.name}</option>{/each}</select></label>
		<label>Arm <select bind:value={arm}><option value={0}>All</option>{#each arms as one (one.id)}<option value={one.id}>{one.name}</option>{/each}</select></label>
		<span class="muted figures">{shown.length} of {loads.length}</span>
	</div>
	<Scroller label="Table of loads">
		<table class="ledger">
			<thead>
				<tr>
					<th scope="col">Load</th><th scope="col">Conditions</th><th scope="col">Round</th><th scope="col">Arm</th>
					{#each primary as metric (metric)}<th scope="col" class="number">{metricOf(metric).short}</th>{/each}
					<th scope="col">Note</th>
				</tr>
			</thead>
			<tbody>
				{#each shown as load (load.id)}
					<tr class:aside={load.warmup || load.status === 'failed'}>
						<td><a href="/loads/{load.id}" data-row-link title={formatMoment(load.startedAt)}>Evidence<span class="visually-hidden"> of load {load.id}</span></a></td>
						<td>{conditionName(load.conditionId)}</td>
						<td>{load.warmup ? `warm-up ${load.round}` : load.round}</td>
						<td>{nameOf(load.armId)}</td>
						{#if load.status === 'failed'}
							<td colspan={primary.length + 1} class="failed">Failed: {load.reason}</td>
						{:else}
							{#each primary as metric (metric)}
								<td class="number">{formatValue(metric, load.figures[metric])}{#if outlying[metric]?.includes(load.id)}<abbr title="Far from the other loads of this arm; still counted">°</abbr>{/if}</td>
							{/each}
							<td>{load.warmup ? 'not counted' : load.capped ? 'ended at the time cap' : ''}</td>
						{/if}
					</tr>
				{/each}
			</tbody>
		</table>
	</Scroller>
{:else}
	<p class="muted">No load has ended yet.</p>
{/if}

<style>
	.filters {
		display: flex;
		gap: 1.2rem;
		align-items: baseline;
		margin-bottom: 0.5rem;
		font-size: 0.9rem;
		flex-wrap: wrap;
	}
	select {
		background: var(--panel);
		color: var(--ink);
		border: 1px solid var(--rule);
		padding: 0.25rem;
		max-width: 14rem;
	}
	.aside td {
		color: var(--muted);
	}
	.failed {
		color: var(--worse) !important;
	}
	abbr {
		text-decoration: none;
	}
</style>
