<script lang="ts">
	/** Ask once whether the browser may tell what ends while nobody looks. */
	import { Button } from 'carbon-components-svelte';
	import { onMount } from 'svelte';

	let mayAsk = $state(false);
	onMount(() => (mayAsk = typeof Notification !== 'undefined' && Notification.permission === 'default'));

	async function ask() {
		await Notification.requestPermission();
		mayAsk = Notification.permission === 'default';
	}
</script>

{#if mayAsk}<Button kind="ghost" size="small" on:click={ask}>Notify me in the browser when it is done</Button
	>{/if}
