<script lang="ts">
	import { hasPages, hasStages, isSamePage } from '$core/trial/kinds';
	import Scroller from '$lib/parts/Scroller.svelte';
	import { Button } from 'carbon-components-svelte';
	import { invalidateAll } from '$app/navigation';
	import { metricOf } from '$core/metrics/catalogue';
	import { formatMoment, formatWait } from '$core/wording/format';
	import FramesInStep from '$lib/charts/FramesInStep.svelte';
	import { armColour } from '$lib/charts/armColour';
	import { live } from '$lib/live.svelte';
	import ProgressLine from '$lib/parts/ProgressLine.svelte';
	import Sheet from '$lib/parts/Sheet.svelte';
	import Answer from './Answer.svelte';
	import Arms from './Arms.svelte';
	import Broke from './Broke.svelte';
	import Fairness from './Fairness.svelte';
	import Head from './Head.svelte';
	import Held from './Held.svelte';
	import LoadTable from './LoadTable.svelte';
	import Method from './Method.svelte';
	import NextStage from './NextStage.svelte';
	import Repeats from './Repeats.svelte';
	import Shifts from './Shifts.svelte';
	import ShiftTable from './ShiftTable.svelte';
	import Why from './Why.svelte';
	import Worth from './Worth.svelte';

	let { data, form } = $props();
	const trial = $derived(data.trial);
	const compared = $derived(data.arms.filter((arm) => !arm.reference));
	const now = $derived(live.progressOf(trial.id));
	const status = $derived(now?.status ?? trial.status);
	const done = $derived(now?.done ?? trial.progress.done);
	const total = $derived(now?.total ?? trial.progress.total);
	const isOpen = $derived(status === 'queued' || status === 'running');
	const hasAnswer = $derived(data.judgement.results.length > 0);
	/** Figures may stand beside each other: at a look, and of the first stage at any time. */
	const hasFigures = $derived(data.loads.some((load) => !load.warmup && load.figures.requests !== null));
	const lastLook = $derived(data.judgement.looks.at(-1) ?? null);
	/** The conditions and the arm that the lower half of the sheet speaks of. */
	let condition = $state('');
	let armId = $state(0);
	const pairs = $derived(data.comparisons.filter((one) => one.id !== 0));
	const shownCondition = $derived(data.conditions.find((one) => one.id === condition) ?? data.conditions[0]!);
	const shownPair = $derived(pairs.find((one) => one.id === armId) ?? pairs[0]!);
	const evidence = $derived(
		data.evidence?.arms.find((one) => one.condition === shownCondition.id && one.arm === shownPair.id) ?? null
	);
	const films = $derived(
		(data.evidence?.films ?? []).filter(
			(film) =>
				film.condition === shownCondition.id &&
				(!hasPages(trial.kind) || film.arm === shownPair.id || film.arm === shownPair.baselineId)
		)
	);
	/** A sweep draws the arms of one page at a time. */
	const drawn = $derived(
		hasPages(trial.kind) ? compared.filter((arm) => arm.page === shownPair.page) : compared
	);
	let deleting = $state(false);

	// Reading is told apart from opening: only a page that is shown marks an ended trial as read.
	$effect(() => {
		if (trial.unread) void fetch(`/api/trials/${trial.id}/read`, { method: 'POST' });
	});

	// Each finished load brings the sheet up to date, and so does evidence that is being worked out.
	let seen = '';
	$effect(() => {
		const mark = `${trial.id}/${now?.done}/${now?.status}/${JSON.stringify(live.snapshot?.singles)}`;
		if (now && seen && mark !== seen) void invalidateAll();
		seen = mark;
	});
	$effect(() => {
		if (!data.evidencePending || isOpen) return;
		const timer = setTimeout(() => void invalidateAll(), 1500);
		return () => clearTimeout(timer);
	});

	const answersOf = (id: string, arm: number) =>
		trial.primary.flatMap((metric) =>
			data.judgement.results.filter((one) => one.metric === metric && one.condition === id && one.arm === arm)
		);
	const nameOf = (id: number) => data.arms.find((arm) => arm.id === id)?.name ?? '';
	const colourOf = (id: number) =>
		armColour(
			hasPages(trial.kind)
				? compared.filter((arm) => arm.page === data.arms.find((one) => one.id === id)?.page)
				: compared,
			id
		);

	const parts = $derived([
		{
			id: 'answer',
			name: 'Answer',
			state: hasAnswer ? (isOpen ? `after ${lastLook?.rounds} rounds` : undefined) : 'not yet'
		},
		...(hasFigures
			? [
					{ id: 'shifts', name: 'Loads and shift', state: metricOf(data.metric).short },
					{ id: 'table', name: 'All metrics' }
				]
			: []),
		...(hasAnswer && !isSamePage(trial.kind)
			? [
					{ id: 'why', name: 'Why', state: data.evidencePending ? 'being worked out' : undefined },
					{ id: 'frames', name: 'Frames in step' },
					{ id: 'held', name: 'Held back', state: data.nudged.length ? undefined : 'not asked' },
					{ id: 'broke', name: 'Nothing broke', state: evidence?.broke.broken ? 'something did' : undefined },
					{
						id: 'fairness',
						name: 'Fairness',
						state: evidence
							? `${evidence.fairness.filter((line) => line.state === 'differs').length} differ`
							: undefined
					},
					{ id: 'worth', name: 'Worth it?' }
				]
			: []),
		{ id: 'arms', name: hasStages(trial.kind) ? 'Stages' : 'Arms', state: `${compared.length}` },
		{ id: 'method', name: 'Method' },
		{ id: 'loads', name: 'Every load', state: `${data.loads.length}` },
		...(data.repeats.length ? [{ id: 'repeats', name: 'Repeats', state: `${data.repeats.length}` }] : [])
	]);
