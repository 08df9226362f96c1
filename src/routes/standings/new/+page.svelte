<script lang="ts">
	import WatchForm from '../../watch/WatchForm.svelte';

	let { data, form } = $props();
</script>

<svelte:head><title>New standing – Zafra</title></svelte:head>

<div class="page">
	<h1>New standing</h1>
	<WatchForm
		kind="standing"
		choices={data.choices}
		typed={form?.typed ?? data.typed}
		issues={form?.issues ?? []}
		problem={form && 'problem' in form ? form.problem : ''}
		submit="Begin the standing"
	/>
</div>
