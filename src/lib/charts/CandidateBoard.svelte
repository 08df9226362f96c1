<script lang="ts">
	/**
	 * Candidates by metric, one axis in margins from the best: a lane for each, in its colour, with its interval and its
	 * place in words.
	 */
	import type { LaneBoard } from '$core/trial/judge/candidates';
	import { candidateLane, CANDIDATE_BAND, percentOf } from './candidateLayout';

	const CANDIDATES =
		'Filled: surely apart from the best. Hollow: not told from it. Point at a row for its interval.';

	interface Props {
		label: string;
		board: readonly LaneBoard[];
		colourOf: (id: number) => string;
		/** What a candidate is called above its column. */
		head?: string;
		/** What filled and hollow mean. */
		hint?: string;
		/** What is hollow is open, and its interval dotted. */
		isOpenDotted?: boolean;
	}
	let { label, board, colourOf, head = 'Candidate', hint = CANDIDATES, isOpenDotted = true }: Props = $props();
	const HEIGHT = 20;
	let shown = $state('');
	const { from, to, zero } = CANDIDATE_BAND;
</script>

<div class="candidates">
	<table aria-label={label}>
		<thead>
			<tr>
				<th scope="col"><span class="visually-hidden">Metric</span></th>
				<th scope="col">{head}</th>
				<th scope="col" class="figure">Median</th>
				<th scope="col" class="axis"
					><span class="ticks" aria-label="Margins from the best"
						><span style:left={percentOf(zero)}>best</span><span class="end">worse</span></span
					></th
				>
				<th scope="col" class="place">Place</th>
			</tr>
		</thead>
		{#each board as row (row.metric)}
			<tbody>
				{#each row.lanes as lane, i (lane.id)}
					{@const mark = candidateLane(lane)}
					<tr onmouseenter={() => (shown = lane.text)} onmouseleave={() => (shown = '')}>
						{#if i === 0}<th scope="rowgroup" rowspan={row.lanes.length}>{row.name}</th>{/if}
						<th scope="row" class="name"><i style:background={colourOf(lane.id)}></i>{lane.name}</th>
						<td class="figure"
							>{lane.figure}{#if lane.range}&nbsp;<span class="range">{lane.range}</span>{/if}</td
						>
						<td class="axis">
							<svg width="100%" height={HEIGHT} aria-hidden="true" focusable="false" color={colourOf(lane.id)}>
								<rect class="band" x={percentOf(from)} width={percentOf(to - from)} height={HEIGHT} />
								<line class="zero" x1={percentOf(zero)} x2={percentOf(zero)} y2={HEIGHT} />
								{#if mark}
									{#if mark.bar}<line
											class="bar"
											class:dotted={isOpenDotted && !lane.isSolid}
											x1={percentOf(mark.bar.from)}
											x2={percentOf(mark.bar.to)}
											y1={HEIGHT / 2}
											y2={HEIGHT / 2}
										/>{/if}
									{#if mark.leaves}<svg x="100%" y={HEIGHT / 2} overflow="visible"
											><path d="M0,0l-6,-4v8z" /></svg
										>{/if}
									<svg x={percentOf(mark.at)} y={HEIGHT / 2} overflow="visible"
										><path class="diamond" class:hollow={!lane.isSolid} d="M-5,0L0,-5L5,0L0,5Z" /></svg
									>
								{/if}
							</svg>
						</td>
						<td class="place"
							>{lane.place}{#if lane.text}<span class="visually-hidden">. {lane.text}</span>{/if}</td
						>
					</tr>
				{/each}
			</tbody>
		{/each}
	</table>
	<p class="readout muted small no-print" aria-hidden="true">
		{shown || hint}
	</p>
</div>

<style>
	.candidates {
		container-type: inline-size;
	}
	table {
		width: 100%;
		border-collapse: collapse;
		table-layout: fixed;
	}
	th,
	td {
		padding: 1px var(--gap-4) 1px 0;
		text-align: left;
		font-weight: 400;
		vertical-align: middle;
		line-height: 1.2;
	}
	thead th {
		color: var(--muted);
		font-size: var(--type-2);
		padding-bottom: var(--gap-2);
	}
	thead th:first-child {
		width: 7.2rem;
	}
	tbody {
		border-top: 1px solid var(--rule);
	}
	tbody tr:first-child > * {
		padding-top: var(--gap-3);
	}
	tbody tr:last-child > * {
		padding-bottom: var(--gap-3);
	}
	th[scope='rowgroup'] {
		font-weight: 600;
		vertical-align: top;
	}
	thead th:nth-child(2) {
		width: 26%;
	}
	.name i {
		display: inline-block;
		width: 0.6rem;
		height: 0.6rem;
		margin-right: var(--gap-3);
	}
	.name {
		overflow-wrap: anywhere;
	}
	.figure {
		width: 5.2rem;
		text-align: right;
		white-space: nowrap;
	}
	.range {
		display: block;
		color: var(--muted);
		font-size: var(--type-2);
	}
	.axis {
		padding-right: var(--gap-5);
	}
	.place {
		width: 11.5rem;
		font-size: var(--type-3);
	}
	.ticks {
		position: relative;
		display: block;
		height: 1.2em;
	}
	.ticks span {
		position: absolute;
		transform: translateX(-50%);
	}
	.ticks .end {
		right: 0;
		transform: none;
	}
	svg {
		display: block;
		overflow: visible;
	}
	.band {
		fill: var(--margin-band);
	}
	.zero {
		stroke: var(--rule-strong);
		stroke-width: 1.5;
	}
	.bar {
		stroke: currentColor;
		stroke-width: 3.5;
	}
	.bar.dotted {
		stroke-dasharray: 3 3;
	}
	path {
		fill: currentColor;
	}
	.diamond {
		stroke: currentColor;
		stroke-width: 2;
	}
	.diamond.hollow {
		fill: var(--panel);
	}
	tbody tr:hover {
		background: var(--wash);
	}
	@container (max-width: 480px) {
		thead {
			display: none;
		}
		table,
		tbody,
		tr {
			display: block;
		}
		tbody tr {
			display: grid;
			grid-template-columns: minmax(0, 1fr) auto;
		}
		th[scope='rowgroup'] {
			grid-column: 1 / -1;
		}
		.axis {
			grid-column: 1 / -1;
			padding-right: 0;
		}
		.place {
			grid-column: 1 / -1;
			width: auto;
		}
		.figure {
			width: auto;
		}
	}
</style>
