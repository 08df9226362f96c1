<script lang="ts">
	import { page } from '$app/state';
</script>

<svelte:head><title>{page.status} – Zafra</title></svelte:head>
<h1>{page.status === 404 ? 'Not here' : 'Something went wrong'}</h1>
<p>{page.error?.message}</p>
<p><a href="/">Go to the Desk</a></p>
