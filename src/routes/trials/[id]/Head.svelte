<script lang="ts">
	/** The question, how it stands, and what can be done now. */
	import { Button } from 'carbon-components-svelte';
	import { formatMoment } from '$core/wording/format';
	import type { SheetHead } from '$lib/server/rooms/trials/sheet/head';
	import { keepTyped } from '$lib/keepTyped';
	import Action from '$lib/parts/Action.svelte';
	import Lazy from '$lib/parts/Lazy.svelte';
	import { openParts } from '$lib/parts/openParts.svelte';
	import { KINDS, STATES } from '$lib/parts/trialNames';

	interface Props {
		trial: SheetHead['trial'];
		isOpen: boolean;
		status: string;
	}
	let { trial, isOpen, status }: Props = $props();
	const parts = openParts();
	/** On paper stands what is open: the variants and the method belong to an answer. */
	async function print() {
		await parts.openAll(['arms', 'method']);
		window.print();
	}
	let isAsking = $state(false);
	let stopForm = $state<HTMLFormElement>();
	const rounds = $derived(trial.looks.at(-1)?.rounds ?? trial.rounds);
	const meta = $derived(
		[
			trial.clientName,
			KINDS[trial.kind].toLowerCase(),
			`${rounds} ${rounds === 1 ? 'round' : 'rounds'}`,
			trial.paused
				? 'Paused'
				: status === 'done' && trial.endedAt
					? formatMoment(trial.endedAt)
					: STATES[status]
		].filter(Boolean)
	);
</script>

{#snippet stop()}
	<form method="POST" action="?/stop" use:keepTyped bind:this={stopForm}>
		<Button kind="danger-tertiary" size="field" on:click={() => (isAsking = true)}>Stop</Button>
	</form>
	{#if isAsking}<Lazy
			load={() => import('./StopTrial.svelte')}
			props={{
				hasAnswer: (trial.added ?? 0) > 0,
				onconfirm: () => {
					isAsking = false;
					stopForm?.requestSubmit();
				},
				oncancel: () => (isAsking = false)
			}}
		/>{/if}
{/snippet}

<header>
	<div>
		<h1>{trial.question}</h1>
		<p class="muted small">{meta.join(' · ')}</p>
	</div>
	<div class="actions no-print">
		{#if isOpen}
			{#if trial.canBeFirst}<Action action="?/first" text="Run this first" kind="ghost" size="field" />{/if}
			<Action action="?/pause" text="Pause" kind="tertiary" size="field" />
			{@render stop()}
		{:else if trial.paused}
			{@render stop()}
			<Action action="?/start" text="Go on" kind="primary" size="field" shortcut="r" />
		{:else if status === 'draft' || status === 'stopped'}
			<Action
				action="?/start"
				text={status === 'stopped' ? 'Go on' : 'Start the trial'}
				kind="primary"
				size="field"
				shortcut="r"
			/>
		{/if}
		{#if status === 'done' || (status === 'stopped' && !trial.paused && trial.looks.length > 0)}
			<Action action="?/repeat" text="Repeat" kind="tertiary" size="field" />
			<Button kind="tertiary" size="field" on:click={() => void print()}>Print for the client</Button>
			<Action
				action="/reports?/create"
				text="Write a report"
				kind={status === 'done' ? 'primary' : 'tertiary'}
				size="field"
				shortcut={status === 'done' ? 'r' : undefined}
				values={{ trial: trial.id }}
			/>
		{/if}
	</div>
</header>

<style>
	header {
		display: flex;
		justify-content: space-between;
		gap: var(--gap-7);
		align-items: flex-start;
		margin-bottom: var(--gap-5);
	}
	.actions {
		flex: none;
		display: flex;
		gap: var(--gap-4);
	}
	@media (max-width: 560px) {
		header {
			flex-direction: column;
		}
	}
</style>
