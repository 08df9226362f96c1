<script lang="ts">
	/** The end of a watch's or a standing's screen: settings, pause, delete with what goes with it. */
	import { Button } from 'carbon-components-svelte';
	import type { Snippet } from 'svelte';
	import Action from './Action.svelte';
	import Confirm from './Confirm.svelte';

	interface Props {
		/** "this watch" */
		what: string;
		state: 'active' | 'paused';
		/** Path of its settings. */
		settings: string;
		/** What goes with it when it is deleted. */
		loss: string;
		/** Further buttons. */
		children?: Snippet;
	}
	let { what, state: running, settings, loss, children }: Props = $props();
	let asks = $state(false);
	let deletion: HTMLFormElement;
</script>

<div class="row actions no-print">
	<Button kind="tertiary" size="field" href={settings}>Settings</Button>
	{@render children?.()}
	<Action
		action={running === 'active' ? '?/pause' : '?/resume'}
		text={running === 'active' ? 'Pause' : 'Resume'}
		size="field"
	/>
	<Button kind="danger-ghost" size="field" on:click={() => (asks = true)}>Delete</Button>
	<form method="POST" action="?/delete" bind:this={deletion}></form>
</div>
<Confirm bind:open={asks} heading="Delete {what}?" action="Delete" onconfirm={() => deletion.requestSubmit()}>
	<p>{loss}</p>
</Confirm>

<style>
	.actions {
		margin-top: var(--gap-7);
	}
</style>
