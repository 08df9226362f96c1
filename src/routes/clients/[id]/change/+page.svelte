<script lang="ts">
	import ClientForm from '../../ClientForm.svelte';
	import { draftOfClient } from '../../clientDraft';

	let { data, form } = $props();
	const draft = $derived((form && 'typed' in form && form.typed) || draftOfClient(data.client));
</script>

<svelte:head><title>{data.client.name} – Zafra</title></svelte:head>

<div class="page">
	<ClientForm title={data.client.name} {draft} conditions={data.conditions} issues={form?.issues ?? []} />
</div>
