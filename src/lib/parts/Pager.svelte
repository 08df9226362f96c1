<script lang="ts">
	/** Pages of a long list. */
	import { Pagination } from 'carbon-components-svelte';

	interface Props {
		total: number;
		pageSize: number;
		page: number;
		onchange?: (page: number) => void;
	}
	let { total, pageSize, page = $bindable(), onchange }: Props = $props();
	// Carbon's own words ask for the language's numbers: that takes a phone a third of a second.
	const rangeOf = (least: number, most: number, all: number) =>
		`${least}–${most} of ${all} ${all === 1 ? 'item' : 'items'}`;
	const pagesOf = (_: number, all: number) => `of ${all} ${all === 1 ? 'page' : 'pages'}`;
	function changed({ detail }: CustomEvent<{ page?: number }>) {
		if (!detail.page || detail.page === page) return;
		page = detail.page;
		onchange?.(page);
	}
</script>

<Pagination
	totalItems={total}
	{pageSize}
	{page}
	pageSizeInputDisabled
	size="sm"
	itemRangeText={rangeOf}
	pageRangeText={pagesOf}
	pageText={(of) => `page ${of}`}
	itemText={(least, most) => `${least}–${most}`}
	on:change={changed}
/>
