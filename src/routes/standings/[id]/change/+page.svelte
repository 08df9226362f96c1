<script lang="ts">
	import WatchForm from '$lib/parts/WatchForm.svelte';

	let { data } = $props();
</script>

<svelte:head><title>Settings of {data.name} – Zafra</title></svelte:head>

<div class="page">
	<h1>Settings of {data.name}</h1>
	<WatchForm kind="standing" {data} submit="Save" isNew={false} />
</div>
