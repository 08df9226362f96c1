<script lang="ts">
	import { HIT_KINDS } from '$lib/parts/hitKinds';

	let { data } = $props();
</script>

<svelte:head><title>Search – Zafra</title></svelte:head>

<div class="page">
	<h1>Search</h1>
	{#if data.hits.length}
		<p class="muted">{data.hits.length} found for “{data.query}”.</p>
		<ul class="plain">
			{#each data.hits as hit, i (i)}
				<li>
					<span class="muted">{HIT_KINDS[hit.kind]}</span> <a href={hit.href} data-row-link>{hit.text}</a>
					{hit.note}
				</li>
			{/each}
		</ul>
	{:else}
		<p class="muted">
			{data.query
				? `Nothing has “${data.query}” in its name or address.`
				: 'Type at least two letters in the search above.'}
		</p>
	{/if}
</div>
