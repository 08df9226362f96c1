<script lang="ts">
	/** The answer for each of the conditions, and what stands on it. */
	import { metricOf } from '$core/metrics/catalogue';
	import { formatIn, formatMoment } from '$core/wording/format';
	import { wordAnswer } from '$core/wording/shift';
	import CopyButton from '$lib/charts/CopyButton.svelte';
	import type { SheetView } from '$lib/server/trials/sheetView';
	import Progress from './Progress.svelte';

	interface Props {
		data: SheetView;
		isOpen: boolean;
		status: string;
	}
	let { data, isOpen, status }: Props = $props();
	const trial = $derived(data.trial);
	const hasLoads = $derived(data.loads.some((load) => !load.warmup));
	const hasAnswer = $derived(data.judgement.results.length > 0);
	const lastLook = $derived(data.judgement.looks.at(-1) ?? null);
	const failures = $derived(data.judgement.health.filter((entry) => entry.failed > 0));

	const VERDICTS: Record<string, string> = {
		better: 'better',
		worse: 'worse',
		slight: 'perhaps too little to matter',
		same: 'no difference',
		undecided: 'undecided',
		none: 'no verdict'
	};

	const answersOf = (id: string, arm: number) =>
		trial.primary.flatMap((metric) =>
			data.judgement.results.filter((one) => one.metric === metric && one.condition === id && one.arm === arm)
		);
	const nameOf = (id: number) => data.arms.find((arm) => arm.id === id)?.name ?? '';
	const conditionName = (id: string) => data.conditions.find((one) => one.id === id)?.name ?? id;
	const pairOf = (arm: number) => data.comparisons.find((one) => one.id === arm)!;
	const floorsOf = (floors: Partial<Record<string, number>>) =>
		trial.primary
			.flatMap((id) => {
				const { short, unit } = metricOf(id);
				return floors[id] === undefined ? [] : [`${short} ${formatIn(unit, floors[id], true)}`];
			})
			.join(', ');
	const changeOf = (one: NonNullable<typeof trial.rejudged>['changes'][number]) => {
		const arm = one.arm === 0 ? 'all pages' : `“${nameOf(one.arm)}”`;
		const what = `${metricOf(one.metric).short} of ${arm} under ${conditionName(one.condition)}`;
		return `${what}, ${VERDICTS[one.before]} before, ${VERDICTS[one.after]} now`;
	};

	/** The answer as text for a mail: question, conditions, sentences. */
	function answerText(): string {
		const sentencesOf = (headline: SheetView['headlines'][number]) =>
			[
				headline.text,
				headline.broke,
				headline.held,
				headline.restsOn.length ? `The variants also differ in: ${headline.restsOn.join(', ')}.` : ''
			]
				.filter(Boolean)
				.join(' ');
		const linesOf = ({ id, name, summary }: SheetView['conditions'][number]) => [
			`${name} (${summary.toLowerCase()}):`,
			...data.headlines.filter((one) => one.condition === id).map(sentencesOf)
		];
		return [trial.question, ...data.conditions.flatMap(linesOf)].join('\n');
	}
</script>

