<script lang="ts">
	/** How the answer was come by. */
	import { enhance } from '$app/forms';
	import { metricOf } from '$core/metrics/catalogue';
	import { hasStages } from '$core/trial/kinds';
	import { reserveSpending } from '$core/trial/looks';
	import type { SheetView } from '$lib/server/trials/sheetView';

	interface Props {
		data: SheetView;
		status: string;
	}
	let { data, status }: Props = $props();
	const trial = $derived(data.trial);
	const conditionName = (id: string) => data.conditions.find((one) => one.id === id)?.name ?? id;
	const percentOf = (share: number) => `${(share * 100).toFixed(share < 0.1 ? 2 : 1).replace(/\.?0+$/, '')} %`;
	const levels = $derived(
		[...new Set(data.judgement.results.map((one) => percentOf(one.level)))].join(' and ')
	);
</script>

<section id="method" aria-labelledby="method-title">
	<h2 id="method-title">Method</h2>
	<p>
		{trial.adaptive
			? `At most ${trial.rounds} rounds of every arm, with a look after ${trial.planned.join(', ')}`
			: `Each arm was planned for ${trial.rounds} ${trial.rounds === 1 ? 'round' : 'rounds'}`}{trial.warmups
			? ` after ${trial.warmups} ${trial.warmups === 1 ? 'warm-up' : 'warm-ups'} that ${trial.warmups === 1 ? 'is' : 'are'} kept but not counted`
			: ''}, in real Chromium with a clean profile for every load, one load at a time,
		{hasStages(trial.kind) ? 'stage after stage' : 'all arms in random order within each round'}.
		{#if trial.looks.length}Looked at after {trial.looks
				.map((look) => `${look.rounds} rounds (at most ${percentOf(look.spent)} false calls by then)`)
				.join(', ')}.{/if}
	</p>
	<ul class="plain">
		{#each data.conditions as conditions (conditions.id)}<li>
				<b>{conditions.name}:</b>
				{conditions.detail}.
			</li>{/each}
	</ul>
	{#if data.settlings.length}
		<h3>Waiting for stable pages</h3>
		<ul class="plain">
			{#each data.settlings as one, i (i)}<li class:unstable={!one.stable}>
					{one.arm}, {conditionName(one.conditionId)}: {one.words}
				</li>{/each}
		</ul>
	{/if}
	<p>
		Shifts are Hodges-Lehmann estimates with {levels || '95 %'} intervals
		{hasStages(trial.kind)
			? 'from the rank-sum distribution; a reference page’s own figure is taken off round by round'
			: 'from the exact signed-rank distribution of the paired rounds'}. Everything the trial decides on ({trial.primary
			.map((id) => metricOf(id).short)
			.join(', ')}, all variants and conditions together) shares one error level of 5 %, of which the plan
		spends 4 %, by {hasStages(trial.kind)
			? 'dealing whole rounds anew between the stages'
			: 'flipping the signs of whole rounds'} (step-down maximum of Westfall and Young). The others are shown to explore.
		Order of loads from seed {trial.seed}.
	</p>
	{#if status === 'done' && !hasStages(trial.kind)}
		<form method="POST" action="?/rounds" use:enhance class="more no-print">
			<label>Add <input type="number" name="rounds" min="1" max="50" value="6" /> rounds</label>
			<button>Add them</button>
			<span class="muted small"
				>A further look spends {percentOf(
					reserveSpending((trial.added ?? 0) + 1) - reserveSpending(trial.added ?? 0)
				)} of the error level that the plan left; calls that were made stay.</span
			>
		</form>
	{/if}
</section>

<style>
	.unstable {
		color: var(--worse);
	}

	@media print {
		#method {
			font-size: 8pt;
			line-height: 1.2;
		}
	}
</style>
