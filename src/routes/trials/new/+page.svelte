<script lang="ts">
	import { hasPages, hasStages, isSamePage } from '$core/trial/kinds';
	import { Button, NumberInput, TextInput } from 'carbon-components-svelte';
	import { enhance } from '$app/forms';
	import type { TrialKind } from '$core/trial/types';
	import { ASSUMED_SPREAD, visibleShare } from '$core/trial/noise';
	import { fewestRounds } from '$core/trial/verdict';
	import { formatWait } from '$core/wording/format';
	import ArmFields from './ArmFields.svelte';
	import { armDraft, isSetup, type ArmDraft } from './drafts';
	import KindChooser from './KindChooser.svelte';
	import More from './More.svelte';

	let { data, form } = $props();

	const KINDS: Record<TrialKind, [name: string, words: string]> = {
		'side-by-side': [
			'Side by side',
			'Each arm is a page to load. Every round loads all of them once, in random order. The others are compared with the baseline.'
		],
		'before-after': [
			'Before and after',
			'One address in two or more stages, with a change between them. Between stages the trial waits for you.'
		],
		'same-page': ['Same page twice', 'One address against itself: the noise floor.'],
		sweep: [
			'Sweep over pages',
			'For every page an arm without and one with the change. Each page gets an answer, and all together get one.'
		]
	};
	const isKind = (text: string | undefined): text is TrialKind =>
		text !== undefined && Object.hasOwn(KINDS, text);
	// svelte-ignore state_referenced_locally
	const typed = form?.values;
	// svelte-ignore state_referenced_locally
	const template = data.template;
	let kind: TrialKind = $state(isKind(typed?.kind) ? typed.kind : template.kind);
	let question = $state(typed?.question ?? (template.id === 'candidates' ? '' : template.question));
	let arms: ArmDraft[] = $state(
		typed
			? typed.arms.map((one) =>
					armDraft(one.name, one.url, one.page ?? '', isSetup(one.setup) ? one.setup : null)
				)
			: template.arms.map((one) => armDraft(one.name, '', one.page ?? ''))
	);
	let baseline = $state(
		typed
			? Math.max(
					0,
					typed.arms.findIndex((one) => one.baseline)
				)
			: 0
	);
	// svelte-ignore state_referenced_locally
	let chosen = $state(typed?.conditions ?? data.conditions.filter((one) => one.usual).map((one) => one.id));
	// svelte-ignore state_referenced_locally
	let primary: string[] = $state(
		typed?.primary ?? data.metrics.filter((one) => one.usual).map((one) => one.id)
	);
	let adaptive = $state(typed?.adaptive ?? template.adaptive);
	let rounds: number | null = $state(
		typed && Number.isFinite(typed.rounds) ? typed.rounds : template.adaptive ? 12 : template.rounds
	);
	let warmups: number | null = $state(typed && Number.isFinite(typed.warmups) ? typed.warmups : 1);
	let settle = $state(typed ? typed.settleWithinS !== null : template.settleWithinS !== null);

	const issue = (path: string) =>
		form?.issues?.find((one) => one.path === path || one.path.startsWith(`${path}.`))?.message ?? '';
	const exact = (path: string) => form?.issues?.find((one) => one.path === path)?.message ?? '';
	const perRound = $derived(isSamePage(kind) ? 2 : arms.length);
	const most = $derived(adaptive && !hasStages(kind) ? 24 : (rounds ?? 0));
	const loads = $derived(perRound * chosen.length * (most + (warmups ?? 0)));

	/** What the plan may spend must be reachable by its rounds at all. */
	const needed = $derived(fewestRounds(0.04));
	const tests = $derived(Math.max(1, perRound - 1) * primary.length * chosen.length);
	/**
	 * What the planned rounds can see of the largest paint, by the noise floor of the conditions or a stated
	 * assumption.
	 */
	const sights = $derived(
		chosen.flatMap((id) => {
			const one = data.conditions.find((other) => other.id === id);
			if (!one || !most) return [];
			const share = visibleShare(most, one.noise?.spread ?? ASSUMED_SPREAD, 0.04, tests);
			const source = one.noise ? 'by this lab’s noise floor' : 'if loads of one page vary by 10 %';
			return [`${one.name}: a change of ${(share * 100).toFixed(0)} % of the largest paint (${source})`];
		})
	);
	/** About what a load takes with everything around it. */
	const LOAD_MS = 9000;

	function remove(index: number) {
		arms.splice(index, hasPages(kind) ? 2 : 1);
		if (baseline >= arms.length) baseline = 0;
	}
	function setKind(next: TrialKind) {
		kind = next;
		const start = data.templates.find((one) => one.kind === next)!;
		if (arms.every((one) => one.url === ''))
			arms = start.arms.map((one) => armDraft(one.name, '', one.page ?? ''));
		if (next === 'same-page') arms = arms.slice(0, 1);
		else if (arms.length < 2) arms = [...arms, armDraft('Candidate')];
		if (next === 'sweep' && arms.length % 2) arms = [...arms, armDraft('With')];
	}
