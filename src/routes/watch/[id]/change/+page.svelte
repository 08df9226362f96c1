<script lang="ts">
	import WatchForm from '../../WatchForm.svelte';

	let { data, form } = $props();
</script>

<svelte:head><title>Settings of {data.watch.name} – Zafra</title></svelte:head>

<div class="page">
	<h1>Settings of {data.watch.name}</h1>
	<WatchForm
		kind="watch"
		choices={data.choices}
		typed={form?.typed ?? data.typed}
		issues={form?.issues ?? []}
		problem={form && 'problem' in form ? form.problem : ''}
		submit="Save"
		isNew={false}
	/>
</div>
