<script lang="ts">
	import { InlineLoading } from 'carbon-components-svelte';
	import { invalidateAll } from '$app/navigation';
	import { page } from '$app/state';
	import { hasPages } from '$core/trial/design/kinds';
	import { formatMoment, formatWait } from '$core/wording/format';
	import { armColour } from '$lib/charts/armColour';
	import { queryWith } from '$lib/fragmentText';
	import { gotoLoaded } from '$lib/gotoLoaded';
	import { live } from '$lib/live.svelte';
	import Lazy from '$lib/parts/Lazy.svelte';
	import Notice from '$lib/parts/Notice.svelte';
	import Part from '$lib/parts/Part.svelte';
	import ProgressLine from '$lib/parts/ProgressLine.svelte';
	import Sheet from '$lib/parts/Sheet.svelte';
	import Answer from './Answer.svelte';
	import Chooser from './Chooser.svelte';
	import DeleteForm from './DeleteForm.svelte';
	import Head from './Head.svelte';
	import { PART_NAMES } from './partNames';

	let { data } = $props();
	const trial = $derived(data.trial);
	const compared = $derived(data.arms.filter((arm) => !arm.reference));
	const now = $derived(live.progressOf(trial.id));
	const status = $derived(now?.status ?? trial.status);
	const isOpen = $derived(status === 'queued' || status === 'running');
	/** All rounds are done; each variant is loaded patiently, and with an interaction. */
	const isCheckingLate = $derived(
		(now?.total ?? trial.progress.total) > 0 &&
			(now?.done ?? trial.progress.done) === (now?.total ?? trial.progress.total)
	);
	const pairs = $derived(data.comparisons.filter((pair) => pair.id !== 0));
	const shownCondition = $derived(data.conditions.find(({ id }) => id === data.chosen.condition)!);
	const shownPair = $derived(pairs.find(({ id }) => id === data.chosen.arm)!);
	/** A sweep draws the variants of one page at a time. */
	const drawn = $derived(
		hasPages(trial.kind) ? compared.filter((arm) => arm.page === shownPair.page) : compared
	);
	/** The conditions and the variant that the parts speak of. */
	function choose(chosen: Record<string, string>) {
		const before = JSON.stringify(data.chosen);
		void gotoLoaded(queryWith(page.url.search, chosen), (loaded) => JSON.stringify(loaded.chosen) !== before);
	}

	// Reading is told apart from opening: only a page that is shown marks an ended trial as read.
	$effect(() => {
		if (trial.unread) void fetch(`/api/trials/${trial.id}/read`, { method: 'POST' }).catch(() => undefined);
	});

	// Each finished load brings the sheet up to date, and so does evidence that is being worked out.
	let seen = '';
	$effect(() => {
		if (!now) return;
		const mark = `${trial.id}/${now.done}/${now.status}/${JSON.stringify(live.snapshot?.singles)}`;
		const isFirst = !seen.startsWith(`${trial.id}/`);
		const isOld = now.done !== trial.progress.done || now.status !== trial.status;
		if (mark !== seen && (isOld || !isFirst)) void invalidateAll();
		seen = mark;
	});
	$effect(() => {
		// Without a lab nobody works it out.
		if (!data.evidencePending || isOpen || live.snapshot?.lab.state === 'off') return;
		const timer = setTimeout(() => void invalidateAll(), 1500);
		return () => clearTimeout(timer);
	});

	const nameOf = (id: number) => data.arms.find((arm) => arm.id === id)?.name ?? '';
	const colourOf = (id: number) => {
		const page = data.arms.find((arm) => arm.id === id)?.page;
		return armColour(hasPages(trial.kind) ? compared.filter((arm) => arm.page === page) : compared, id);
	};
	/** What every part may need. */
	const shared = $derived({ status, condition: shownCondition, pair: shownPair, drawn, nameOf, colourOf });
	const margin = $derived(data.parts.map(({ id }) => ({ id, name: PART_NAMES[id] })));
	const isChosen = $derived(pairs.length > 1 || data.conditions.length > 1);
</script>

<svelte:head><title>{trial.question} – Zafra</title></svelte:head>

<Sheet parts={margin}>
	{#snippet first()}
		<Head {trial} {isOpen} {status} />
		{#if isOpen}
			<ProgressLine
				done={now?.done ?? trial.progress.done}
				total={now?.total ?? trial.progress.total}
				note={isCheckingLate
					? 'what comes late is checked now'
					: `${formatWait(now?.timeLeftMs || trial.timeLeftMs)} left`}
			/>
			{#if trial.begins}<p class="muted small">
					The next load waits for its time: {formatMoment(trial.begins)}.
				</p>{/if}
		{/if}
		{#if trial.message && !isOpen}<Notice
				kind={status === 'failed' ? 'error' : 'info'}
				title={trial.message}
			/>{/if}
		{#if status === 'waiting' && !trial.paused && trial.nextStage}
			<Lazy load={() => import('./NextStage.svelte')} props={{ stage: trial.nextStage }} />
		{/if}
		{#if data.steps && data.asked.Steps}<data.asked.Steps
				steps={data.steps}
				canGoOn={(status === 'waiting' || status === 'done') && !trial.paused && trial.nextStage === null}
				{status}
				answers={data.boards.flatMap(({ name, answers }) =>
					answers.map(({ sentence, tone }) => ({ name, sentence, tone }))
				)}
			/>{/if}
		<Answer asked={data.asked} {data} {isOpen} {status} {nameOf} {colourOf} />
		{#if isChosen}<Chooser conditions={data.conditions} {pairs} chosen={data.chosen} onchange={choose} />{/if}
	{/snippet}

	{#each data.parts as part (part.id)}
		<Part
			id={part.id}
			title={PART_NAMES[part.id]}
			finding={part.finding}
			tone={part.isTrouble ? 'trouble' : 'plain'}
		>
			{@const Shown = data.components[part.id]}
			{#if Shown}<Shown data={{ ...data, ...data.shown[part.id] }} {...shared} />{:else}<InlineLoading
					description="Fetched …"
				/>{/if}
		</Part>
	{/each}

	{#snippet last()}
		{#if !isOpen}
			<DeleteForm loads={data.answer.loads} />
		{/if}
	{/snippet}
</Sheet>
