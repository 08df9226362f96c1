<script lang="ts">
	import { Button } from 'carbon-components-svelte';
	import { onMount } from 'svelte';
	import { invalidate } from '$app/navigation';
	import { formatWait } from '$core/wording/format';
	import Notice from '$lib/parts/Notice.svelte';

	let { data } = $props();
	const LOOK_AGAIN_MS = 5000;
	onMount(() => {
		const timer = setInterval(() => data.underWay.length && void invalidate('zafra:export'), LOOK_AGAIN_MS);
		return () => clearInterval(timer);
	});
</script>

<svelte:head><title>Export of {data.client.name} – Zafra</title></svelte:head>

<div class="page">
	<div class="page-top">
		<h1>Export {data.client.name}</h1>
		{#if !data.underWay.length}<Button size="field" href="/api/clients/{data.client.id}/export" download
				>Download the file</Button
			>{/if}
	</div>
	{#if data.underWay.length}
		<Notice
			title="A trial of this client is still running."
			text="A file that is made meanwhile would hold half a trial. This page checks again by itself."
		/>
		<ul>
			{#each data.underWay as trial (trial.id)}
				<li>
					<a href="/trials/{trial.id}">{trial.question}</a>:
					{trial.leftMs === null ? 'paused; let it go on, or stop it' : `${formatWait(trial.leftMs)} left`}
				</li>
			{/each}
		</ul>
	{/if}
	<p>
		One zip with all that is this client’s: its sites, pages, setups, trials with every load, watches, field
		data and reports. Another Zafra reads it on its page of clients.
	</p>
	<p class="muted">It holds no passwords, cookies, header values or preview accesses: those stay here.</p>
</div>