</script>

<svelte:head><title>New trial – Zafra</title></svelte:head>

<form
	method="POST"
	novalidate
	use:enhance={() =>
		({ update }) =>
			update({ reset: false })}
>
	<div class="top">
		<h1>New trial</h1>
		<div class="buttons">
			<Button kind="tertiary" type="submit" name="then" value="draft">Save as a draft</Button>
			<Button type="submit" name="then" value="start" data-key="r">Start the trial</Button>
		</div>
	</div>
	{#if form?.issues?.length}
		<p class="summary" role="alert">
			The trial was not made: {form.issues.length === 1
				? 'one field needs'
				: `${form.issues.length} fields need`} another look.
			{#each form.issues.filter((one) => one.path === '') as one (one.message)}<br />{one.message}{/each}
		</p>
	{/if}
	<input type="hidden" name="clientId" value={data.clientId ?? ''} />
	<input type="hidden" name="kind" value={kind} />

	<section>
		<h2>Question</h2>
		<KindChooser templates={data.templates} {kind} choose={setKind} />
		<TextInput
			name="question"
			labelText="What do you want to know?"
			placeholder="Did adding the chat make the timetable slower?"
			helperText="One question, one change: the answer will be worded to it."
			bind:value={question}
			invalid={issue('question') !== ''}
			invalidText={issue('question')}
		/>
	</section>

	<section>
		<h2>{hasStages(kind) ? 'Stages' : isSamePage(kind) ? 'Page' : hasPages(kind) ? 'Pages' : 'Arms'}</h2>
		<p class="muted">{KINDS[kind][1]}</p>
		{#if exact('arms')}<p class="wrong" role="alert">{exact('arms')}</p>{/if}
		{#if hasStages(kind)}
			<div class="numbers">
				<TextInput
					name="arm-url"
					labelText="Address"
					placeholder="https://"
					inputmode="url"
					value={arms[0]?.url ?? ''}
					invalid={issue('arms.0.url') !== ''}
					invalidText={issue('arms.0.url')}
					on:input={(event) => arms[0] && (arms[0].url = String(event.detail ?? ''))}
				/>
				<TextInput
					name="referenceUrl"
					labelText="Reference page, which nobody touches"
					placeholder="https://"
					helperText="Loaded in every stage: it shows how much the world drifted. Optional, and wise."
					value={typed?.referenceUrl ?? ''}
					invalid={issue('referenceUrl') !== ''}
					invalidText={issue('referenceUrl')}
				/>
			</div>
		{/if}
		{#each arms as one, i (one.key)}
			<ArmFields {kind} bind:arms {i} bind:baseline {issue} remove={() => remove(i)} />
		{/each}
		{#if hasPages(kind)}
			{#if arms.length < 20}<Button
					kind="tertiary"
					size="small"
					type="button"
					on:click={() => arms.push(armDraft('Without'), armDraft('With'))}>Add a page</Button
				>{/if}
		{:else if !isSamePage(kind) && arms.length < 8}<Button
				kind="tertiary"
				size="small"
				type="button"
				on:click={() => arms.push(armDraft())}>{hasStages(kind) ? 'Add a stage' : 'Add an arm'}</Button
			>{/if}
	</section>

	<section>
		<h2>Conditions</h2>
		{#if issue('conditions')}<p class="wrong" role="alert">{issue('conditions')}</p>{/if}
		{#each data.conditions as conditions (conditions.id)}
			<label class="check">
				<input type="checkbox" name="conditions" value={conditions.id} bind:group={chosen} />
				<span
					><b>{conditions.name}.</b>
					{conditions.summary}{conditions.summary ? '.' : ''}<br /><span class="muted figures"
						>{conditions.detail}</span
					></span
				>
			</label>
		{/each}
		<p class="small"><a href="/workshop">Edit conditions in the workshop</a></p>
	</section>

	<section>
		<h2>Rounds</h2>
		{#if !hasStages(kind)}
			<label class="check"
				><input type="checkbox" name="adaptive" bind:checked={adaptive} /><span
					><b>Look after 10, 14, 18 and 24 rounds</b> and stop once all is decided, or nothing open has hope. Answers
					come at the looks alone; together they spend no more than one look would.</span
				></label
			>
		{/if}
		<div class="numbers">
			{#if !adaptive || hasStages(kind)}
				<NumberInput
					name="rounds"
					labelText="Rounds"
					helperText="12 rounds see a shift of 10 %; fewer than 8 hardly decide anything. The answer comes at the end."
					bind:value={rounds}
					invalid={issue('rounds') !== ''}
					invalidText={issue('rounds')}
					allowEmpty
				/>
			{/if}
			<NumberInput
				name="warmups"
				labelText="Warm-ups"
				helperText="Loads per arm to fill caches: kept, not counted."
				bind:value={warmups}
				invalid={issue('warmups') !== ''}
				invalidText={issue('warmups')}
				allowEmpty
			/>
		</div>
		<label class="check"
			><input type="checkbox" name="settle" bind:checked={settle} /><span
				><b>Wait until the served page is stable</b> before the warm-ups: it is fetched again and again, as each device,
				until sizes, validators and cache headers repeat.</span
			></label
		>
		{#if settle}<label class="inline"
				>At most <input
					type="number"
					name="settleWithinS"
					min="5"
					max="1800"
					value={typed?.settleWithinS ?? 60}
				/> s for each page and device</label
			>{/if}
		{#if issue('settleWithinS')}<p class="wrong">{issue('settleWithinS')}</p>{/if}
		{#if !hasStages(kind) && most < needed}<p class="wrong">
				Fewer than {needed} rounds cannot show a difference, however large.
			</p>{/if}
		<p class="figures">
			{adaptive && !hasStages(kind) ? 'At most ' : ''}{loads} loads, {formatWait(loads * LOAD_MS)} in the lab.
		</p>
		{#if !hasStages(kind) && most >= needed && sights.length}
			<p class="muted">
				What {most} rounds see in four of five trials: {sights.join('; ')}. Smaller changes may stay undecided.
			</p>
		{/if}
	</section>

	<More
		metrics={data.metrics}
		bind:primary
		{typed}
		open={Boolean(form?.issues.some(({ path }) => /^(primary|steps|notBefore|spread)/.test(path)))}
		{issue}
	/>
</form>

<style>
	form {
		max-width: 900px;
	}
	.top {
		display: flex;
		justify-content: space-between;
		align-items: center;
		gap: 1rem;
		flex-wrap: wrap;
		margin-bottom: 1rem;
	}
	.buttons {
		display: flex;
		gap: 0.6rem;
		flex-wrap: wrap;
	}
	section {
		margin-bottom: 1.8rem;
	}
	.check {
		display: flex;
		gap: 0.7rem;
		align-items: flex-start;
		margin-bottom: 0.6rem;
	}
	input[type='checkbox'] {
		accent-color: var(--action);
		width: 1.05rem;
		height: 1.05rem;
		margin-top: 0.2rem;
		flex: none;
	}
	.numbers {
		display: grid;
		grid-template-columns: repeat(auto-fit, minmax(min(100%, 15rem), 1fr));
		gap: 1.2rem;
		margin-bottom: 0.7rem;
	}
	.inline {
		font-size: 0.9rem;
	}
	.small {
		font-size: 0.88rem;
	}
	.wrong,
	.summary {
		color: var(--worse);
	}
	.summary {
		border-left: 3px solid var(--worse);
		padding: 0.4rem 0.8rem;
		background: var(--panel);
		margin-bottom: 1rem;
	}
</style>
