<script lang="ts">
	/** Own pages beside those of competitors, by page type. */
	import type { PagePair } from '$core/pages/pairs';
	import Table from '$lib/parts/Table.svelte';
	import type { Column } from '$lib/parts/tableRows';

	let { pairs }: { pairs: PagePair[] } = $props();
	const pathOf = (url: string) => url.replace(/^https?:\/\/[^/]+/, '') || '/';
	const columns: Column<PagePair>[] = $derived([
		{ key: 'type', name: 'Page type', isRowHead: true, text: ({ type }) => type },
		{ key: 'own', name: 'Own page', text: ({ own }) => pathOf(own) },
		...(pairs[0]?.others ?? []).map(({ site }, i) => ({
			key: site,
			name: site,
			text: ({ others }: PagePair) => (others[i]?.url ? pathOf(others[i].url) : 'none of this type')
		}))
	]);
</script>

{#if pairs.length}<Table
		label="Pages by type, beside competitors"
		{columns}
		rows={pairs}
		key={({ type }) => type}
	/>
{:else}<p class="muted">
		Add a competitor and its pages, and give own pages and theirs the same page types: then they stand beside
		each other here.
	</p>{/if}
