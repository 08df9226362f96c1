<script lang="ts">
	/** A log: one row a step, against the stage before and against the start, and what became of it. */
	import { Button } from 'carbon-components-svelte';
	import ShiftStrip from '$lib/charts/ShiftStrip.svelte';
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
	const isAlone = $derived((steps.rows[0]?.strips.length ?? 0) < 2);
	let decided = $state<number | null>(null);
	let isWriting = $state(false);
	const label = (row: (typeof steps.rows)[number], against: string, conditions: string) =>
		`${row.name} against ${against}, ${conditions}`;
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
	<div class="wide">
		<table>
			<thead>
				<tr>
					<th scope="col" rowspan="2"><span class="visually-hidden">Step</span></th>
					<th scope="col" rowspan="2">What was changed</th>
					{#if !isAlone}<td rowspan="2"></td>{/if}
					<th scope="col">Against the step before</th>
					<th scope="col">Against the start</th>
					<th scope="col" rowspan="2">Kept?</th>
				</tr>
				<tr class="metrics" aria-hidden="true">
					{#each ['previous', 'start'] as side (side)}<td
							><span class="names"
								>{#each steps.metrics as metric (metric)}<span>{metric}</span>{/each}</span
							></td
						>{/each}
				</tr>
			</thead>
			{#each steps.rows as row (row.arm)}
				<tbody>
					{#each row.strips as strip, i (strip.condition)}
						<tr>
							{#if i === 0}
								<td rowspan={row.strips.length} class="figure">{row.stage}</td>
								<th scope="rowgroup" rowspan={row.strips.length}>
									<b class="name">{row.name}</b>
									{#if row.note}<span class="muted small">{row.note}</span>{/if}
									{#if row.fileName}<a
											class="small"
											href="data:text/plain;charset=utf-8,{encodeURIComponent(row.file ?? '')}"
											download={row.fileName}>Settings: {row.fileName}</a
										>{/if}
									{#if row.undoes}<span class="muted small">without “{row.undoes}”</span>{/if}
									{#if row.broke}<span class="broke small">{row.broke}</span>{/if}
								</th>
							{/if}
							{#if !isAlone}<td class="muted small">{strip.name}</td>{/if}
							{#if strip.figure}<td colspan="2" class="muted">{strip.figure}</td>
							{:else if strip.previous.length && !strip.held}
								<td
									><ShiftStrip
										label={label(row, 'the step before', strip.name)}
										marks={strip.previous}
									/>{#if strip.returned}<span class="small returned">{strip.returned}</span>{/if}</td
								>
								<td><ShiftStrip label={label(row, 'the start', strip.name)} marks={strip.start} /></td>
							{:else}<td colspan="2" class="muted small"
									>{strip.held ||
										(row.isMeasured
											? 'Being measured: no answer before it is whole.'
											: 'Not measured yet.')}</td
								>{/if}
							{#if i === 0}
								<td rowspan={row.strips.length} class="decision {row.decision}">
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
								</td>
							{/if}
						</tr>
					{/each}
					{#if decided === row.stage}
						<tr class="no-print"
							><td colspan={isAlone ? 5 : 6}
								><Lazy
									load={() => import('./DecideStep.svelte')}
									props={{
										stage: row.stage,
										decision: row.decision,
										note: row.decisionNote,
										done: () => (decided = null)
									}}
								/></td
							></tr
						>
					{/if}
				</tbody>
			{/each}
		</table>
	</div>
</section>

<style>
	.steps {
		margin-bottom: var(--gap-6);
	}
	.wide {
		overflow-x: auto;
	}
	table {
		border-collapse: collapse;
		width: 100%;
	}
	th,
	td {
		text-align: left;
		vertical-align: top;
		padding: var(--gap-3) var(--gap-5) var(--gap-3) 0;
		font-weight: 400;
		line-height: 1.25;
	}
	thead th {
		color: var(--muted);
		font-size: var(--type-3);
		padding-bottom: 0;
	}
	tbody {
		border-top: 1px solid var(--rule);
	}
	th[scope='rowgroup'] {
		min-width: 11rem;
	}
	th[scope='rowgroup'] > * {
		display: block;
	}
	.name {
		font-family: var(--serif);
	}
	.names {
		display: flex;
		gap: 5px;
		font-size: var(--type-1);
		color: var(--muted);
	}
	.names span {
		width: 52px;
		text-align: center;
	}
	.broke,
	.decision.taken-back b {
		color: var(--worse);
	}
	.decision.kept b {
		color: var(--better);
	}
	.decision > * {
		display: block;
	}
	.returned {
		display: block;
		max-width: 18rem;
	}
</style>
