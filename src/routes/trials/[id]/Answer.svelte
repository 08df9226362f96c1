<script lang="ts">
	/** The answer for each of the conditions: a sentence, its board, three moments; and what must be said beside it. */
	import { goto } from '$app/navigation';
	import { page } from '$app/state';
	import { counted } from '$core/wording/format';
	import type { SheetHead } from '$lib/server/rooms/trials/sheet/head';
	import { queryWith } from '$lib/fragmentText';
	import Lazy from '$lib/parts/Lazy.svelte';
	import BoardPanel from './BoardPanel.svelte';
	import AnswerNotes from './AnswerNotes.svelte';
	import type { load } from './+page';
	import Progress from './Progress.svelte';

	type Asked = Pick<Awaited<ReturnType<typeof load>>['asked'], 'Best' | 'PairChooser' | 'Sweep' | 'Matrix'>;
	interface Props {
		data: SheetHead;
		/** Components of the question that is asked, where few trials ask it. */
		asked: Asked;
		isOpen: boolean;
		status: string;
		nameOf: (arm: number) => string;
		colourOf: (arm: number) => string;
	}
	let { data, asked, isOpen, status, nameOf, colourOf }: Props = $props();
	const trial = $derived(data.trial);
	const { hasLoads, hasAnswer, rounds, spread, suggestedRounds } = $derived(data.answer);
	/** Which two candidates the boards are turned to: the one that all are held against comes from the server. */
	const beside = $derived(Number(page.url.searchParams.get('beside') ?? 0));
	const turn = (chosen: Record<string, string>) => void goto(queryWith(page.url.search, chosen), STAY);
	/** Of a log the steps are the answer; of a sweep all pages together, its pages are rows of one table. */
	const boards = $derived(
		data.steps
			? []
			: data.sweep
				? data.boards.map((board) => ({ ...board, answers: board.answers.slice(0, 1), summary: [] }))
				: data.boards
	);
	const evidence = (arm: number, condition: string) => `?arm=${arm}&condition=${condition}&open=table#table`;
	const STAY = { noScroll: true, keepFocus: true } as const;
	const stand = $derived.by(() => {
		if (!hasLoads)
			return status === 'draft'
				? 'Not started: the board fills once the variants were loaded in turn.'
				: 'No load has ended yet.';
		if (isOpen && hasAnswer)
			return `As of ${counted(rounds, 'round')}.${
				trial.nextLook ? ` The next look is after ${trial.nextLook}; until then nothing here changes.` : ''
			}`;
		return '';
	});
</script>

<section id="answer" aria-label="Answer">
	{#if stand}<p class="muted small">{stand}</p>{/if}
	{#if hasLoads && !hasAnswer}
		<Progress {trial} {spread} conditions={data.conditions} />
	{/if}
	{#if data.best && data.boards.length > 1}
		<p class="judgement {data.best.tone}">{data.best.sentence}</p>
	{/if}
	{#if data.against !== null && hasAnswer && asked.PairChooser}<asked.PairChooser
			arms={data.arms}
			against={data.against}
			{beside}
			onchange={turn}
		/>{/if}
	{#each boards as board (board.condition)}
		<BoardPanel
			{board}
			film={data.moments.find((film) => film.condition === board.condition) ?? null}
			noise={data.noise[board.condition] ?? null}
			primary={trial.primary}
			{nameOf}
			{colourOf}
			{beside}
			Best={asked.Best}
			Matrix={asked.Matrix}
		/>
	{/each}
	{#if data.sweep && asked.Sweep}
		<div class="panel"><asked.Sweep {...data.sweep} {evidence} /></div>
	{/if}
	{#if suggestedRounds !== null}
		<Lazy
			load={() => import('./AddRounds.svelte')}
			props={{ added: trial.added ?? 0, suggested: suggestedRounds }}
		/>
	{/if}
	<AnswerNotes {data} {nameOf} />
</section>
