<script lang="ts">
	import { Button } from 'carbon-components-svelte';
	import FilterBar from '$lib/parts/FilterBar.svelte';
	import Table from '$lib/parts/Table.svelte';
	import type { Column } from '$lib/parts/tableRows';
	import Undo from '$lib/parts/Undo.svelte';

	let { data } = $props();
	type Row = (typeof data.components)[number];
	let words = $state('');
	const rows = $derived(
		data.components.filter(({ name, kind }) => `${name} ${kind}`.toLowerCase().includes(words.toLowerCase()))
	);
	const columns: Column<Row>[] = [
		{ key: 'name', name: 'Component', sort: ({ name }) => name },
		{ key: 'kind', name: 'Kind', text: ({ kind }) => kind, sort: ({ kind }) => kind },
		{ key: 'tiers', name: 'Tiers', text: ({ tiers }) => tiers.join(', ') || 'none written down' },
		{ key: 'jobs', name: 'Exclusive jobs', text: ({ jobs }) => jobs.join(', ') },
		{ key: 'known', name: 'Known in loads', text: ({ isKnown }) => (isKnown ? 'yes' : 'no') },
		{ key: 'sites', name: 'Runs on', text: ({ sites }) => sites.join(', ') }
	];
</script>

<svelte:head><title>Components – Zafra</title></svelte:head>

<div class="page">
	<div class="page-top">
		<h1>Components</h1>
		<Button size="field" href="/workshop/components/new" data-key="r">New component</Button>
	</div>
	<p class="muted">
		Builders, themes, plugins and services that the agency’s sites run on: written down once, with what they
		cost and by what they are known in a load.
	</p>
	{#if data.components.length}
		<FilterBar placeholder="Name or kind" bind:words onsearch={() => undefined} />
		<Table label="Table of components" {columns} {rows} key={({ id }) => id}>
			{#snippet cell(row)}<a href="/workshop/components/{row.id}" data-row-link>{row.name}</a>{/snippet}
		</Table>
	{:else}<p>None yet. Begin with what the site you look at runs on.</p>{/if}
</div>
{#if data.binned}<Undo id={data.binned.id} name={data.binned.name} />{/if}
