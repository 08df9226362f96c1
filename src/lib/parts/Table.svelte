<script lang="ts" generics="Row">
	/** A table of rows on Carbon: columns say what they show, heads sort, long tables come in pages. */
	import { Table, TableBody, TableHead, TableHeader, TableRow } from 'carbon-components-svelte';
	import type { Snippet } from 'svelte';
	import Pager from './Pager.svelte';
	import { pageOf, sortedRows, type Column } from './tableRows';

	interface Props {
		label: string;
		columns: readonly Column<Row>[];
		rows: readonly Row[];
		key: (row: Row) => string | number;
		/** Cells that are more than text; others show what their column says. */
		cell?: Snippet<[Row, Column<Row>]>;
		/** Rows a page; all on one without. */
		pageSize?: number;
		rowClass?: (row: Row) => string;
		size?: 'compact' | 'short' | 'medium';
	}
	let { label, columns, rows, key, cell, pageSize, rowClass = () => '', size = 'short' }: Props = $props();
	let sorted = $state<{ key: string; ascending: boolean } | null>(null);
	let page = $state(1);
	const ordered = $derived(sortedRows(rows, columns, sorted));
	const shown = $derived(pageSize ? pageOf(ordered, page, pageSize) : ordered);
	const classOf = (column: Column<Row>) => (column.number ? 'number' : (column.kind ?? ''));

	function sort(column: Column<Row>) {
		if (sorted?.key !== column.key) sorted = { key: column.key, ascending: !column.number };
		else if (sorted.ascending === !column.number) sorted = { key: column.key, ascending: !sorted.ascending };
		else sorted = null;
	}
</script>

{#snippet content(row: Row, column: Column<Row>)}{#if cell && !column.text}{@render cell(
			row,
			column
		)}{:else}{column.text?.(row) ?? ''}{/if}{/snippet}

<!-- A wide table scrolls in a box of its own, which the keyboard can reach. -->
<!-- svelte-ignore a11y_no_noninteractive_tabindex -->
<div class="scroller" role="region" aria-label={label} tabindex="0">
	<Table {size} aria-label={label} sortable={columns.some((column) => column.sort)}>
		<TableHead>
			<TableRow>
				{#each columns as column (column.key)}
					{#if column.sort}
						<TableHeader
							sortable
							active={sorted?.key === column.key}
							sortDirection={sorted?.key !== column.key
								? 'none'
								: sorted.ascending
									? 'ascending'
									: 'descending'}
							class={classOf(column)}
							on:click={() => sort(column)}>{column.name}</TableHeader
						>
					{:else}
						<TableHeader class={classOf(column)}
							>{#if column.isUnnamed}<span class="visually-hidden">{column.name}</span
								>{:else}{column.name}{/if}</TableHeader
						>
					{/if}
				{/each}
			</TableRow>
		</TableHead>
		<TableBody>
			{#each shown as row (key(row))}
				<!-- Carbon's rows and cells are these elements with nothing added: a component each takes a phone too long. -->
				<tr class={rowClass(row) || undefined}>
					{#each columns as column (column.key)}
						{#if column.isRowHead}
							<th scope="row" class={classOf(column) || undefined}
								><div class="bx--table-header-label">{@render content(row, column)}</div></th
							>
						{:else}
							<td class={classOf(column) || undefined}>{@render content(row, column)}</td>
						{/if}
					{/each}
				</tr>
			{/each}
		</TableBody>
	</Table>
</div>
{#if pageSize && rows.length > pageSize}
	<Pager total={rows.length} {pageSize} bind:page />
{/if}

<style>
	.scroller {
		overflow-x: auto;
		/* Hidden words in far columns are placed within the box, not within the page. */
		position: relative;
	}
</style>
