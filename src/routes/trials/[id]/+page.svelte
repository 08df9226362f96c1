<script lang="ts">
	import { hasPages, hasStages, isSamePage } from '$core/trial/kinds';
	import Scroller from '$lib/parts/Scroller.svelte';
	import { Button } from 'carbon-components-svelte';
	import { enhance } from '$app/forms';
	import { goto, invalidateAll } from '$app/navigation';
	import { METRICS, metricOf } from '$core/metrics/catalogue';
	import {
		formatBytes,
		formatDifference,
		formatDuration,
		formatIn,
		formatMoment,
		formatWait
	} from '$core/wording/format';
	import { reserveSpending } from '$core/trial/looks';
	import { wordAnswer } from '$core/wording/shift';
	import EstimationPlot from '$lib/charts/EstimationPlot.svelte';
	import FramesInStep from '$lib/charts/FramesInStep.svelte';
	import { armColour } from '$lib/charts/armColour';
	import CopyButton from '$lib/charts/CopyButton.svelte';
	import { live } from '$lib/live.svelte';
	import ProgressLine from '$lib/parts/ProgressLine.svelte';
	import Sheet from '$lib/parts/Sheet.svelte';
	import Broke from './Broke.svelte';
	import Fairness from './Fairness.svelte';
	import LoadTable from './LoadTable.svelte';
	import Setups from './Setups.svelte';
	import ShiftTable from './ShiftTable.svelte';
	import Progress from './Progress.svelte';
	import Why from './Why.svelte';

	let { data, form } = $props();
	const trial = $derived(data.trial);
	const compared = $derived(data.arms.filter((arm) => !arm.reference));
	const now = $derived(live.progressOf(trial.id));
	const status = $derived(now?.status ?? trial.status);
	const done = $derived(now?.done ?? trial.progress.done);
	const total = $derived(now?.total ?? trial.progress.total);
	const isOpen = $derived(status === 'queued' || status === 'running');
	const hasLoads = $derived(data.loads.some((load) => !load.warmup));
	const hasAnswer = $derived(data.judgement.results.length > 0);
	/** Figures may stand beside each other: at a look, and of the first stage at any time. */
	const hasFigures = $derived(data.loads.some((load) => !load.warmup && load.figures.requests !== null));
	const lastLook = $derived(data.judgement.looks.at(-1) ?? null);
	const failures = $derived(data.judgement.health.filter((entry) => entry.failed > 0));
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
	const drawn = $derived(hasPages(trial.kind) ? compared.filter((arm) => arm.page === shownPair.page) : compared);
	let deleting = $state(false);

	const STATES: Record<string, string> = {
		draft: 'Draft, not started',
		queued: 'Waits in the queue',
		running: 'Running',
		waiting: 'Waits for you',
		done: 'Done',
		stopped: 'Stopped',
		failed: 'Failed'
	};
	const VERDICTS: Record<string, string> = {
		better: 'better',
		worse: 'worse',
		slight: 'perhaps too little to matter',
		same: 'no difference',
		undecided: 'undecided',
		none: 'no verdict'
	};
	const KINDS: Record<string, string> = {
		'side-by-side': 'Side by side',
		'before-after': 'Before and after',
		'same-page': 'Same page twice',
		sweep: 'Sweep over pages'
	};

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
	const conditionName = (id: string) => data.conditions.find((one) => one.id === id)?.name ?? id;
	const dotsOf = (id: string) =>
		data.loads
			.filter(
				(load) =>
					load.conditionId === id &&
					!load.warmup &&
					load.excluded === null &&
					load.figures[data.metric] !== null &&
					drawn.some((arm) => arm.id === load.armId)
			)
			.map((load) => ({
				load: load.id,
				arm: load.armId,
				round: load.round,
				value: load.figures[data.metric]!,
				outlying: data.outlying[data.metric]?.includes(load.id) ?? false
			}));
	const pairOf = (arm: number) => data.comparisons.find((one) => one.id === arm)!;
	const colourOf = (id: number) =>
		armColour(
			hasPages(trial.kind)
				? compared.filter((arm) => arm.page === data.arms.find((one) => one.id === id)?.page)
				: compared,
			id
		);

	function choose(metric: string) {
		void goto(`?metric=${metric}#shifts`, { noScroll: true, keepFocus: true, replaceState: true });
	}
	/** The answer as text for a mail: question, conditions, sentences. */
	function answerText(): string {
		return [
			trial.question,
			...data.conditions.flatMap((conditions) => [
				`${conditions.name} (${conditions.summary.toLowerCase()}):`,
				...data.headlines
					.filter((one) => one.condition === conditions.id)
					.map((one) =>
						[
							one.text,
							one.broke,
							one.held,
							one.restsOn.length ? `The variants also differ in: ${one.restsOn.join(', ')}.` : ''
						]
							.filter(Boolean)
							.join(' ')
					)
			])
		].join('\n');
	}
	const percentOf = (share: number) => `${(share * 100).toFixed(share < 0.1 ? 2 : 1).replace(/\.?0+$/, '')} %`;
	const levels = $derived([...new Set(data.judgement.results.map((one) => percentOf(one.level)))].join(' and '));

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
					>{#each pairs as one, i (one.id)}<option value={i === 0 ? 0 : one.id}>{one.name}</option>{/each}</select
				></label
			>{/if}
	</div>
{/snippet}

<Sheet {parts}>
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
				<form method="POST" action="?/pause" use:enhance><Button type="submit" kind="tertiary">Pause</Button></form>
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
	{#if form && 'problem' in form}<p class="problem" role="alert">{form.problem}</p>{/if}
	{#if isOpen}
		<ProgressLine
			{done}
			{total}
			note={now?.timeLeftMs ? `${formatWait(now.timeLeftMs)} left` : formatWait(trial.timeLeftMs) + ' left'}
		/>
		{#if trial.begins}<p class="muted small">The next load waits for its time: {formatMoment(trial.begins)}.</p>{/if}
	{/if}
	{#if trial.message && !isOpen}<p class="message">{trial.message}</p>{/if}
	{#if status === 'waiting' && !trial.paused && trial.nextStage}
		<form method="POST" action="?/start" enctype="multipart/form-data" class="stage panel no-print" use:enhance>
			<h2>Next stage: {trial.nextStage}</h2>
			<label
				>What was changed? <textarea
					name="change"
					rows="2"
					placeholder="Larder 3.2 switched on, all settings as they ship"></textarea></label
			>
			<label>Settings file, kept with the trial <input type="file" name="file" /></label>
			<Button type="submit" data-key="r">Start “{trial.nextStage}”</Button>
		</form>
	{/if}

	<section id="answer" aria-labelledby="answer-title">
		<div class="with-choice">
			<h2 id="answer-title">{isOpen && hasAnswer ? `Answer after ${lastLook?.rounds} rounds` : 'Answer'}</h2>
			{#if hasAnswer}<CopyButton label="Copy the answer" text={answerText} file="answer.txt" />{/if}
		</div>
		{#if !hasLoads}
			<p class="muted">
				There is no answer yet: no load has ended. {status === 'draft'
					? 'Start the trial to load the variants in turn.'
					: ''}
			</p>
		{:else if !hasAnswer}
			<Progress {trial} spread={data.judgement.spread} conditions={data.conditions} />
		{:else}
			{#if isOpen}<p class="muted small">
					As of {lastLook?.rounds} rounds.{trial.nextLook
						? ` The next look is after ${trial.nextLook}; until then nothing here changes.`
						: ''}
				</p>{/if}
			<div class="conditions">
				{#each data.conditions as conditions (conditions.id)}
					<div class="panel">
						<h3>{conditions.name}</h3>
						<p class="muted small">{conditions.summary}</p>
						{#each data.headlines.filter((one) => one.condition === conditions.id) as headline (headline.arm)}
							<p class="headline {headline.tone}">{headline.text}</p>
							{#if headline.broke}<p class="caveat broken">{headline.broke}</p>{/if}
							{#if headline.held}<p class="caveat">{headline.held}</p>{/if}
							{#if headline.restsOn.length}<p class="caveat">
									The variants also differ in {headline.restsOn.join(', ')}: the answer rests on that too.
									<a class="no-print" href="#fairness">Fairness</a>
								</p>{/if}
							{#if data.comparisons.length <= 3}
								<ul>
									{#each answersOf(conditions.id, headline.arm) as result (result.metric)}
										<li class={result.verdict}>
											{wordAnswer(result, {
												baseline: pairOf(headline.arm).baseline,
												arm: headline.arm === 0 ? 'the changed pages' : nameOf(headline.arm)
											})}
										</li>
									{/each}
								</ul>
							{/if}
						{/each}
						{#if data.noise[conditions.id]}
							{@const floor = data.noise[conditions.id]!}
							<p class="muted small">
								Noise floor of this lab here: {trial.primary
									.flatMap((id) =>
										floor.floors[id] === undefined
											? []
											: [`${metricOf(id).short} ${formatIn(metricOf(id).unit, floor.floors[id], true)}`]
									)
									.join(', ')}
								(<a href="/trials/{floor.trial}">same page twice</a>).
							</p>
						{/if}
					</div>
				{/each}
			</div>
			{#if data.excludedAnswer}
				<div class="message excluded">
					<p>
						{data.excludedAnswer.loads.length}
						{data.excludedAnswer.loads.length === 1 ? 'load is' : 'loads are'} excluded and counted all the same, since that
						was done after the figures could be seen. Without {data.excludedAnswer.loads.length === 1 ? 'it' : 'them'} the
						answer would read:
					</p>
					<ul>
						{#each data.excludedAnswer.headlines as headline (headline.condition + headline.arm)}<li>
								{headline.conditionName}: {headline.text}
							</li>{/each}
					</ul>
					<p class="muted small">
						{data.excludedAnswer.loads.map((one) => `${one.arm}, round ${one.round}: ${one.reason}`).join('; ')}.
					</p>
				</div>
			{/if}
			{#if trial.rejudged}
				<p class="message">
					This trial was first judged under earlier rules and with the recipe {trial.rejudged.fromRecipe}; since {formatMoment(
						trial.rejudged.at
					)} it is judged anew: verdicts hold jointly over everything the trial decides on, and scores follow {data
						.judgement.recipe}.
					{trial.rejudged.changes.length
						? `What changed: ${trial.rejudged.changes.map((one) => `${metricOf(one.metric).short} of ${one.arm === 0 ? 'all pages' : `“${nameOf(one.arm)}”`} under ${conditionName(one.condition)}, ${VERDICTS[one.before]} before, ${VERDICTS[one.after]} now`).join('; ')}.`
						: 'No verdict changed.'}
				</p>
			{/if}
			{#if failures.length}
				<p class="message">
					{#each failures as entry (entry.condition + entry.arm)}{entry.failed} of {entry.loads} loads of “{nameOf(
							entry.arm
						)}” failed under {conditionName(entry.condition)}.
					{/each}
				</p>
			{/if}
		{/if}
	</section>

	{#if hasFigures}
		<section id="shifts" aria-labelledby="shifts-title">
			<div class="with-choice">
				<h2 id="shifts-title">Loads and shift: {metricOf(data.metric).name}</h2>
				<div class="chooser no-print">
					{#if hasPages(trial.kind)}<label
							>Page <select bind:value={armId}
								>{#each pairs as one, i (one.id)}<option value={i === 0 ? 0 : one.id}>{one.page}</option>{/each}</select
							></label
						>{/if}
					<label>
						<span>Metric</span>
						<select value={data.metric} onchange={(event) => choose(event.currentTarget.value)}>
							{#each METRICS as metric (metric.id)}<option value={metric.id}>{metric.name}</option>{/each}
						</select>
					</label>
				</div>
			</div>
			<div class="conditions">
				{#each data.conditions as conditions (conditions.id)}
					<div class="panel">
						<h3>{conditions.name}</h3>
						<EstimationPlot
							metric={data.metric}
							title={conditions.name}
							arms={drawn}
							dots={dotsOf(conditions.id)}
							results={data.judgement.results.filter(
								(one) =>
									one.condition === conditions.id &&
									one.metric === data.metric &&
									drawn.some((arm) => arm.id === one.arm)
							)}
						/>
					</div>
				{/each}
			</div>
		</section>

		{#if hasAnswer}<section id="table" class="no-print" aria-labelledby="table-title">
				<h2 id="table-title">All metrics</h2>
				<ShiftTable results={data.judgement.results} conditions={data.conditions} comparisons={data.comparisons} />
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
				{#if films.length}<Scroller label="Frames in step"><FramesInStep {films} {nameOf} {colourOf} /></Scroller>
				{:else}<p class="muted">{data.evidencePending ? 'Being put together …' : 'There are no frames.'}</p>{/if}
			</section>

			<section id="held" class="no-print" aria-labelledby="held-title">
				<h2 id="held-title">Held back</h2>
				{#if data.nudged.length}
					<Scroller label="What the arms hold back">
						<table class="ledger">
							<thead
								><tr
									><th scope="col">Arm</th><th scope="col">Conditions</th><th scope="col" class="number">Requests</th
									><th scope="col" class="number">Bytes</th><th scope="col" class="number">Script</th><th
										scope="col"
										class="number">Score with it</th
									><th scope="col">Load</th></tr
								></thead
							>
							<tbody>
								{#each data.nudged as one (one.id)}
									<tr>
										<td>{nameOf(one.arm ?? 0)}</td><td>{conditionName(one.condition)}</td>
										{#if one.heldBack}
											<td class="number">{one.heldBack.requests}</td><td class="number"
												>{formatBytes(one.heldBack.wireBytes)}</td
											><td class="number">{formatDuration(one.heldBack.scriptMs)}</td>
											<td class="number"
												>{one.heldBack.figuresWith.score === null
													? '–'
													: `${one.heldBack.figuresWith.score.toFixed(0)} (${formatDifference('score', one.heldBack.figuresWith.score - (one.score ?? 0))})`}</td
											>
										{:else}<td colspan="4" class="muted"
												>{one.failed ?? (one.status === 'done' ? 'nothing was measured' : 'waits for the lab')}</td
											>{/if}
										<td
											>{#if one.load}<a href="/loads/{one.load}#held">Evidence</a>{/if}</td
										>
									</tr>
								{/each}
							</tbody>
						</table>
					</Scroller>
				{:else}<p class="muted">
						No interaction was simulated in these loads. Whether a variant waits for interaction is seen when the lab
						simulates one.
					</p>{/if}
				<div class="buttons no-print">
					{#each compared as arm (arm.id)}<form method="POST" action="?/nudge" use:enhance>
							<input type="hidden" name="arm" value={arm.id} /><button
								>Nudge “{arm.page ? `${arm.page}, ` : ''}{arm.name}”</button
							>
						</form>{/each}
				</div>
			</section>

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

			<section id="worth" class="no-print" aria-labelledby="worth-title">
				<h2 id="worth-title">Worth it?</h2>
				<Scroller label="Gain against price">
					<table class="ledger">
						<thead
							><tr
								><th scope="col">Arm</th><th scope="col">Conditions</th><th scope="col" class="number">Score</th><th
									scope="col"
									class="number">LCP</th
								><th scope="col" class="number">A month</th><th scope="col" class="number">Hours</th><th scope="col"
									>In words</th
								></tr
							></thead
						>
						<tbody>
							{#each data.worth as one (one.condition + one.arm)}
								<tr>
									<td>{pairOf(one.arm).name}</td><td>{conditionName(one.condition)}</td>
									<td class="number">{one.points === null ? '–' : formatDifference('score', one.points)}</td>
									<td class="number">{one.lcpMs === null ? '–' : formatDifference('lcp', -one.lcpMs)}</td>
									<td class="number">{one.monthlyCost ?? 'unknown'}</td><td class="number">{one.hours ?? 'unknown'}</td>
									<td>{one.words}</td>
								</tr>
							{/each}
						</tbody>
					</table>
				</Scroller>
			</section>
		{/if}
	{/if}

	<section id="arms" aria-labelledby="arms-title">
		<h2 id="arms-title">{hasStages(trial.kind) ? 'Stages' : 'Arms'} and what they run on</h2>
		<Setups arms={data.arms} kind={trial.kind} {colourOf} />
		{#if data.markers.length}
			<h3>What was changed between the stages</h3>
			<ul class="plain">
				{#each data.markers as marker (marker.id)}
					<li>
						{formatMoment(marker.at)}, before “{compared[marker.stage ?? 0]?.name ?? ''}”: {marker.words}{#if marker.file}<a
								class="kept"
								href="data:text/plain;charset=utf-8,{encodeURIComponent(marker.file)}"
								download={marker.fileName}>{marker.fileName}</a
							>{/if}
					</li>
				{/each}
			</ul>
		{/if}
	</section>

	<section id="method" aria-labelledby="method-title">
		<h2 id="method-title">Method</h2>
		<p>
			{trial.adaptive
				? `At most ${trial.rounds} rounds of every arm, with a look after ${trial.planned.join(', ')}`
				: `Each arm was planned for ${trial.rounds} ${trial.rounds === 1 ? 'round' : 'rounds'}`}{trial.warmups
				? ` after ${trial.warmups} ${trial.warmups === 1 ? 'warm-up' : 'warm-ups'} that ${trial.warmups === 1 ? 'is' : 'are'} kept but not counted`
				: ''}, in real Chromium with a clean profile for every load, one load at a time,
			{hasStages(trial.kind) ? 'stage after stage' : 'all arms in random order within each round'}.
			{#if trial.looks.length}Looked at after {trial.looks
					.map((look) => `${look.rounds} rounds (at most ${percentOf(look.spent)} false calls by then)`)
					.join(', ')}.{/if}
		</p>
		<ul class="plain">
			{#each data.conditions as conditions (conditions.id)}<li>
					<b>{conditions.name}:</b>
					{conditions.detail}.
				</li>{/each}
		</ul>
		{#if data.settlings.length}
			<h3>Waiting for stable pages</h3>
			<ul class="plain">
				{#each data.settlings as one, i (i)}<li class:unstable={!one.stable}>
						{one.arm}, {conditionName(one.conditionId)}: {one.words}
					</li>{/each}
			</ul>
		{/if}
		<p>
			Shifts are Hodges-Lehmann estimates with {levels || '95 %'} intervals
			{hasStages(trial.kind)
				? 'from the rank-sum distribution; a reference page’s own figure is taken off round by round'
				: 'from the exact signed-rank distribution of the paired rounds'}. Everything the trial decides on ({trial.primary
				.map((id) => metricOf(id).short)
				.join(', ')}, all variants and conditions together) shares one error level of 5 %, of which the plan spends 4 %,
			by {hasStages(trial.kind) ? 'dealing whole rounds anew between the stages' : 'flipping the signs of whole rounds'} (step-down
			maximum of Westfall and Young). The others are shown to explore. Order of loads from seed {trial.seed}.
		</p>
		{#if status === 'done' && !hasStages(trial.kind)}
			<form method="POST" action="?/rounds" use:enhance class="more no-print">
				<label>Add <input type="number" name="rounds" min="1" max="50" value="6" /> rounds</label>
				<button>Add them</button>
				<span class="muted small"
					>A further look spends {percentOf(
						reserveSpending((trial.added ?? 0) + 1) - reserveSpending(trial.added ?? 0)
					)} of the error level that the plan left; calls that were made stay.</span
				>
			</form>
		{/if}
	</section>

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

	{#if data.repeats.length}
		<section id="repeats" aria-labelledby="repeats-title">
			<h2 id="repeats-title">The same trial at other times</h2>
			<ul class="plain">
				{#each data.repeats as one (one.id)}
					<li>
						<a href="/trials/{one.id}">{formatMoment(one.createdAt)}</a
						>{#if one.headlines.length}{#each one.headlines as headline (headline.condition + headline.arm)}<div>
									<b>{headline.conditionName}:</b>
									{headline.text}
								</div>{/each}{:else}: {STATES[one.status]?.toLowerCase()}{/if}
					</li>
				{/each}
			</ul>
		</section>
	{/if}

	{#if !isOpen}
		<section class="no-print">
			{#if deleting}
				<form method="POST" action="?/delete" class="problem">
					Delete this trial with its {data.loads.length} loads, their pictures and their evidence? This cannot be undone.
					<Button type="submit" kind="danger" size="small">Delete for good</Button>
					<Button kind="tertiary" size="small" on:click={() => (deleting = false)}>Keep it</Button>
				</form>
			{:else}<Button kind="ghost" size="small" on:click={() => (deleting = true)}>Delete this trial…</Button>{/if}
		</section>
	{/if}
</Sheet>

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
	.small {
		font-size: 0.88rem;
	}
	.conditions {
		display: grid;
		grid-template-columns: repeat(auto-fit, minmax(min(100%, 24rem), 1fr));
		gap: 1rem;
	}
	.headline {
		font: 600 1.12rem/1.3 var(--serif);
		margin: 0.6rem 0 0.5rem;
	}
	.headline.better {
		color: var(--better);
	}
	.headline.worse {
		color: var(--worse);
	}
	.caveat {
		border-left: 3px solid var(--focus);
		padding: 0.1rem 0 0.1rem 0.7rem;
		margin: 0.3rem 0;
		font-size: 0.93rem;
	}
	.broken {
		border-left-color: var(--worse);
		color: var(--worse);
		font-weight: 600;
	}
	ul {
		margin: 0;
		padding: 0;
		list-style: none;
	}
	.conditions li {
		padding: 0.25rem 0 0.25rem 0.7rem;
		border-left: 3px solid var(--rule);
		margin-bottom: 0.3rem;
		font-size: 0.95rem;
	}
	.conditions li.better {
		border-left-color: var(--better);
	}
	.conditions li.worse {
		border-left-color: var(--worse);
	}
	.with-choice {
		display: flex;
		justify-content: space-between;
		align-items: baseline;
		gap: 1rem;
		flex-wrap: wrap;
	}
	.chooser {
		display: flex;
		gap: 1rem;
		flex-wrap: wrap;
	}
	label {
		font-size: 0.9rem;
		color: var(--muted);
	}
	.stage {
		margin-bottom: 1.4rem;
		display: grid;
		gap: 0.6rem;
		justify-items: start;
	}
	.stage label,
	.stage textarea {
		width: 100%;
		display: block;
	}
	.buttons {
		display: flex;
		flex-wrap: wrap;
		gap: 0.5rem;
		margin-top: 0.6rem;
	}
	.message {
		border-left: 3px solid var(--focus);
		padding: 0.3rem 0.8rem;
		margin: 0.8rem 0;
	}
	.problem {
		border-left: 3px solid var(--worse);
		padding: 0.4rem 0.8rem;
		color: var(--worse);
	}
	.kept {
		margin-left: 0.4rem;
	}
	.unstable {
		color: var(--worse);
	}
	.plain li {
		font-variant-numeric: tabular-nums;
		margin-bottom: 0.25rem;
	}
	h3 {
		margin-top: 0.8rem;
	}
	section :global(p) {
		max-width: 62rem;
	}
	@media (max-width: 560px) {
		header {
			flex-direction: column;
		}
	}
	@media print {
		.caveat,
		.panel .small {
			font-size: 8pt;
			margin: 0.1rem 0;
		}
		.conditions {
			grid-template-columns: 1fr 1fr;
			gap: 1.4rem;
		}
		.conditions li {
			font-size: 8pt;
			line-height: 1.2;
			margin-bottom: 0.15rem;
			padding: 0 0 0 0.5rem;
		}
		.headline {
			font-size: 10.5pt;
		}
		section {
			margin-bottom: 0.7rem;
		}
		#arms,
		#method {
			font-size: 8pt;
			line-height: 1.2;
		}
	}
</style>
