<script lang="ts">
	/** The question, how it stands, and what can be done now. */
	import { Button } from 'carbon-components-svelte';
	import { enhance } from '$app/forms';
	import { formatMoment } from '$core/wording/format';
	import type { SheetView } from '$lib/server/trials/sheetView';
	import { KINDS, STATES } from './states';

	interface Props {
		trial: SheetView['trial'];
		isOpen: boolean;
		status: string;
	}
	let { trial, isOpen, status }: Props = $props();
</script>

<header>
	<div>
		<p class="muted small">
			{trial.clientName ? `For ${trial.clientName}. ` : ''}{KINDS[trial.kind]}.
			{trial.paused ? 'Paused' : STATES[status]}{trial.endedAt && status === 'done'
				? `, ${formatMoment(trial.endedAt)}`
				: ''}.
		</p>
		<h1>{trial.question}</h1>
	</div>
	<div class="actions no-print">
		{#if isOpen}
			<form method="POST" action="?/pause" use:enhance>
				<Button type="submit" kind="tertiary">Pause</Button>
			</form>
			<form method="POST" action="?/stop" use:enhance>
				<Button type="submit" kind="danger-tertiary" data-key="r">Stop</Button>
			</form>
		{:else if trial.paused}
			<form method="POST" action="?/stop" use:enhance>
				<Button type="submit" kind="danger-tertiary">Stop</Button>
			</form>
			<form method="POST" action="?/start" use:enhance><Button type="submit" data-key="r">Go on</Button></form>
		{:else if status === 'draft' || status === 'stopped'}
			<form method="POST" action="?/start" use:enhance>
				<Button type="submit" data-key="r">{status === 'stopped' ? 'Go on' : 'Start the trial'}</Button>
			</form>
		{:else if status === 'done'}
			<form method="POST" action="?/repeat"><Button type="submit" kind="tertiary">Repeat</Button></form>
			<Button on:click={() => window.print()} data-key="r">Print for the client</Button>
		{/if}
	</div>
</header>

<style>
	header {
		display: flex;
		justify-content: space-between;
		gap: 1.2rem;
		align-items: flex-start;
		margin-bottom: 1rem;
	}
	.actions {
		flex: none;
		display: flex;
		gap: 0.5rem;
	}

	@media (max-width: 560px) {
		header {
			flex-direction: column;
		}
	}
</style>
