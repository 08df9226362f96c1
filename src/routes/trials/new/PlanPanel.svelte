<script lang="ts">
	/** What the trial costs and what it can see, as it is being written. */
	import { hasPages, hasStages } from '$core/trial/design/kinds';
	import { ASSUMED_SPREAD, visibleShare } from '$core/trial/noise/noise';
	import { PATIENCE } from '$core/load/record/limits';
	import { estimatePlan, lateLoadsOf } from '$core/trial/design/planEstimate';
	import { usefulStepRounds } from '$core/trial/design/log';
	import { fewestRounds } from '$core/trial/judge/verdict';
	import { formatMoment, formatWait } from '$core/wording/format';
	import type { TypedTrial } from '$lib/server/rooms/trials/form';
	import { aimOf, kindOf } from './drafts';

	interface Props {
		draft: TypedTrial;
		conditions: readonly { id: string; name: string; noise: { spread: number } | null }[];
		/** About what a load takes, ms, and what the lab has before it. */
		loadMs: number;
		queuedMs: number;
		/** UTC ISO text; empty until the page is in a browser. */
		now: string;
	}
	let { draft, conditions, loadMs, queuedMs, now }: Props = $props();
	const kind = $derived(kindOf(draft));
	/** Of a log the page as it is, and the steps that are planned. */
	const arms = $derived.by(() => {
		if (hasStages(kind) && draft.log) return 1 + (draft.plannedSteps ?? 0);
		const anonymous = draft.arms.filter(({ before }) => !before).length;
		return draft.arms.length + (hasPages(kind) ? anonymous * draft.alsoAs.length : 0);
	});
	/** Of a log on a sample: pages that every stage loads. */
	const pages = $derived(
		hasStages(kind) && draft.log ? 1 + draft.samplePages.split('\n').filter((line) => line.trim()).length : 1
	);
	/** The plan may spend this much of the error level. */
	const SPENT = 0.04;
	const estimate = $derived(
		estimatePlan({
			kind,
			aim: aimOf(draft),
			arms,
			conditions: draft.conditions.length,
			primary: draft.primary.length,
			adaptive: draft.adaptive,
			rounds: draft.rounds ?? 0,
			warmups: draft.warmups ?? 0,
			hasReference: draft.referenceUrl.trim() !== '',
			samplePages: pages - 1
		})
	);
	/** Metrics on each device and page. */
	const judged = $derived(draft.primary.length * draft.conditions.length * pages);
	const usefulRounds = $derived(
		hasStages(kind) && draft.log && draft.plannedSteps && judged
			? usefulStepRounds(draft.plannedSteps, judged)
			: 0
	);
	const isAdaptive = $derived(draft.adaptive && !hasStages(kind));
	const level = $derived(SPENT / estimate.pairCount);
	const needed = $derived(fewestRounds(level));
	const isTooFew = $derived(!hasStages(kind) && estimate.rounds < needed);
	const sights = $derived(
		hasStages(kind) || isTooFew
			? []
			: conditions
					.filter(({ id }) => draft.conditions.includes(id))
					.map(({ id, name, noise }) => ({
						id,
						name,
						share: visibleShare(estimate.rounds, noise?.spread ?? ASSUMED_SPREAD, level, estimate.tests),
						isMeasured: noise !== null
					}))
	);
	const late = $derived(draft.lateLoads ? lateLoadsOf({ kind, arms, conditions: draft.conditions.length }) : 0);
	const duration = $derived((estimate.loads + late) * loadMs + (late / 2) * PATIENCE.leastMs);
	const end = $derived(
		now && estimate.loads ? formatMoment(new Date(Date.parse(now) + queuedMs + duration).toISOString()) : ''
	);
</script>

<aside class="plan panel" aria-label="What this trial costs and sees">
	<h2>The plan</h2>
	<dl>
		<dt>Loads</dt>
		<dd class="figures">
			{isAdaptive ? 'at most ' : ''}{estimate.loads}{late ? `, then ${late} for what comes late` : ''}
		</dd>
		<dt>Lab time</dt>
		<dd class="figures">{isAdaptive ? 'at most ' : ''}{formatWait(duration)}</dd>
		{#if queuedMs > 0}<dt>Before it</dt>
			<dd>{formatWait(queuedMs)} of other work</dd>{/if}
		{#if end}<dt>Done</dt>
			<dd>{isAdaptive ? 'by ' : 'about '}{end}</dd>{/if}
	</dl>
	{#if usefulRounds > estimate.rounds}
		<p class="message small">
			With {judged} figures judged together, a step that moves one of them alone can be called from {usefulRounds}
			rounds on.
		</p>
	{/if}
	{#if isTooFew}
		<p class="wrong" role="alert">Fewer than {needed} rounds cannot show a difference, however large.</p>
	{:else if sights.length}
		<h3>Smallest change it sees</h3>
		<ul class="plain">
			{#each sights as sight (sight.id)}
				<li>
					<b class="figures">{(sight.share * 100).toFixed(0)} %</b> of the largest paint, {sight.name}
					<span class="muted small"
						>({sight.isMeasured ? 'by this lab’s noise floor' : 'if loads of one page vary by 10 %'})</span
					>
				</li>
			{/each}
		</ul>
		<p class="muted small">In four of five trials. Smaller changes may stay undecided.</p>
	{/if}
</aside>

<style>
	.plan {
		position: sticky;
		top: 3.2rem;
		font-size: var(--type-4);
	}
	dl {
		display: grid;
		grid-template-columns: auto 1fr;
		gap: var(--gap-2) var(--gap-6);
		margin: 0 0 var(--gap-4);
	}
	@media (max-width: 1000px) {
		.plan {
			position: static;
		}
	}
</style>
