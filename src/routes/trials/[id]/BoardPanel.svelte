<script lang="ts">
	/** The answer under one set of conditions. */
	import type { MetricId } from '$core/metrics/catalogue';
	import { wordFloors } from '$core/wording/floors';
	import Moments from '$lib/charts/Moments.svelte';
	import ShiftBoard from '$lib/charts/ShiftBoard.svelte';
	import type ShiftMatrix from '$lib/charts/ShiftMatrix.svelte';
	import type { SheetHead } from '$lib/server/rooms/trials/sheet/head';
	import type BestBoard from './BestBoard.svelte';
	import { isMatrix } from './boardShape';
	import Caveats from './Caveats.svelte';

	interface Props {
		board: SheetHead['boards'][number];
		film: SheetHead['moments'][number] | null;
		noise: SheetHead['noise'][string] | null;
		primary: readonly MetricId[];
		nameOf: (arm: number) => string;
		colourOf: (arm: number) => string;
		/** Which is best: the candidate that stands beside the one that all are held against. */
		beside?: number;
		Best?: typeof BestBoard | null;
		/** Of more variants than fit boards of their own. */
		Matrix?: typeof ShiftMatrix | null;
	}
	let {
		board,
		film,
		noise,
		primary,
		nameOf,
		colourOf,
		beside = 0,
		Best = null,
		Matrix = null
	}: Props = $props();
	/** Pictures of more variants than this are left to the part of frames. */
	const MOST_FILMS = 3;
	const isTable = $derived(isMatrix(board));
	const pair = $derived(board.answers.find(({ arm }) => arm === beside) ?? board.answers[0]);
	const hasFilm = $derived(film !== null && film.arms.length <= MOST_FILMS && !isTable && !board.best);
	const floors = $derived(noise ? wordFloors(noise.floors, primary) : '');
	const floor = $derived(floors ? `Noise floor of this lab here: ${floors}.` : '');
	const variants = $derived(
		board.answers.map((answer) => ({
			arm: answer.arm,
			name: answer.label,
			colour: colourOf(answer.arm),
			rows: answer.rows
		}))
	);
	const evidence = (metric: string) => `?metric=${metric}&open=shifts#shifts`;
</script>

<div class="panel board-panel" class:wide={!hasFilm}>
	<div class="answer">
		<p class="conditions-name"><b>{board.name}</b> <span class="muted">{board.about.toLowerCase()}</span></p>
		{#if board.best && Best}
			<Best best={board.best} {board} {pair} {colourOf} {evidence} caption={floor} />
		{:else if isTable}
			{#each board.summary as { sentence, tone }, i (i)}<p class="judgement {tone}">{sentence}</p>{/each}
			{#each board.answers as answer (answer.arm)}<Caveats caveats={answer.caveats} />{/each}
			<!-- Its columns are sorted at the first press: it does not wait for it. -->
			{#if Matrix}<Matrix label="Shifts, {board.name}" {evidence} {variants} />{/if}
		{:else}
			{#each board.answers as answer, i (answer.arm)}
				<p class="judgement {answer.tone}">{answer.page ? `${answer.page}: ` : ''}{answer.sentence}</p>
				{#if answer.detail}<p class="detail">{answer.detail}</p>{/if}
				<Caveats caveats={answer.caveats} />
				<ShiftBoard
					label="{answer.label}, {board.name}"
					rows={answer.rows}
					baseline={answer.baselineName}
					arm={answer.armName}
					colour={colourOf(answer.arm)}
					{evidence}
					caption={i === 0 ? floor : ''}
				/>
			{:else}
				<ShiftBoard
					label="What is decided on, {board.name}"
					rows={[]}
					awaited={board.metrics}
					baseline=""
					arm=""
					colour="inherit"
				/>
			{/each}
		{/if}
	</div>
	{#if film && hasFilm && board.answers.length}
		<div class="moments">
			<Moments
				label="What each variant showed, {board.name}"
				moments={film.moments}
				arms={film.arms}
				{nameOf}
				{colourOf}
			/>
		</div>
	{/if}
</div>

<style>
	.board-panel {
		display: grid;
		grid-template-columns: minmax(0, 1fr) 15rem;
		gap: var(--gap-4) var(--gap-7);
		margin-bottom: var(--gap-5);
	}
	.board-panel.wide {
		grid-template-columns: minmax(0, 1fr);
	}
	.answer {
		container-type: inline-size;
		min-width: 0;
	}
	.conditions-name {
		margin: 0;
		font-size: var(--type-4);
	}
	.detail {
		margin: 0 0 var(--gap-3);
		font-size: var(--type-4);
	}
	@media (max-width: 820px) {
		.board-panel {
			grid-template-columns: minmax(0, 1fr);
		}
	}
	@media print {
		.moments {
			display: none;
		}
	}
</style>
