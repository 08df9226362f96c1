<script lang="ts">
	import { Button } from 'carbon-components-svelte';
	import { goto, invalidateAll } from '$app/navigation';
	import { page } from '$app/state';
	import { live } from '$lib/live.svelte';
	import Pager from '$lib/parts/Pager.svelte';
	import { STATES } from '$lib/parts/trialNames';
	import TrialFilter from './TrialFilter.svelte';
	import TrialTable from './TrialTable.svelte';

	let { data } = $props();
	type Row = (typeof data.trials)[number];

	const stateOf = (row: Row) => {
		const now = live.progressOf(row.id) ?? row;
		const isMoving = row.status === 'running' || row.status === 'queued';
		return isMoving ? `${STATES[row.status]}, ${now.done} of ${now.total}` : STATES[row.status]!;
	};
	function showPage(at: number) {
		const others = [...page.url.searchParams].filter(([name]) => name !== 'page');
		const query = new URLSearchParams([...others, ['page', String(at)]]);
		void goto(`?${query}`, { keepFocus: true, noScroll: true, replaceState: true });
	}

	const states = $derived(live.snapshot?.trials.map((trial) => `${trial.id}${trial.status}`).join());
	let known: string | undefined;
	$effect(() => {
		if (known !== undefined && known !== states) void invalidateAll();
		known = states;
	});
</script>

<svelte:head><title>Trials – Zafra</title></svelte:head>

<div class="page">
	<div class="page-top">
		<h1>Trials</h1>
		<Button size="field" href="/trials/new" data-key="r">New trial</Button>
	</div>

	{#if data.all === 0}
		<section class="panel empty">
			<h2>No trials here yet</h2>
			<p>Begin with the question:</p>
			<ul class="plain">
				{#each data.templates as template (template.id)}
					<li><a href="/trials/new?template={template.id}">{template.name}</a></li>
				{/each}
			</ul>
		</section>
	{:else}
		<TrialFilter filter={data.filter} hosts={data.hosts} total={data.total} all={data.all} />
		{#if data.trials.length}
			<TrialTable trials={data.trials} {stateOf} />
		{:else}
			<p>No trial fits. <Button kind="ghost" size="small" on:click={() => goto('/trials')}>Show all</Button></p>
		{/if}
		{#if data.pages > 1}
			<Pager total={data.total} pageSize={data.rows} page={data.page} onchange={showPage} />
		{/if}
	{/if}
</div>
