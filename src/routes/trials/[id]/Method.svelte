<script lang="ts">
	/** How the answer was come by. */
	import Lazy from '$lib/parts/Lazy.svelte';
	import { metricOf } from '$core/metrics/catalogue';
	import { hasStages } from '$core/trial/design/kinds';
	import { percentOf } from './percent';
	import { wordFloors } from '$core/wording/floors';
	import type { PartProps } from './partProps';

	let { data, status }: PartProps<'method'> = $props();
	const trial = $derived(data.trial);
	const floorOf = (id: string) => wordFloors(data.noise[id]?.floors ?? {}, trial.primary);
	const conditionName = (id: string) => data.conditions.find((one) => one.id === id)?.name ?? id;
	const levels = $derived(data.levels.map(percentOf).join(' and '));
</script>

<div class="method">
	<p>
		{trial.adaptive
			? `At most ${trial.rounds} rounds of every variant, with a look after ${trial.planned.join(', ')}`
			: `Each variant was planned for ${trial.rounds} ${trial.rounds === 1 ? 'round' : 'rounds'}`}{trial.warmups
			? ` after ${trial.warmups} ${trial.warmups === 1 ? 'warm-up' : 'warm-ups'} that ${trial.warmups === 1 ? 'is' : 'are'} kept but not counted`
			: ''}, in real Chromium with a clean profile for every load, one load at a time,
		{hasStages(trial.kind) ? 'stage after stage' : 'all variants in random order within each round'}.
		{#if trial.looks.length}Looked at after {trial.looks
				.map((look) => `${look.rounds} rounds (at most ${percentOf(look.spent)} false calls by then)`)
				.join(', ')}.{/if}
	</p>
	<ul class="plain">
		{#each data.conditions as conditions (conditions.id)}<li>
				<b>{conditions.name}:</b>
				{conditions.detail}.{#if data.noise[conditions.id]}
					Noise floor from <a href="/trials/{data.noise[conditions.id]!.trial}">two runs of the same page</a>: {floorOf(
						conditions.id
					)}.{/if}
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
			.join(', ')}, {trial.aim === 'best'
			? 'every pair of candidates, all conditions together; the pairs share it equally, and one that is told apart in everything hands its share on'
			: trial.isLog
				? 'every step against the one before and against the start; the planned steps share it equally, what comes later draws on a last per cent'
				: 'all variants and conditions together'}) shares one error level of 5 %, of which the plan spends 4 %,
		by {hasStages(trial.kind)
			? 'dealing whole rounds anew between the stages'
			: 'flipping the signs of whole rounds'} (step-down maximum of Westfall and Young). The others are shown to explore.
		Order of loads from seed {trial.seed}.
	</p>
	{#if status === 'done' && !hasStages(trial.kind) && data.answer.suggestedRounds === null}
		<Lazy load={() => import('./AddRounds.svelte')} props={{ added: trial.added ?? 0 }} />
	{/if}
</div>

<style>
	.unstable {
		color: var(--worse);
	}
	@media print {
		.method {
			font-size: var(--type-3);
			line-height: 1.2;
		}
	}
</style>
