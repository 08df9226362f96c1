<script lang="ts" module>
	import type { BoardMark } from '$core/trial/judge/board';

	export interface SweepStrip {
		condition: string;
		/** Of the conditions. */
		name: string;
		sentence: string;
		marks: (BoardMark & { short: string; word: string; text: string })[];
		/** What broke there; empty where nothing did. */
		broke: string;
		notes: string[];
	}
	export interface SweepBoardRow {
		page: string;
		cells: ({ arm: number; state: string | null; exception: string | null; strips: SweepStrip[] } | null)[];
	}
</script>

<script lang="ts">
	/** A sweep: pages by visitor states, each with the strip of every device and with what broke there. */
	import ShiftStrip from './ShiftStrip.svelte';

	interface Props {
		states: readonly (string | null)[];
		/** Short names of the metrics, over the marks. */
		metrics: readonly string[];
		rows: readonly SweepBoardRow[];
		/** The page's own shifts. */
		evidence: (arm: number, condition: string) => string;
	}
	let { states, metrics, rows, evidence }: Props = $props();
	const stateName = (state: string | null) => state ?? 'Anonymous';
	const isAlone = $derived(states.length === 1);
	let shown = $state('');
</script>

<div class="wide">
	<table aria-label="Pages of the sweep">
		<thead>
			<tr>
				<th scope="col">Page</th>
				{#each states as state (state)}<th scope="col">{isAlone ? 'Shift' : stateName(state)}</th>{/each}
			</tr>
			<tr aria-hidden="true" class="metrics">
				<td></td>
				{#each states as state (state)}<td
						><span class="line"
							><span class="device"></span><span class="names"
								>{#each metrics as metric (metric)}<span>{metric}</span>{/each}</span
							></span
						></td
					>{/each}
			</tr>
		</thead>
		<tbody>
			{#each rows as row (row.page)}
				<tr>
					<th scope="row">{row.page}</th>
					{#each row.cells as cell, i (i)}
						<td data-state={isAlone ? null : stateName(states[i] ?? null)}>
							{#if cell}
								{#if cell.exception}<span class="exception">{cell.exception}</span>{/if}
								{#each cell.strips as strip (strip.condition)}
									<a
										class="line"
										href={evidence(cell.arm, strip.condition)}
										onmouseenter={() => (shown = strip.sentence)}
										onmouseleave={() => (shown = '')}
										onfocus={() => (shown = strip.sentence)}
										onblur={() => (shown = '')}
										><span class="device">{strip.name}</span><ShiftStrip
											label="{row.page}, {stateName(cell.state)}, {strip.name}"
											marks={strip.marks}
										/></a
									>
									{#if strip.broke}<span class="broke">{strip.broke}</span>{/if}
									{#each strip.notes as note (note)}<span class="note">{note}</span>{/each}
								{:else}<span class="note">no answer yet</span>{/each}
							{:else}<span class="note">not loaded</span>{/if}
						</td>
					{/each}
				</tr>
			{/each}
		</tbody>
	</table>
</div>
<p class="readout muted small" aria-hidden="true">
	{shown || 'Better is left, worse is right, the band is the margin. Point at a strip for its sentence.'}
</p>

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
		padding: var(--gap-3) var(--gap-6) var(--gap-3) 0;
		font-weight: 400;
		line-height: 1.25;
	}
	thead th {
		color: var(--muted);
		font-size: var(--type-3);
		padding-bottom: 0;
	}
	tbody tr {
		border-top: 1px solid var(--rule);
	}
	th[scope='row'] {
		font-weight: 600;
		min-width: 7rem;
	}
	.line {
		display: flex;
		gap: var(--gap-4);
		align-items: center;
		color: inherit;
		text-decoration: none;
	}
	.device {
		width: 4.2rem;
		font-size: var(--type-2);
		color: var(--muted);
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
	.exception,
	.broke,
	.note {
		display: block;
		font-size: var(--type-2);
		max-width: 24rem;
	}
	.exception {
		font-family: var(--serif);
	}
	.broke {
		color: var(--worse);
	}
	.note {
		color: var(--muted);
	}
	.readout {
		min-height: 2.5em;
		max-width: none;
	}
	@media (max-width: 640px) {
		thead th:not(:first-child),
		.metrics {
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
		td[data-state]::before {
			content: attr(data-state);
			color: var(--muted);
			font-size: var(--type-2);
		}
	}
</style>