<section id="answer" aria-labelledby="answer-title">
	<div class="with-choice">
		<h2 id="answer-title">{isOpen && hasAnswer ? `Answer after ${lastLook?.rounds} rounds` : 'Answer'}</h2>
		{#if hasAnswer}<CopyButton label="Copy the answer" text={answerText} file="answer.txt" />{/if}
	</div>
	{#if !hasLoads}
		<p class="muted">
			There is no answer yet: no load has ended. {status === 'draft'
				? 'Start the trial to load the variants in turn.'
				: ''}
		</p>
	{:else if !hasAnswer}
		<Progress {trial} spread={data.judgement.spread} conditions={data.conditions} />
	{:else}
		{#if isOpen}<p class="muted small">
				As of {lastLook?.rounds} rounds.{trial.nextLook
					? ` The next look is after ${trial.nextLook}; until then nothing here changes.`
					: ''}
			</p>{/if}
		<div class="conditions">
			{#each data.conditions as conditions (conditions.id)}
				<div class="panel">
					<h3>{conditions.name}</h3>
					<p class="muted small">{conditions.summary}</p>
					{#each data.headlines.filter((one) => one.condition === conditions.id) as headline (headline.arm)}
						<p class="headline {headline.tone}">{headline.text}</p>
						{#if headline.broke}<p class="caveat broken">{headline.broke}</p>{/if}
						{#if headline.held}<p class="caveat">{headline.held}</p>{/if}
						{#if headline.restsOn.length}<p class="caveat">
								The variants also differ in {headline.restsOn.join(', ')}: the answer rests on that too.
								<a class="no-print" href="#fairness">Fairness</a>
							</p>{/if}
						{#if data.comparisons.length <= 3}
							<ul>
								{#each answersOf(conditions.id, headline.arm) as result (result.metric)}
									<li class={result.verdict}>
										{wordAnswer(result, {
											baseline: pairOf(headline.arm).baseline,
											arm: headline.arm === 0 ? 'the changed pages' : nameOf(headline.arm)
										})}
									</li>
								{/each}
							</ul>
						{/if}
					{/each}
					{#if data.noise[conditions.id]}
						{@const floor = data.noise[conditions.id]!}
						<p class="muted small">
							Noise floor of this lab here: {floorsOf(floor.floors)}
							(<a href="/trials/{floor.trial}">same page twice</a>).
						</p>
					{/if}
				</div>
			{/each}
		</div>
		{#if data.excludedAnswer}
			<div class="message excluded">
				<p>
					{data.excludedAnswer.loads.length}
					{data.excludedAnswer.loads.length === 1 ? 'load is' : 'loads are'} excluded and counted all the same, since
					that was done after the figures could be seen. Without {data.excludedAnswer.loads.length === 1
						? 'it'
						: 'them'} the answer would read:
				</p>
				<ul>
					{#each data.excludedAnswer.headlines as headline (headline.condition + headline.arm)}<li>
							{headline.conditionName}: {headline.text}
						</li>{/each}
				</ul>
				<p class="muted small">
					{data.excludedAnswer.loads.map((one) => `${one.arm}, round ${one.round}: ${one.reason}`).join('; ')}.
				</p>
			</div>
		{/if}
		{#if trial.rejudged}
			<p class="message">
				This trial was first judged under earlier rules and with the recipe {trial.rejudged.fromRecipe}. Since
				{formatMoment(trial.rejudged.at)} it is judged anew: verdicts hold jointly over everything the trial decides
				on, and scores follow {data.judgement.recipe}.
				{trial.rejudged.changes.length
					? `What changed: ${trial.rejudged.changes.map(changeOf).join('; ')}.`
					: 'No verdict changed.'}
			</p>
		{/if}
		{#if failures.length}
			<p class="message">
				{#each failures as entry (entry.condition + entry.arm)}{entry.failed} of {entry.loads} loads of “{nameOf(
						entry.arm
					)}” failed under {conditionName(entry.condition)}.
				{/each}
			</p>
		{/if}
	{/if}
</section>

<style>
	.headline {
		font: 600 1.12rem/1.3 var(--serif);
		margin: 0.6rem 0 0.5rem;
	}
	.headline.better {
		color: var(--better);
	}
	.headline.worse {
		color: var(--worse);
	}
	.caveat {
		border-left: 3px solid var(--focus);
		padding: 0.1rem 0 0.1rem 0.7rem;
		margin: 0.3rem 0;
		font-size: 0.93rem;
	}
	.broken {
		border-left-color: var(--worse);
		color: var(--worse);
		font-weight: 600;
	}
	.conditions li {
		padding: 0.25rem 0 0.25rem 0.7rem;
		border-left: 3px solid var(--rule);
		margin-bottom: 0.3rem;
		font-size: 0.95rem;
	}
	.conditions li.better {
		border-left-color: var(--better);
	}
	.conditions li.worse {
		border-left-color: var(--worse);
	}

	@media print {
		.caveat,
		.panel .small {
			font-size: 8pt;
			margin: 0.1rem 0;
		}
		.conditions li {
			font-size: 8pt;
			line-height: 1.2;
			margin-bottom: 0.15rem;
			padding: 0 0 0 0.5rem;
		}
		.headline {
			font-size: 10.5pt;
		}
	}
</style>
