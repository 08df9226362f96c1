<script lang="ts">
	/**
	 * The shift board: one row a metric, one axis for all in margins, better left and worse right. Without rows it draws
	 * the axis and names what it will decide on.
	 */
	import type { BoardRow } from '$core/wording/board';
	import BoardTrack from './BoardTrack.svelte';
	import ChartMenu from './ChartMenu.svelte';
	import { boardCsv, boardSvg } from './shiftBoardCopies';

	interface Props {
		label: string;
		rows: readonly BoardRow[];
		/** Names of the metrics of a board that has no rows yet. */
		awaited?: readonly string[];
		baseline: string;
		arm: string;
		/** CSS colour of the arm. */
		colour: string;
		/** Where the loads behind a row are. */
		evidence?: (metric: string) => string;
		caption?: string;
		/** What a row is, where it is no metric. */
		rowHead?: string;
	}
	let {
		label,
		rows,
		awaited = [],
		baseline,
		arm,
		colour,
		evidence,
		caption = '',
		rowHead = 'Metric'
	}: Props = $props();
	let shown = $state('');
	const hint = $derived(caption || (rows.length ? 'Point at a row for its interval.' : ''));
	/** A row as a sentence, with what its middle figures stand for. */
	const textOf = ({ text, ranges }: BoardRow) =>
		ranges.baseline && ranges.arm ? `${text} ${arm}: ${ranges.arm}; ${baseline}: ${ranges.baseline}.` : text;
	const hasFigures = $derived(rows.some((row) => row.arm !== ''));
</script>

<div class="board" class:bare={!hasFigures}>
	<table aria-label={label}>
		<thead>
			<tr>
				<th scope="col"><span class="visually-hidden">{rowHead}</span></th>
				{#if hasFigures}
					<th scope="col" class="figure name" title={baseline}>{baseline}</th>
					<th scope="col" class="figure name" title={arm}><i style:background={colour}></i>{arm}</th>
				{/if}
				<th scope="col" class="axis"
					><span class="ticks" aria-label="Shift in margins"
						><span>better</span><span>inside the margin</span><span>worse</span></span
					></th
				>
				<th scope="col" class="menu"
					><span class="visually-hidden">Verdict</span>{#if rows.length}<ChartMenu
							name="shift-board"
							csv={() => boardCsv(rows, baseline, arm)}
							svg={() => boardSvg(rows, { title: label, baseline, arm })}
						/>{/if}</th
				>
			</tr>
		</thead>
		<tbody>
			{#each rows as row (row.name)}
				<tr
					onmouseenter={() => (shown = textOf(row))}
					onmouseleave={() => (shown = '')}
					onfocusin={() => (shown = textOf(row))}
					onfocusout={() => (shown = '')}
				>
					<th scope="row">{row.name}</th>
					{#if hasFigures}
						<td class="figure" title={row.ranges.baseline || undefined}>{row.baseline}</td>
						<td class="figure" title={row.ranges.arm || undefined}>{row.arm}</td>
					{/if}
					<td class="axis"><BoardTrack mark={row} height={24} /></td>
					<td class="word {row.isPutOff ? 'same' : row.verdict}">
						{#if evidence}<a href={evidence(row.metric)}
								>{row.word}<span class="visually-hidden">. {textOf(row)}</span></a
							>{:else}{row.word}<span class="visually-hidden">. {textOf(row)}</span>{/if}
					</td>
				</tr>
			{:else}
				{#each awaited as name (name)}
					<tr>
						<th scope="row">{name}</th>
						<td class="axis"><BoardTrack mark={null} height={24} /></td>
						<td class="word muted">not yet</td>
					</tr>
				{/each}
			{/each}
		</tbody>
	</table>
	{#if hint}<p class="readout no-print" aria-hidden="true">{shown || hint}</p>{/if}
	<!-- On paper nobody points at a row: its size and its interval stand below. -->
	<ul class="print-only" aria-hidden="true">
		{#each rows as row (row.name)}<li>{row.text}</li>{/each}
	</ul>
</div>

<style>
	table {
		width: 100%;
		border-collapse: collapse;
		table-layout: fixed;
	}
	th,
	td {
		padding: 0 var(--gap-4) 0 0;
		text-align: left;
		font-weight: 400;
		vertical-align: middle;
		line-height: 1.15;
	}
	th[scope='row'] {
		font-weight: 600;
	}
	thead th {
		color: var(--muted);
		font-size: var(--type-2);
		border-bottom: 1px solid var(--rule);
		padding-bottom: var(--gap-2);
		vertical-align: bottom;
	}
	thead th:first-child {
		width: 6.9rem;
	}
	.figure {
		text-align: right;
		width: 5rem;
		white-space: nowrap;
		padding-right: var(--gap-5);
	}
	.figure.name {
		overflow-wrap: anywhere;
		white-space: normal;
		font-weight: 600;
		font-size: var(--type-2);
	}
	.name i {
		display: inline-block;
		width: 0.55rem;
		height: 0.55rem;
		margin-right: var(--gap-2);
	}
	.axis {
		padding: 0;
	}
	.menu {
		width: 7.6rem;
		text-align: right;
	}
	.ticks {
		display: flex;
		justify-content: space-between;
		font-weight: 400;
		font-size: var(--type-2);
		white-space: nowrap;
	}
	.word {
		position: relative;
		padding-left: var(--gap-5);
		font-size: var(--type-3);
		color: var(--same);
	}
	.word {
		position: relative;
	}
	.word a {
		color: inherit;
		text-decoration: none;
		display: block;
		padding: var(--gap-2) 0;
	}
	.word a:hover {
		text-decoration: underline;
	}
	.word.better,
	.word.worse {
		font-weight: 600;
	}
	.word.better {
		color: var(--better);
	}
	.word.worse {
		color: var(--worse);
	}
	tbody tr:hover {
		background: var(--wash);
	}
	.readout {
		font-size: var(--type-3);
		color: var(--muted);
		margin: var(--gap-3) 0 0;
		min-height: 1.3em;
		line-height: 1.3;
		max-width: none;
	}
	@container (max-width: 450px) {
		thead .figure,
		thead .axis {
			display: none;
		}
		table,
		tbody,
		tr {
			display: block;
		}
		tbody tr {
			display: grid;
			grid-template-columns: minmax(0, 1.2fr) auto auto;
			align-items: baseline;
			padding: var(--gap-3) 0;
			border-bottom: 1px solid var(--rule);
		}
		tbody .axis {
			grid-column: 1 / -1;
			grid-row: 2;
		}
		tbody .word {
			grid-column: 1 / -1;
			grid-row: 3;
			padding-left: 0;
		}
	}
	@media print {
		.readout {
			display: none;
		}
	}
</style>
