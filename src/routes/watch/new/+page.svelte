<script lang="ts">
	import WatchForm from '$lib/parts/WatchForm.svelte';

	let { data } = $props();
</script>

<svelte:head><title>New watch – Zafra</title></svelte:head>

<div class="page">
	<h1>New watch</h1>
	<WatchForm kind="watch" {data} submit="Watch these pages" />
</div>
