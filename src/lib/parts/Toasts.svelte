<script lang="ts">
	/** What happened while the page was open. Nothing is lost when it was not: the Desk lists it all. */
	import { ToastNotification } from 'carbon-components-svelte';
	import { page } from '$app/state';
	import { live } from '$lib/live.svelte';

	/** The rest is on the Desk. */
	const MOST = 3;
	const shown = $derived(live.notices.filter(({ id }) => page.url.pathname !== `/trials/${id}`).slice(0, MOST));
</script>

<div class="corner no-print">
	{#each shown as notice (notice.id)}
		<ToastNotification
			lowContrast
			role="status"
			kind={notice.kind}
			title={notice.title}
			on:close={() => live.putAway(notice.id)}
		>
			<svelte:fragment slot="subtitleChildren"
				><a href="/trials/{notice.id}" onclick={() => live.putAway(notice.id)}>{notice.question}</a
				></svelte:fragment
			>
		</ToastNotification>
	{/each}
</div>
