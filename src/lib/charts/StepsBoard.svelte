<script lang="ts">
	/** A log: one row a step, against the stage before and against the start, and what became of it. */
	import type { Snippet } from 'svelte';
	import type { StepRow, StepsView } from '$core/trial/judge/stepBoard';
	import ShiftStrip from './ShiftStrip.svelte';

	interface Props {
		steps: StepsView;
		/** What became of a step. */
		decision: Snippet<[StepRow]>;
		/** Whether something stands below a row, and what. */
		below: (row: StepRow) => boolean;
		form: Snippet<[StepRow]>;
	}
	let { steps, decision, below, form }: Props = $props();
	const isAlone = $derived((steps.rows[0]?.strips.length ?? 0) < 2);
	const label = (row: StepRow, against: string, conditions: string) =>
		`${row.name} against ${against}, ${conditions}`;
</script>

{#snippet metricNames()}<span class="names"
		>{#each steps.metrics as metric (metric)}<span>{metric}</span>{/each}</span
	>{/snippet}
{#snippet conditions(name: string)}{#if !isAlone}<span class="conditions muted">{name}</span>{/if}{/snippet}

<div class="wide">
	<table>
		<thead>
			<tr>
				<th scope="col" rowspan="2"><span class="visually-hidden">Step</span></th>
				<th scope="col" rowspan="2">What was changed</th>
				<th scope="col">Against the step before</th>
				<th scope="col">Against the start</th>
				<th scope="col" rowspan="2">Kept?</th>
			</tr>
			<tr class="metrics" aria-hidden="true">
				{#each ['previous', 'start'] as side (side)}<td>{@render metricNames()}</td>{/each}
			</tr>
		</thead>
		{#each steps.rows as row (row.arm)}
			<tbody>
				{#each row.strips as strip, i (strip.key)}
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
								{#if row.found}<span class="muted small">{row.found}</span>{/if}
							</th>
						{/if}
						{#if strip.figure}<td colspan="2" class="muted">{@render conditions(strip.name)}{strip.figure}</td>
						{:else if strip.previous.length && !strip.held}
							<td data-side="Against the step before"
								>{@render conditions(strip.name)}<span class="narrow" aria-hidden="true"
									>{@render metricNames()}</span
								><ShiftStrip
									label={label(row, 'the step before', strip.name)}
									marks={strip.previous}
								/>{#if strip.returned}<span class="small returned">{strip.returned}</span>{/if}</td
							>
							<td data-side="Against the start"
								><span class="narrow" aria-hidden="true">{@render metricNames()}</span><ShiftStrip
									label={label(row, 'the start', strip.name)}
									marks={strip.start}
								/></td
							>
						{:else}<td colspan="2" class="muted small"
								>{@render conditions(strip.name)}{strip.held ||
									(row.isMeasured ? 'Being measured: no answer before it is whole.' : 'Not measured yet.')}</td
							>{/if}
						{#if i === 0}
							<td rowspan={row.strips.length} class="decision {row.decision}">
								{@render decision(row)}
							</td>
						{/if}
					</tr>
				{/each}
				{#if below(row)}<tr class="no-print"><td colspan="5">{@render form(row)}</td></tr>{/if}
			</tbody>
		{/each}
	</table>
</div>

<style>
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
	.narrow {
		display: none;
	}
	.names span {
		width: 52px;
		text-align: center;
	}
	.broke,
	.decision.taken-back :global(b) {
		color: var(--worse);
	}
	.decision.kept :global(b) {
		color: var(--better);
	}
	.decision > :global(*) {
		display: block;
	}
	.conditions {
		display: block;
		font-size: var(--type-2);
	}
	.returned {
		display: block;
		max-width: 18rem;
	}
	@media (max-width: 640px) {
		thead {
			display: none;
		}
		table,
		tbody,
		tr,
		th,
		td {
			display: block;
			padding-right: 0;
		}
		.narrow {
			display: block;
		}
		td[data-side]::before {
			content: attr(data-side);
			color: var(--muted);
			font-size: var(--type-2);
		}
	}
</style>
