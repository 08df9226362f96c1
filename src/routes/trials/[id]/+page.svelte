<script lang="ts">
	import Scroller from '$lib/parts/Scroller.svelte';
	import { Button } from 'carbon-components-svelte';
	import { enhance } from '$app/forms';
	import { goto, invalidateAll } from '$app/navigation';
	import { METRICS, metricOf } from '../../../core/metrics/catalogue';
	import { formatMoment, formatWait } from '../../../core/wording/format';
	import { wordAnswer } from '../../../core/wording/shift';
	import EstimationPlot from '$lib/charts/EstimationPlot.svelte';
	import { armColour } from '$lib/charts/armColour';
	import { live } from '$lib/live.svelte';
	import ProgressLine from '$lib/parts/ProgressLine.svelte';
	import Sheet from '$lib/parts/Sheet.svelte';
	import LoadTable from './LoadTable.svelte';
	import ShiftTable from './ShiftTable.svelte';

	let { data, form } = $props();
	const trial = $derived(data.trial);
	const compared = $derived(data.arms.filter((arm) => !arm.reference));
	const baseline = $derived(compared.find((arm) => arm.baseline)!);
	const others = $derived(compared.filter((arm) => !arm.baseline));
	const now = $derived(live.progressOf(trial.id));
	const status = $derived(now?.status ?? trial.status);
	const done = $derived(now?.done ?? trial.progress.done);
	const total = $derived(now?.total ?? trial.progress.total);
	const isOpen = $derived(status === 'queued' || status === 'running');
	const hasLoads = $derived(data.loads.length > 0);
	const failures = $derived(data.judgement.health.filter((entry) => entry.failed > 0));
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

	// Each finished load brings the sheet up to date.
	let seen = '';
	$effect(() => {
		const mark = `${trial.id}/${now?.done}/${now?.status}`;
		if (now && seen && mark !== seen) void invalidateAll();
		seen = mark;
	});

	const answersOf = (condition: string, arm: number) =>
		trial.primary.flatMap((metric) =>
			data.judgement.results.filter((one) => one.metric === metric && one.condition === condition && one.arm === arm)
		);
	const nameOf = (id: number) => data.arms.find((arm) => arm.id === id)?.name ?? '';
	const conditionName = (id: string) => data.conditions.find((one) => one.id === id)?.name ?? id;
	const dotsOf = (condition: string) =>
		data.loads
			.filter((load) => load.conditionId === condition && !load.warmup && load.figures[data.metric] !== null)
			.map((load) => ({
				load: load.id,
				arm: load.armId,
				round: load.round,
				value: load.figures[data.metric]!,
				outlying: data.outlying[data.metric]?.includes(load.id) ?? false
			}));

	function choose(metric: string) {
		void goto(`?metric=${metric}#shifts`, { noScroll: true, keepFocus: true, replaceState: true });
	}

	const parts = $derived([
		{ id: 'answer', name: 'Answer', state: isOpen ? 'so far' : hasLoads ? undefined : 'not yet' },
		{ id: 'shifts', name: 'Loads and shift', state: metricOf(data.metric).short },
		{ id: 'table', name: 'All metrics' },
		{ id: 'arms', name: 'Arms', state: `${compared.length}` },
		{ id: 'method', name: 'Method' },
		{ id: 'loads', name: 'Every load', state: `${data.loads.length}` }
	]);
</script>

<svelte:head><title>{trial.question} – Zafra</title></svelte:head>

