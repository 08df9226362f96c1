<script lang="ts">
	/** Which candidate is best under one set of conditions, and two of them against each other. */
	import CandidateBoard from '$lib/charts/CandidateBoard.svelte';
	import ShiftBoard from '$lib/charts/ShiftBoard.svelte';
	import type { SheetHead } from '$lib/server/rooms/trials/sheet/head';
	import Caveats from './Caveats.svelte';

	type Board = SheetHead['boards'][number];
	interface Props {
		best: NonNullable<Board['best']>;
		board: Board;
		/** The two that stand against each other. */
		pair: Board['answers'][number] | undefined;
		colourOf: (arm: number) => string;
		evidence: (metric: string) => string;
		caption: string;
	}
	let { best, board, pair, colourOf, evidence, caption }: Props = $props();
</script>

<p class="judgement {best.answer.tone}">{best.answer.sentence}</p>
{#if best.answer.detail}<p class="detail">{best.answer.detail}</p>{/if}
{#each board.answers as answer (answer.arm)}<Caveats caveats={answer.caveats} />{/each}
<CandidateBoard label="Candidates, {board.name}" board={best.board} {colourOf} />
{#if pair}
	<div class="pair">
		<ShiftBoard
			label="{pair.label} against {pair.baselineName}, {board.name}"
			rows={pair.rows}
			baseline={pair.baselineName}
			arm={pair.armName}
			colour={colourOf(pair.arm)}
			{evidence}
			{caption}
		/>
	</div>
{/if}

<style>
	.pair {
		margin-top: var(--gap-6);
		padding-top: var(--gap-5);
		border-top: 1px solid var(--rule);
	}
	.detail {
		margin: 0 0 var(--gap-3);
		font-size: var(--type-4);
	}
</style>