</script>

<svelte:head><title>{trial.question} – Zafra</title></svelte:head>

{#snippet chooser()}
	<div class="chooser no-print">
		{#if data.conditions.length > 1}<label
				>Conditions <select bind:value={condition}
					>{#each data.conditions as one, i (one.id)}<option value={i === 0 ? '' : one.id}>{one.name}</option
						>{/each}</select
				></label
			>{/if}
		{#if pairs.length > 1}<label
				>Arm <select bind:value={armId}
					>{#each pairs as one, i (one.id)}<option value={i === 0 ? 0 : one.id}>{one.name}</option
						>{/each}</select
				></label
			>{/if}
	</div>
{/snippet}

<Sheet {parts}>
	<Head {trial} {isOpen} {status} />
	{#if form && 'problem' in form}<p class="problem" role="alert">{form.problem}</p>{/if}
	{#if isOpen}
		<ProgressLine
			{done}
			{total}
			note={now?.timeLeftMs ? `${formatWait(now.timeLeftMs)} left` : formatWait(trial.timeLeftMs) + ' left'}
		/>
		{#if trial.begins}<p class="muted small">
				The next load waits for its time: {formatMoment(trial.begins)}.
			</p>{/if}
	{/if}
	{#if trial.message && !isOpen}<p class="message">{trial.message}</p>{/if}
	{#if status === 'waiting' && !trial.paused && trial.nextStage}
		<NextStage stage={trial.nextStage} />
	{/if}

	<Answer {data} {isOpen} {status} />

	{#if hasFigures}
		<Shifts {data} {drawn} bind:armId />

		{#if hasAnswer}<section id="table" class="no-print" aria-labelledby="table-title">
				<h2 id="table-title">All metrics</h2>
				<ShiftTable
					results={data.judgement.results}
					conditions={data.conditions}
					comparisons={data.comparisons}
				/>
			</section>{/if}

		{#if hasAnswer && !isSamePage(trial.kind)}
			<section id="why" class="no-print" aria-labelledby="why-title">
				<div class="with-choice">
					<h2 id="why-title">Why: {shownPair.name}, {shownCondition.name}</h2>
					{@render chooser()}
				</div>
				{#if evidence?.why}<Why
						why={evidence.why}
						baseline={shownPair.baseline}
						arm={nameOf(shownPair.id)}
						verdicts={Object.fromEntries(
							answersOf(shownCondition.id, shownPair.id).map((one) => [one.metric, one.verdict])
						)}
					/>
				{:else}<p class="muted">
						{isOpen
							? 'Worked out once the loads have ended.'
							: data.evidencePending
								? 'Being worked out from the records …'
								: 'Both arms need a load that did not fail.'}
					</p>{/if}
			</section>

			<section id="frames" class="no-print" aria-labelledby="frames-title">
				<div class="with-choice">
					<h2 id="frames-title">Frames in step: {shownCondition.name}</h2>
					{@render chooser()}
				</div>
				{#if films.length}<Scroller label="Frames in step"
						><FramesInStep {films} {nameOf} {colourOf} /></Scroller
					>
				{:else}<p class="muted">
						{data.evidencePending ? 'Being put together …' : 'There are no frames.'}
					</p>{/if}
			</section>

			<Held {data} />

			<section id="broke" class="no-print" aria-labelledby="broke-title">
				<div class="with-choice">
					<h2 id="broke-title">Did anything break?</h2>
					{@render chooser()}
				</div>
				{#if evidence}<Broke
						broke={evidence.broke}
						picture={evidence.picture ? `/api/trials/${trial.id}/pictures/${evidence.picture}` : null}
						baseline={shownPair.baseline}
						arm={nameOf(shownPair.id)}
					/>
				{:else}<p class="muted">Worked out once the loads have ended.</p>{/if}
			</section>

			<section id="fairness" class="no-print" aria-labelledby="fairness-title">
				<div class="with-choice">
					<h2 id="fairness-title">Fairness: {shownPair.name}, {shownCondition.name}</h2>
					{@render chooser()}
				</div>
				{#if evidence}<Fairness
						lines={evidence.fairness}
						intended={trial.intended}
						baseline={shownPair.baseline}
						arm={nameOf(shownPair.id)}
					/>
				{:else}<p class="muted">Worked out once the loads have ended.</p>{/if}
			</section>

			<Worth {data} />
		{/if}
	{/if}

	<Arms {data} {colourOf} />

	<Method {data} {status} />

	<section id="loads" class="no-print" aria-labelledby="loads-title">
		<div class="with-choice">
			<h2 id="loads-title">Every load</h2>
			<a href="/api/trials/{trial.id}/loads.csv" download>Download as CSV</a>
		</div>
		<LoadTable
			loads={data.loads}
			arms={data.arms}
			conditions={data.conditions}
			primary={trial.primary}
			outlying={data.outlying}
		/>
	</section>

	<Repeats {data} />

	{#if !isOpen}
		<section class="no-print">
			{#if deleting}
				<form method="POST" action="?/delete" class="problem">
					Delete this trial with its {data.loads.length} loads, their pictures and their evidence? This cannot be
					undone.
					<Button type="submit" kind="danger" size="small">Delete for good</Button>
					<Button kind="tertiary" size="small" on:click={() => (deleting = false)}>Keep it</Button>
				</form>
			{:else}<Button kind="ghost" size="small" on:click={() => (deleting = true)}>Delete this trial…</Button
				>{/if}
		</section>
	{/if}
</Sheet>
