<script lang="ts">
	import WatchForm from '$lib/parts/WatchForm.svelte';

	let { data } = $props();
</script>

<svelte:head><title>New standing – Zafra</title></svelte:head>

<div class="page">
	<h1>New standing</h1>
	<WatchForm kind="standing" {data} submit="Begin the standing" />
</div>
