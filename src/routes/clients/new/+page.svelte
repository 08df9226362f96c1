<script lang="ts">
	import ClientForm from '../ClientForm.svelte';

	let { data } = $props();
</script>

<svelte:head><title>New client – Zafra</title></svelte:head>

<div class="page">
	<ClientForm title="New client" form={data.form} conditions={data.conditions} />
</div>
