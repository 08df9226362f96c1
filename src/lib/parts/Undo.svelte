<script lang="ts">
	/** What was just deleted, for taking it back; it also lies in the workshop's bin. */
	import { Button, ToastNotification } from 'carbon-components-svelte';
	import Action from './Action.svelte';

	interface Props {
		/** Its number in the bin. */
		id?: number;
		name: string;
		/** Taken back by the page itself, where it is not saved yet. */
		onundo?: () => void;
	}
	let { id, name, onundo }: Props = $props();
</script>

<div class="corner left no-print">
	{#key id ?? name}
		<ToastNotification lowContrast role="status" kind="info" title="“{name}” was deleted.">
			<svelte:fragment slot="subtitleChildren"
				>It stays in <a href="/workshop/bin">the bin</a> for 30 days.</svelte:fragment
			>
			{#if onundo}<Button kind="tertiary" size="small" on:click={onundo}>Undo</Button>
			{:else if id !== undefined}<Action action="?/restore" text="Undo" kind="tertiary" values={{ id }} />{/if}
		</ToastNotification>
	{/key}
</div>
