<script lang="ts">
	import { Button, InlineNotification } from 'carbon-components-svelte';
	import { formatMoment, formatWait } from '$core/wording/format';
	import { live } from '$lib/live.svelte';
	import { invalidateAll } from '$app/navigation';
	import ProgressLine from '$lib/parts/ProgressLine.svelte';

	let { data } = $props();
	const nothing = $derived(
		!data.running.length && !data.waiting.length && !data.unread.length && !data.recent.length
	);
	const STATE: Record<string, string> = {
		draft: 'Draft',
		stopped: 'Stopped',
		waiting: 'Waits for you',
		failed: 'Failed'
	};

	// When a trial changes its state, the lists change too.
	const states = $derived(live.snapshot?.trials.map((trial) => `${trial.id}${trial.status}`).join());
	let known: string | undefined;
	$effect(() => {
		if (known !== undefined && known !== states) void invalidateAll();
		known = states;
	});
</script>

<svelte:head><title>Desk – Zafra</title></svelte:head>

<div class="top">
	<h1>Desk</h1>
	{#if !nothing}<Button href="/trials/new" data-key="r">New trial</Button>{/if}
</div>

{#if data.lab.unprotected}
	<InlineNotification
		kind="warning"
		lowContrast
		hideCloseButton
		title="Pages run without Chromium’s sandbox."
		subtitle="This machine does not allow it. Load only pages that you trust, or see docs/security.md."
	/>
{/if}

{#if nothing}
	<section class="panel empty">
		<h2>Ask the first question</h2>
		<p>
			A trial loads two or more versions of a page many times, in turn, and says whether they differ by more
			than chance. For example: does the chat make the timetable slower?
		</p>
		<Button href="/trials/new" data-key="r">New trial</Button>
	</section>
{/if}

{#if data.running.length}
	<section aria-labelledby="running">
		<h2 id="running">In the lab now</h2>
		{#each data.running as trial (trial.id)}
			{@const now = live.progressOf(trial.id)}
			<article class="panel">
				<a href="/trials/{trial.id}" data-row-link>{trial.question}</a>
				<ProgressLine
					done={now?.done ?? trial.progress.done}
					total={now?.total ?? trial.progress.total}
					note={now?.timeLeftMs ? `${formatWait(now.timeLeftMs)} left` : ''}
				/>
			</article>
		{/each}
	</section>
{/if}

{#snippet answers(trials: typeof data.recent)}
	{#each trials as trial (trial.id)}
		<article class="panel">
			<a href="/trials/{trial.id}" data-row-link>{trial.question}</a>
			<p class="muted small">{trial.clientName ?? 'No client'}, {formatMoment(trial.endedAt!)}</p>
			<ul>
				{#each trial.headlines as headline (headline.condition + headline.arm)}
					<li><b>{headline.conditionName}:</b> <span class="tone {headline.tone}">{headline.text}</span></li>
				{/each}
			</ul>
		</article>
	{/each}
{/snippet}

{#if data.unread.length}
	<section aria-labelledby="unread">
		<h2 id="unread">Answered, not read yet</h2>
		{@render answers(data.unread)}
	</section>
{/if}

{#if data.waiting.length}
	<section aria-labelledby="waiting">
		<h2 id="waiting">Waiting for you</h2>
		{#each data.waiting as trial (trial.id)}
			<article class="panel">
				<a href="/trials/{trial.id}" data-row-link>{trial.question}</a>
				<p class="muted small">{STATE[trial.status]}{trial.message ? `: ${trial.message}` : ''}</p>
			</article>
		{/each}
	</section>
{/if}

{#if data.recent.length}
	<section aria-labelledby="recent">
		<h2 id="recent">Answered lately</h2>
		{@render answers(data.recent)}
	</section>
{/if}

<style>
	.top {
		display: flex;
		justify-content: space-between;
		align-items: center;
		max-width: 1040px;
		margin-bottom: 1rem;
	}
	section {
		max-width: 1040px;
		margin-bottom: 1.8rem;
	}
	.empty {
		max-width: 40rem;
	}
	.empty p {
		margin-bottom: 1rem;
	}
	article {
		margin-bottom: 0.7rem;
	}
	article > a {
		font: 600 1.1rem var(--serif);
		color: var(--ink);
	}
	.small {
		font-size: 0.88rem;
	}
	ul {
		margin: 0.4rem 0 0;
		padding: 0;
		list-style: none;
	}
	.tone.better {
		color: var(--better);
	}
	.tone.worse {
		color: var(--worse);
	}
</style>