<Sheet {parts}>
	<header>
		<div>
			<p class="muted small">
				{trial.clientName ? `For ${trial.clientName}. ` : ''}{trial.kind === 'side-by-side' ? 'Side by side' : 'Before and after'}.
				{STATES[status]}{trial.endedAt && status === 'done' ? `, ${formatMoment(trial.endedAt)}` : ''}.
			</p>
			<h1>{trial.question}</h1>
		</div>
		<div class="actions no-print">
			{#if isOpen}
				<form method="POST" action="?/stop" use:enhance><Button type="submit" kind="danger-tertiary" data-key="r">Stop</Button></form>
			{:else if status === 'draft' || status === 'stopped' || status === 'waiting'}
				<form method="POST" action="?/start" use:enhance>
					<Button type="submit" data-key="r">
						{status === 'stopped' ? 'Go on' : trial.nextStage ? `Start “${trial.nextStage}”` : 'Start the trial'}
					</Button>
				</form>
			{:else}
				<Button on:click={() => window.print()} data-key="r">Print for the client</Button>
			{/if}
		</div>
	</header>
	{#if form && 'problem' in form}<p class="problem" role="alert">{form.problem}</p>{/if}
	{#if isOpen}
		<ProgressLine {done} {total} note={now?.timeLeftMs ? `${formatWait(now.timeLeftMs)} left` : formatWait(trial.timeLeftMs) + ' left'} />
	{/if}
	{#if trial.message && !isOpen}<p class="message">{trial.message}</p>{/if}

	<section id="answer" aria-labelledby="answer-title">
		<h2 id="answer-title">{isOpen ? 'Answer so far' : 'Answer'}</h2>
		{#if !hasLoads}
			<p class="muted">There is no answer yet: no load has ended. {status === 'draft' ? 'Start the trial to load the arms in turn.' : ''}</p>
		{:else}
			<div class="conditions">
				{#each data.conditions as conditions (conditions.id)}
					<div class="panel">
						<h3>{conditions.name}</h3>
						<p class="muted small">{conditions.summary}</p>
						{#each others as arm (arm.id)}
							{@const headline = data.headlines.find((one) => one.condition === conditions.id && one.arm === arm.id)}
							<p class="headline {headline?.tone}">{headline?.text}</p>
							<ul>
								{#each answersOf(conditions.id, arm.id) as result (result.metric)}
									<li class={result.verdict}>{wordAnswer(result, { baseline: baseline.name, arm: arm.name })}</li>
								{/each}
							</ul>
						{/each}
					</div>
				{/each}
			</div>
			{#if failures.length}
				<p class="message">
					{#each failures as entry (entry.condition + entry.arm)}{entry.failed} of {entry.loads} loads of “{nameOf(entry.arm)}” failed under {conditionName(entry.condition)}. {/each}
				</p>
			{/if}
		{/if}
	</section>

	{#if hasLoads}
		<section id="shifts" aria-labelledby="shifts-title">
			<div class="with-choice">
				<h2 id="shifts-title">Loads and shift: {metricOf(data.metric).name}</h2>
				<label class="no-print">
					<span>Metric</span>
					<select value={data.metric} onchange={(event) => choose(event.currentTarget.value)}>
						{#each METRICS as metric (metric.id)}<option value={metric.id}>{metric.name}</option>{/each}
					</select>
				</label>
			</div>
			<div class="conditions">
				{#each data.conditions as conditions (conditions.id)}
					<div class="panel">
						<h3>{conditions.name}</h3>
						<EstimationPlot
							metric={data.metric}
							title={conditions.name}
							arms={compared}
							dots={dotsOf(conditions.id)}
							results={data.judgement.results.filter((one) => one.condition === conditions.id && one.metric === data.metric)}
						/>
					</div>
				{/each}
			</div>
		</section>

		<section id="table" class="no-print" aria-labelledby="table-title">
			<h2 id="table-title">All metrics</h2>
			<ShiftTable results={data.judgement.results} conditions={data.conditions} arms={compared} />
		</section>
	{/if}

	<section id="arms" aria-labelledby="arms-title">
		<h2 id="arms-title">{trial.kind === 'before-after' ? 'Stages' : 'Arms'}</h2>
		<Scroller label="Table of arms">
			<table class="ledger">
				<thead><tr><th>Name</th><th>Address</th><th>Part in the trial</th></tr></thead>
				<tbody>
					{#each data.arms as arm (arm.id)}
						<tr>
							<td><i class="swatch" style:background={armColour(compared, arm.id)}></i>{arm.name}</td>
							<td class="address"><a href={arm.url} rel="external noreferrer">{arm.url}</a></td>
							<td>{arm.baseline ? 'Baseline' : arm.reference ? 'Reference page, loaded in every stage' : 'Compared with the baseline'}</td>
						</tr>
					{/each}
				</tbody>
			</table>
		</Scroller>
	</section>

	<section id="method" aria-labelledby="method-title">
		<h2 id="method-title">Method</h2>
		<p>
			Each arm was planned for {trial.rounds} {trial.rounds === 1 ? 'round' : 'rounds'}{trial.warmups ? ` after ${trial.warmups} ${trial.warmups === 1 ? 'warm-up' : 'warm-ups'} that ${trial.warmups === 1 ? 'is' : 'are'} kept but not counted` : ''},
			in real Chromium with a clean profile for every load, one load at a time,
			{trial.kind === 'side-by-side' ? 'all arms in random order within each round' : 'stage after stage'}.
		</p>
		<ul class="plain">
			{#each data.conditions as conditions (conditions.id)}<li><b>{conditions.name}:</b> {conditions.detail}.</li>{/each}
		</ul>
		<p class="no-print">
			Shifts are Hodges-Lehmann estimates with {Math.round((1 - data.judgement.alpha) * 100)} % intervals
			{trial.kind === 'side-by-side' ? 'from the exact signed-rank distribution of the paired rounds' : 'from the rank-sum distribution, or from a seeded bootstrap with a reference page'};
			the metrics decided on ({trial.primary.map((id) => metricOf(id).short).join(', ')}) share the error level by Holm’s
			correction, under each of the conditions. The others are shown to explore. Order of loads from seed {trial.seed}.
		</p>
	</section>

	<section id="loads" class="no-print" aria-labelledby="loads-title">
		<div class="with-choice">
			<h2 id="loads-title">Every load</h2>
			<a href="/api/trials/{trial.id}/loads.csv" download>Download as CSV</a>
		</div>
		<LoadTable loads={data.loads} arms={data.arms} conditions={data.conditions} primary={trial.primary} outlying={data.outlying} />
	</section>

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
	label {
		font-size: 0.9rem;
		color: var(--muted);
	}
	select {
		background: var(--panel);
		color: var(--ink);
		border: 1px solid var(--rule);
		padding: 0.3rem 0.4rem;
		font-size: 0.95rem;
	}
	.swatch {
		display: inline-block;
		width: 0.7rem;
		height: 0.7rem;
		margin-right: 0.5rem;
	}
	.address {
		overflow-wrap: anywhere;
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
	.plain li {
		font-variant-numeric: tabular-nums;
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
		.conditions {
			grid-template-columns: 1fr 1fr;
			gap: 1.4rem;
		}
		.conditions li {
			font-size: 8.5pt;
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
			font-size: 8.5pt;
		}
	}
</style>
