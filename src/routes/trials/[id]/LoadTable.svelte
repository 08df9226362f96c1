<script lang="ts">
	import { enhance } from '$app/forms';
	import Scroller from '$lib/parts/Scroller.svelte';
	import { metricOf, type Figures, type MetricId } from '$core/metrics/catalogue';
	import { formatMoment, formatValue } from '$core/wording/format';

	interface Row {
		id: number;
		armId: number;
		conditionId: string;
		round: number;
		warmup: boolean;
		status: string;
		capped: boolean;
		reason: string | null;
		excluded: string | null;
		failedStep: number | null;
		speedOff: boolean;
		startedAt: string;
		figures: Figures;
	}
	interface Props {
		loads: Row[];
		arms: { id: number; name: string; page?: string | null }[];
		conditions: { id: string; name: string }[];
		primary: MetricId[];
		outlying: Record<string, number[]>;
	}
	let { loads, arms, conditions, primary, outlying }: Props = $props();
	let condition = $state('');
	let arm = $state(0);
	let leaving: number | null = $state(null);
	const MOST = 60;
	let all = $state(false);
	const fitting = $derived(
		loads.filter((load) => (!condition || load.conditionId === condition) && (!arm || load.armId === arm))
	);
	const shown = $derived(all ? fitting : fitting.slice(0, MOST));
	const nameOf = (id: number) => {
		const one = arms.find((other) => other.id === id);
		return one ? `${one.page ? `${one.page}, ` : ''}${one.name}` : '';
	};
	const conditionName = (id: string) => conditions.find((one) => one.id === id)?.name ?? id;
</script>

{#if loads.length}
	<div class="filters">
		<label
			>Conditions <select bind:value={condition}
				><option value="">All</option>{#each conditions as one (one.id)}<option value={one.id}
						>{one.name}</option
					>{/each}</select
			></label
		>
		<label
			>Arm <select bind:value={arm}
				><option value={0}>All</option>{#each arms as one (one.id)}<option value={one.id}
						>{nameOf(one.id)}</option
					>{/each}</select
			></label
		>
		<span class="muted figures">{shown.length} of {loads.length}</span>
	</div>
	<Scroller label="Table of loads">
		<table class="ledger">
			<thead>
				<tr>
					<th scope="col">Load</th><th scope="col">Conditions</th><th scope="col">Round</th><th scope="col"
						>Arm</th
					>
					{#each primary as metric (metric)}<th scope="col" class="number">{metricOf(metric).short}</th>{/each}
					<th scope="col">Note</th><th scope="col"><span class="visually-hidden">Exclude or include</span></th>
				</tr>
			</thead>
			<tbody>
				{#each shown as load (load.id)}
					<tr class:aside={load.warmup || load.status === 'failed' || load.excluded !== null}>
						<td
							><a href="/loads/{load.id}" data-row-link title={formatMoment(load.startedAt)}
								>Evidence<span class="visually-hidden"> of load {load.id}</span></a
							></td
						>
						<td>{conditionName(load.conditionId)}</td>
						<td>{load.warmup ? `warm-up ${load.round}` : load.round}</td>
						<td>{nameOf(load.armId)}</td>
						{#if load.status === 'failed'}
							<td colspan={primary.length + 1} class="failed">Failed: {load.reason}</td>
						{:else}
							{#each primary as metric (metric)}
								<td class="number"
									>{formatValue(metric, load.figures[metric])}{#if outlying[metric]?.includes(load.id)}<abbr
											title="Far from the other loads of this arm; still counted">°</abbr
										>{/if}</td
								>
							{/each}
							<td>
								{[
									load.excluded && `excluded: ${load.excluded}`,
									load.warmup && 'not counted',
									load.capped && 'ended at the time cap',
									load.failedStep && `step ${load.failedStep} failed`,
									load.speedOff && 'the machine’s speed differs within this round'
								]
									.filter(Boolean)
									.join('; ')}
							</td>
						{/if}
						<td>
							{#if !load.warmup}
								{#if load.excluded !== null}
									<form method="POST" action="?/restore" use:enhance>
										<input type="hidden" name="load" value={load.id} /><button>Include again</button>
									</form>
								{:else if leaving === load.id}
									<form
										method="POST"
										action="?/exclude"
										use:enhance={() =>
											async ({ update }) => {
												await update();
												leaving = null;
											}}
										class="leave"
									>
										<input type="hidden" name="load" value={load.id} />
										<label
											><span class="visually-hidden">Reason to exclude load {load.id}</span><input
												name="reason"
												placeholder="Why?"
												required
												maxlength="300"
											/></label
										>
										<button>Exclude</button>
									</form>
								{:else}<button onclick={() => (leaving = load.id)}
										>Exclude…<span class="visually-hidden"> load {load.id}</span></button
									>{/if}
							{/if}
						</td>
					</tr>
				{/each}
			</tbody>
		</table>
	</Scroller>
	{#if fitting.length > MOST}<button onclick={() => (all = !all)}
			>{all ? `Show the first ${MOST}` : `Show all ${fitting.length}`}</button
		>{/if}
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
	.leave {
		display: flex;
		gap: 0.3rem;
	}
	.leave input {
		width: 9rem;
	}
	.aside td {
		color: var(--muted);
	}
	.failed {
		color: var(--worse) !important;
	}
	abbr {
		text-decoration: none;
		cursor: help;
	}
	button {
		background: none;
		border: 0;
		color: var(--action);
		text-decoration: underline;
		cursor: pointer;
		padding: 0;
		white-space: nowrap;
		font-size: 0.86rem;
	}
	table {
		font-size: 0.88rem;
	}
</style>
