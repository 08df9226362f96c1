<script lang="ts">
	import ClientForm from '../../ClientForm.svelte';

	let { data } = $props();
</script>

<svelte:head><title>{data.name} – Zafra</title></svelte:head>

<div class="page">
	<ClientForm title={data.name} form={data.form} conditions={data.conditions} />
</div>
