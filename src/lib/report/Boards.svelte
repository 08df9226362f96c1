<svelte:options css="injected" />

<script lang="ts">
	/** The shift board of a report: every shift in margins, better left and worse right, its interval in words. */
	import { MARGIN_BAND, placeMark } from '$lib/charts/shiftBoardLayout';
	import type { BlockBody, ReportLabels } from '$core/report/view';

	interface Props {
		body: Extract<BlockBody, { kind: 'board' }>;
		labels: ReportLabels;
	}
	let { body, labels }: Props = $props();
	const HEIGHT = 22;
	const MIDDLE = HEIGHT / 2;
	const SIZE = 5.5;
	const percent = (share: number) => `${(share * 100).toFixed(2)}%`;
</script>

{#each body.boards as board, n (n)}
	<table class="together">
		<caption>{board.title}</caption>
		<thead>
			<tr>
				<th scope="col"><span class="hidden">{labels.metric}</span></th>
				<th scope="col" class="figure" dir="auto">{board.baseline}</th>
				<th scope="col" class="figure" dir="auto">{board.variant}</th>
				<th scope="col" class="axis"
					><span class="ticks"
						><span>{labels.better}</span><span>{labels.inside}</span><span>{labels.worse}</span></span
					></th
				>
				<th scope="col"><span class="hidden">{labels.verdict}</span></th>
			</tr>
		</thead>
		<tbody>
			{#each board.rows as row (row.metric)}
				{@const placed = placeMark(row)}
				<tr>
					<th scope="row">{row.name}</th>
					<td class="figure" data-figure={row.baseline.ref}>{row.baseline.text}</td>
					<td class="figure" data-figure={row.variant.ref}>{row.variant.text}</td>
					<td class="axis">
						<svg width="100%" height={HEIGHT} aria-hidden="true">
							<rect
								x={percent(MARGIN_BAND.from)}
								width={percent(MARGIN_BAND.to - MARGIN_BAND.from)}
								height={HEIGHT}
								fill="var(--margin-band)"
							/>
							<line x1="50%" x2="50%" y2={HEIGHT} stroke="var(--rule-strong)" stroke-width="1.5" />
							{#if placed}
								<g class={placed.tone}>
									{#if placed.bar}<line
											class="bar"
											class:dotted={placed.isDotted}
											x1={percent(placed.bar.from)}
											x2={percent(placed.bar.to)}
											y1={MIDDLE}
											y2={MIDDLE}
										/>{/if}
									<svg x={percent(placed.at)} y={MIDDLE} overflow="visible">
										<path class:hollow={!placed.isSolid} d="M{-SIZE},0L0,{-SIZE}L{SIZE},0L0,{SIZE}Z" />
									</svg>
								</g>
							{/if}
						</svg>
						<span class="shift">{row.shift}</span>
					</td>
					<td class="word {row.isPutOff ? 'quiet' : row.verdict}" data-figure={row.word.ref || undefined}
						>{row.word.text}</td
					>
				</tr>
			{/each}
		</tbody>
	</table>
{/each}

<style>
	table {
		width: 100%;
		border-collapse: collapse;
		margin: 0.4rem 0 1.2rem;
		table-layout: fixed;
	}
	caption {
		text-align: left;
		font-weight: 600;
		padding-bottom: 0.2rem;
	}
	th,
	td {
		text-align: left;
		font-weight: 400;
		padding: 0.2rem 0.4rem 0.2rem 0;
		vertical-align: top;
		line-height: 1.25;
	}
	th[scope='row'] {
		font-weight: 600;
		width: 8rem;
	}
	thead th {
		color: var(--muted);
		font-size: 0.82rem;
		border-bottom: 1px solid var(--rule);
		vertical-align: bottom;
	}
	thead th:first-child {
		width: 17%;
	}
	.figure {
		text-align: right;
		width: 12%;
		padding-right: 0.8rem;
	}
	thead th:last-child {
		width: 17%;
	}
	.ticks {
		display: flex;
		justify-content: space-between;
		gap: 0.4rem;
	}
	svg {
		display: block;
		overflow: visible;
	}
	.shift {
		display: block;
		color: var(--muted);
		font-size: 0.8rem;
	}
	.bar {
		stroke: currentColor;
		stroke-width: 3;
	}
	.dotted {
		stroke-dasharray: 2 3;
	}
	path {
		fill: currentColor;
		stroke: currentColor;
		stroke-width: 1.5;
	}
	.hollow {
		fill: #fff;
	}
	g,
	.word {
		color: var(--same);
	}
	.word {
		padding-left: 0.6rem;
		font-size: 0.9rem;
	}
	.better {
		color: var(--better);
	}
	.worse {
		color: var(--worse);
	}
	td.better,
	td.worse {
		font-weight: 600;
	}
	.hidden {
		position: absolute;
		width: 1px;
		height: 1px;
		overflow: hidden;
		clip-path: inset(50%);
		white-space: nowrap;
	}
	@media (max-width: 36rem) {
		thead {
			display: none;
		}
		tr {
			display: grid;
			grid-template-columns: 1fr auto auto;
			gap: 0 0.6rem;
			padding: 0.4rem 0;
			border-top: 1px solid var(--rule);
		}
		.figure,
		th[scope='row'] {
			width: auto;
			padding: 0;
		}
		.axis {
			grid-column: 1 / -1;
			padding: 0;
		}
		.word {
			grid-column: 1 / -1;
			padding: 0;
		}
	}
</style>
