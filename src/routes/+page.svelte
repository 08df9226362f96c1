<script lang="ts">
	import { Button } from 'carbon-components-svelte';
	import { invalidateAll } from '$app/navigation';
	import { formatMoment, formatWait } from '$core/wording/format';
	import ShiftStrip from '$lib/charts/ShiftStrip.svelte';
	import { live } from '$lib/live.svelte';
	import Notice from '$lib/parts/Notice.svelte';
	import NotifyMe from '$lib/parts/NotifyMe.svelte';
	import ProgressLine from '$lib/parts/ProgressLine.svelte';
	import { STATES } from '$lib/parts/trialNames';
	import Strips from '$lib/parts/Strips.svelte';

	let { data } = $props();
	const isEmpty = $derived(
		!data.running.length &&
			!data.waiting.length &&
			!data.unread.length &&
			!data.recent.length &&
			!data.notices.length &&
			!data.broken.length &&
			!data.readings.length
	);

	async function markRead(id: number) {
		await fetch(`/api/notices/${id}`, { method: 'POST' });
		await invalidateAll();
	}

	// When a trial changes its state, the lists change too.
	const states = $derived(live.snapshot?.trials.map((trial) => `${trial.id}${trial.status}`).join());
	let known: string | undefined;
	$effect(() => {
		if (known !== undefined && known !== states) void invalidateAll();
		known = states;
	});
</script>

<svelte:head><title>Desk – Zafra</title></svelte:head>

<div class="page">
	<div class="page-top">
		<h1>Desk</h1>
		{#if !isEmpty}<Button size="field" href="/trials/new" data-key="r">New trial</Button>{/if}
	</div>

	{#if data.lab.unprotected}
		<Notice
			kind="warning"
			title="Pages run without Chromium’s sandbox."
			text="This machine does not allow it. Load only pages that you trust, or see docs/security.md."
		/>
	{/if}
	{#if data.damage}<Notice kind="error" title="The database is damaged." text={data.damage} />{/if}
	{#if data.lab.problem}<Notice
			kind="error"
			title="The lab cannot load pages."
			text="{data.lab.problem} Trials wait until then; nothing is lost."
		/>{/if}

	{#if isEmpty}
		<section class="stack panel empty">
			<h2>Ask the first question</h2>
			<p>
				A trial loads two or more versions of a page many times, in turn, and says whether they differ by more
				than chance. For example: does the chat make the timetable slower?
			</p>
			<Button href="/trials/new" data-key="r">New trial</Button>
			{#if !data.clients.length}<p>
					<a href="/clients/new">Add a client</a> first, if the page is one of its: its sites, components and targets
					then come into every trial.
				</p>{/if}
			<p class="muted">
				To see first why one page is slow, <a href="/loads">load it once</a>.
			</p>
		</section>
	{/if}

	{#if data.waiting.length}
		<section aria-labelledby="waiting">
			<h2 id="waiting">Needs you</h2>
			<ul class="cards">
				{#each data.waiting as trial (trial.id)}
					<li class="panel">
						<a href="/trials/{trial.id}" data-row-link>{trial.question}</a>
						<p class="muted small" class:trouble={trial.status === 'failed'}>
							{[trial.clientName, STATES[trial.status], trial.message].filter(Boolean).join(' · ')}
						</p>
					</li>
				{/each}
			</ul>
		</section>
	{/if}

	{#if data.broken.length}
		<section aria-labelledby="broken">
			<h2 id="broken">Still broken</h2>
			<ul class="cards">
				{#each data.broken as page (page.key)}
					<li class="panel">
						<a href={page.path} data-row-link>{page.name}</a>
						<p class="trouble">{page.trouble}</p>
						<p class="muted small">
							{[
								page.clientName,
								page.watchName,
								page.goodAt ? `last figures ${formatMoment(page.goodAt)}` : 'no figures yet'
							].join(' · ')}
						</p>
					</li>
				{/each}
			</ul>
		</section>
	{/if}

	{#if data.notices.length}
		<section aria-labelledby="watched">
			<h2 id="watched">From what is watched</h2>
			<ul class="cards">
				{#each data.notices as notice (notice.id)}
					<li class="panel">
						<a href={notice.path} data-row-link>{notice.title}</a>
						<p class="muted small" class:trouble={notice.kind === 'trouble'}>
							{[notice.clientName, notice.watchName, notice.when || formatMoment(notice.at)]
								.filter(Boolean)
								.join(' · ')}
						</p>
						{#if notice.marks.length}<div class="row told">
								<ShiftStrip label={notice.title} marks={notice.marks} />
								<span class="muted small"
									>{notice.marks.map(({ short, word }) => `${short} ${word}`).join(', ')}</span
								>
							</div>{/if}
						<Button kind="ghost" size="small" on:click={() => markRead(notice.id)}
							>Done <span class="visually-hidden">with {notice.title}</span></Button
						>
					</li>
				{/each}
			</ul>
		</section>
	{/if}

	{#if data.readings.length}
		<section aria-labelledby="readings">
			<h2 id="readings">Readings under way</h2>
			<ul class="cards">
				{#each data.readings as reading (reading.id)}
					<li class="panel">
						<a href="/{reading.kind === 'watch' ? 'watch' : 'standings'}/{reading.id}" data-row-link
							>{reading.name}</a
						>
						<ProgressLine done={reading.done} total={reading.total} />
					</li>
				{/each}
			</ul>
		</section>
	{/if}

	{#if data.running.length}
		<section aria-labelledby="running">
			<h2 id="running">In the lab now</h2>
			<ul class="cards">
				{#each data.running as trial (trial.id)}
					{@const now = live.progressOf(trial.id)}
					<li class="panel">
						<a href="/trials/{trial.id}" data-row-link>{trial.question}</a>
						<ProgressLine
							done={now?.done ?? trial.progress.done}
							total={now?.total ?? trial.progress.total}
							note={[
								now?.timeLeftMs ? `${formatWait(now.timeLeftMs)} left` : '',
								trial.nextLook ? `next look after ${trial.nextLook} rounds` : ''
							]
								.filter(Boolean)
								.join(', ')}
						/>
					</li>
				{/each}
			</ul>
			<NotifyMe />
		</section>
	{/if}

	{#snippet answers(trials: typeof data.recent)}
		<ul class="cards">
			{#each trials as trial (trial.id)}
				<li class="panel">
					<a href="/trials/{trial.id}" data-row-link>{trial.question}</a>
					<p class="muted small">{trial.clientName ?? 'No client'} · {formatMoment(trial.endedAt!)}</p>
					<Strips answer={trial.answer} />
				</li>
			{/each}
		</ul>
	{/snippet}

	{#if data.unread.length}
		<section aria-labelledby="unread">
			<h2 id="unread">Answered, not read yet</h2>
			{@render answers(data.unread)}
		</section>
	{/if}

	{#if data.recent.length}
		<section aria-labelledby="recent">
			<h2 id="recent">Answered lately</h2>
			{@render answers(data.recent)}
		</section>
	{/if}
</div>

<style>
	.cards {
		list-style: none;
		margin: 0;
		padding: 0;
		display: grid;
		gap: var(--gap-4);
	}
	/* What is out of sight is laid out when it comes near. */
	.cards > li {
		content-visibility: auto;
		contain-intrinsic-block-size: auto 7rem;
	}
	.cards li > a {
		font: 600 1.1rem var(--serif);
		color: var(--ink);
	}
	.cards p {
		margin: var(--gap-1) 0 var(--gap-3);
	}
</style>
