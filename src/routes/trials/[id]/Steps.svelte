<script lang="ts">
	/** A log: one row a step, against the stage before and against the start, and what became of it. */
	import { Button } from 'carbon-components-svelte';
	import StepsBoard from '$lib/charts/StepsBoard.svelte';
	import Action from '$lib/parts/Action.svelte';
	import Lazy from '$lib/parts/Lazy.svelte';
	import type { SheetHead } from '$lib/server/rooms/trials/sheet/head';

	interface Props {
		steps: NonNullable<SheetHead['steps']>;
		/** The last stage is measured: the next step may be written down. */
		canGoOn: boolean;
		status: string;
		/** What the newest step has brought since the start, by conditions. */
		answers: readonly { name: string; sentence: string; tone: string }[];
	}
	let { steps, canGoOn, status, answers }: Props = $props();
	const DECISIONS = { kept: 'kept', weakened: 'weakened', 'taken-back': 'taken back', open: 'open' } as const;
	let decided = $state<number | null>(null);
	let isWriting = $state(false);
</script>

<section aria-label="Steps" class="panel steps">
	<div class="page-top">
		<div>
			{#each answers as answer (answer.name)}<p class="judgement {answer.tone}">
					{answers.length > 1 ? `${answer.name}: ` : ''}{answer.sentence}
				</p>{/each}
			<p class="muted small">
				{steps.made} of {steps.planned} planned {steps.planned === 1 ? 'step' : 'steps'}{steps.made >
				steps.planned
					? ': the others draw on what the plan left over'
					: ''}{steps.pages.length
					? `. ${steps.pages.length} pages are judged together; the sentence above is about ${steps.pages[0]}`
					: ''}
			</p>
		</div>
		{#if canGoOn}
			<div class="buttons no-print">
				{#if status === 'waiting'}<Action action="?/end" text="End the log" kind="ghost" size="small" />{/if}
				{#if steps.mayGrow}<Button
						size="small"
						data-key="r"
						aria-expanded={isWriting}
						on:click={() => (isWriting = !isWriting)}
						>{steps.undone ? 'Measure without it' : 'Next step'}</Button
					>{/if}
			</div>
		{/if}
	</div>
	{#if isWriting && canGoOn}<Lazy
			load={() => import('./NextStep.svelte')}
			props={{ undone: steps.undone, done: () => (isWriting = false) }}
		/>{/if}
	<StepsBoard {steps} below={(row) => decided === row.stage}>
		{#snippet decision(row)}
			{#if row.stage > 0}
				<b>{DECISIONS[row.decision]}</b>
				{#if row.decisionNote}<span class="muted small">{row.decisionNote}</span>{/if}
				{#if row.strips.some(({ previous }) => previous.length)}<Button
						kind="ghost"
						size="small"
						aria-expanded={decided === row.stage}
						on:click={() => (decided = decided === row.stage ? null : row.stage)}
						>Decide<span class="visually-hidden"> on {row.name}</span></Button
					>{/if}
			{/if}
		{/snippet}
		{#snippet form(row)}
			<Lazy
				load={() => import('./DecideStep.svelte')}
				props={{
					stage: row.stage,
					decision: row.decision,
					note: row.decisionNote,
					done: () => (decided = null)
				}}
			/>
		{/snippet}
	</StepsBoard>
</section>

<style>
	.steps {
		margin-bottom: var(--gap-6);
	}
</style>
