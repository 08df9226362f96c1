<script lang="ts">
	/** What stands beside the whole answer: the client's language, excluded loads, earlier rules, failures. */
	import { metricOf } from '$core/metrics/catalogue';
	import { formatMoment } from '$core/wording/format';
	import CopyButton from '$lib/charts/CopyButton.svelte';
	import Notice from '$lib/parts/Notice.svelte';
	import type { SheetHead } from '$lib/server/rooms/trials/sheet/head';

	interface Props {
		data: SheetHead;
		nameOf: (arm: number) => string;
	}
	let { data, nameOf }: Props = $props();
	const trial = $derived(data.trial);
	const { failures } = $derived(data.answer);
	const conditionName = (id: string) => data.conditions.find((conditions) => conditions.id === id)?.name ?? id;
	const VERDICTS: Record<string, string> = {
		better: 'better',
		worse: 'worse',
		slight: 'a difference whose size is open',
		same: 'no difference',
		undecided: 'undecided',
		none: 'no verdict'
	};
	const changeOf = (change: NonNullable<typeof trial.rejudged>['changes'][number]) => {
		const arm = change.arm === 0 ? 'all pages' : `“${nameOf(change.arm)}”`;
		const what = `${metricOf(change.metric).short} of ${arm} under ${conditionName(change.condition)}`;
		return `${what}, ${VERDICTS[change.before]} before, ${VERDICTS[change.after]} now`;
	};
	const isOneExcluded = $derived(data.excludedAnswer?.loads.length === 1);
	const failed = $derived(
		failures
			.map(
				({ failed: n, loads, arm, condition }) =>
					`${n} of ${loads} loads of “${nameOf(arm)}” failed under ${conditionName(condition)}.`
			)
			.join(' ')
	);

	/** The answer as text for a mail: question, conditions, sentences. */
	function answerText(): string {
		const linesOf = ({ name, about, answers }: SheetHead['boards'][number]) => [
			`${name} (${about.toLowerCase()}):`,
			...answers.map(({ sentence, detail, caveats }) =>
				[
					sentence,
					detail,
					caveats.broke,
					caveats.held,
					caveats.restsOn.length ? `The variants also differ in: ${caveats.restsOn.join(', ')}.` : ''
				]
					.filter(Boolean)
					.join(' ')
			)
		];
		return [trial.question, ...data.boards.flatMap(linesOf)].join('\n');
	}
</script>

{#each data.returned as returned (returned.name)}<p class="message">
		{data.returned.length > 1 ? `${returned.name}: ` : ''}{returned.words}
	</p>{/each}
{#if data.excludedAnswer}
	<div class="message">
		<p>
			{data.excludedAnswer.loads.length}
			{isOneExcluded ? 'load is' : 'loads are'} excluded and counted all the same, since that was done after the figures
			could be seen. Without {isOneExcluded ? 'it' : 'them'} the answer would read:
		</p>
		<ul>
			{#each data.excludedAnswer.answers as answer (answer.key)}<li>
					{answer.conditionName}: {answer.sentence}
				</li>{/each}
		</ul>
		<p class="muted small">
			{data.excludedAnswer.loads.map((load) => `${load.arm}, round ${load.round}: ${load.reason}`).join('; ')}.
		</p>
	</div>
{/if}
{#if trial.rejudged}
	<p class="message small">
		Judged anew on {formatMoment(trial.rejudged.at)}, since the rules and the recipe ({trial.rejudged
			.fromRecipe} before,
		{data.answer.recipe} now) have changed.
		{trial.rejudged.changes.length
			? `What changed: ${trial.rejudged.changes.map(changeOf).join('; ')}.`
			: 'No verdict changed.'}
	</p>
{/if}
{#if data.busyMachine}<Notice kind="warning" title="This machine is too busy." text={data.busyMachine} />{/if}
{#if failed}<Notice kind="warning" title="Some loads failed." text={failed} />{/if}
{#if data.answer.hasAnswer}<p class="copy-answer no-print">
		<CopyButton label="Copy the answer as text" text={answerText} file="answer.txt" />
	</p>{/if}

<style>
	.copy-answer {
		text-align: right;
		max-width: none;
		margin: 0;
	}
</style>
