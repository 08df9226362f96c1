<svelte:options css="injected" />

<script lang="ts">
	/** Figures in rows; a bar beside those that are shares of the largest. */
	import type { BlockBody } from '$core/report/view';

	let { body }: { body: Extract<BlockBody, { kind: 'tables' }> } = $props();
	/** Longer cells hold a figure with its range: they may wrap. */
	const MOST_UNBROKEN = 14;
	const isNumber = (text: string) => /^[−–\d+]/.test(text) && text.length <= MOST_UNBROKEN;
</script>

{#each body.tables as table, n (n)}
	<!-- A wide table scrolls in a box of its own, which the keyboard can reach. -->
	<!-- svelte-ignore a11y_no_noninteractive_tabindex -->
	<div class="scroller" role="region" aria-label={table.title || table.head[0]} tabindex="0">
		<table>
			{#if table.title}<caption>{table.title}</caption>{/if}
			<thead
				><tr
					>{#each table.head as name, i (i)}<th scope="col">{name}</th>{/each}</tr
				></thead
			>
			<tbody>
				{#each table.rows as row, r (r)}
					<tr>
						{#each row.cells as cell, i (i)}
							{@const bar = row.bars?.[i] ?? null}
							<td class:number={isNumber(cell)} dir="auto"
								>{cell}{#if bar !== null}<i style:width="{(bar * 100).toFixed(1)}%"></i>{/if}</td
							>
						{/each}
					</tr>
				{/each}
			</tbody>
		</table>
	</div>
{/each}
{#if body.about}<p>{body.about}</p>{/if}

<style>
	.scroller {
		overflow-x: auto;
		margin: 0.4rem 0 1rem;
	}
	table {
		border-collapse: collapse;
		width: 100%;
		font-size: 0.9rem;
	}
	caption {
		text-align: left;
		font-weight: 600;
		padding-bottom: 0.2rem;
		font-size: 1rem;
	}
	th,
	td {
		text-align: left;
		padding: 0.25rem 0.7rem 0.25rem 0;
		border-bottom: 1px solid var(--rule);
		vertical-align: top;
	}
	th {
		color: var(--muted);
		font-weight: 600;
		font-size: 0.82rem;
		vertical-align: bottom;
	}
	.number {
		white-space: nowrap;
	}
	i {
		display: block;
		height: 5px;
		background: var(--rule-strong);
		margin-top: 2px;
	}
	p {
		color: var(--muted);
		font-size: 0.88rem;
		margin: 0 0 0.6rem;
	}
	@media print {
		.scroller {
			overflow: visible;
		}
		thead {
			display: table-header-group;
		}
		table {
			font-size: 8pt;
		}
	}
</style>
