<script lang="ts">
	import { hasPages, hasStages, isSamePage } from '$core/trial/kinds';
	import { Button, NumberInput, TextInput } from 'carbon-components-svelte';
	import { enhance } from '$app/forms';
	import type { Setup } from '$core/trial/setup';
	import type { TrialKind } from '$core/trial/types';
	import { ASSUMED_SPREAD, visibleShare } from '$core/trial/noise';
	import { fewestRounds } from '$core/trial/verdict';
	import { formatWait } from '$core/wording/format';
	import SetupEditor from '$lib/parts/SetupEditor.svelte';

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
	const isKind = (text: string | undefined): text is TrialKind => text !== undefined && Object.hasOwn(KINDS, text);
	/** What came back of a form that was tampered with is shown without its setup. */
	const isSetup = (setup: unknown): setup is Setup => Array.isArray((setup as Setup | null)?.components);
	let key = 0;
	interface Arm {
		key: number;
		name: string;
		url: string;
		page: string;
		setup: Setup | null;
	}
	const arm = (name = '', url = '', page = '', setup: Setup | null = null): Arm => ({
		key: key++,
		name,
		url,
		page,
		setup
	});
	// svelte-ignore state_referenced_locally
	const typed = form?.values;
	// svelte-ignore state_referenced_locally
	const template = data.template;
	let kind: TrialKind = $state(isKind(typed?.kind) ? typed.kind : template.kind);
	let question = $state(typed?.question ?? (template.id === 'candidates' ? '' : template.question));
	let arms: Arm[] = $state(
		typed
			? typed.arms.map((one) => arm(one.name, one.url, one.page ?? '', isSetup(one.setup) ? one.setup : null))
			: template.arms.map((one) => arm(one.name, '', one.page ?? ''))
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
	let primary: string[] = $state(typed?.primary ?? data.metrics.filter((one) => one.usual).map((one) => one.id));
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
	/** What the planned rounds can see of the largest paint, by the noise floor of the conditions or a stated assumption. */
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
		if (arms.every((one) => one.url === '')) arms = start.arms.map((one) => arm(one.name, '', one.page ?? ''));
		if (next === 'same-page') arms = arms.slice(0, 1);
		else if (arms.length < 2) arms = [...arms, arm('Candidate')];
		if (next === 'sweep' && arms.length % 2) arms = [...arms, arm('With')];
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
			The trial was not made: {form.issues.length === 1 ? 'one field needs' : `${form.issues.length} fields need`} another
			look.
			{#each form.issues.filter((one) => one.path === '') as one (one.message)}<br />{one.message}{/each}
		</p>
	{/if}
	<input type="hidden" name="clientId" value={data.clientId ?? ''} />
	<input type="hidden" name="kind" value={kind} />

	<section>
		<h2>Question</h2>
		<ul class="templates">
			{#each data.templates as one (one.id)}
				<li>
					<button type="button" aria-pressed={kind === one.kind} onclick={() => setKind(one.kind)}
						><b>{one.name}</b><span>{one.hint}</span></button
					>
				</li>
			{/each}
		</ul>
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
			<fieldset class="arm" class:sweep={hasPages(kind)}>
				<legend
					>{hasStages(kind)
						? `Stage ${i + 1}`
						: hasPages(kind)
							? `${one.page || 'Page'}, ${i % 2 ? 'with the change' : 'without'}`
							: baseline === i || isSamePage(kind)
								? `Arm ${i + 1}, baseline`
								: `Arm ${i + 1}`}</legend
				>
				{#if hasPages(kind)}
					{#if i % 2 === 0}
						<TextInput
							name="arm-page"
							labelText="Page"
							placeholder="Home"
							bind:value={one.page}
							on:change={() => arms[i + 1] && (arms[i + 1]!.page = one.page)}
						/>
					{:else}<input type="hidden" name="arm-page" value={arms[i - 1]?.page ?? ''} />{/if}
				{/if}
				<TextInput
					name="arm-name"
					labelText="Name of arm {i + 1}"
					placeholder={i === 0 ? 'As it is' : 'With the chat'}
					bind:value={one.name}
					invalid={issue(`arms.${i}.name`) !== ''}
					invalidText={issue(`arms.${i}.name`)}
				/>
				{#if !hasStages(kind)}
					<TextInput
						name="arm-url"
						labelText="Address of arm {i + 1}"
						placeholder="https://"
						inputmode="url"
						bind:value={one.url}
						invalid={issue(`arms.${i}.url`) !== ''}
						invalidText={issue(`arms.${i}.url`)}
					/>
				{/if}
				<div class="side">
					{#if kind === 'side-by-side'}<label
							><input type="radio" name="baseline" value={i} bind:group={baseline} /> Baseline</label
						>{/if}
					{#if arms.length > (isSamePage(kind) ? 1 : hasPages(kind) ? 4 : 2) && (!hasPages(kind) || i % 2 === 0)}<button
							type="button"
							class="plain"
							onclick={() => remove(i)}>Remove<span class="visually-hidden"> arm {i + 1}</span></button
						>{/if}
				</div>
				<SetupEditor name="arm-setup" setup={one.setup} label="What it runs on" />
				{#if issue(`arms.${i}.setup`)}<p class="wrong">{issue(`arms.${i}.setup`)}</p>{/if}
			</fieldset>
		{/each}
		{#if hasPages(kind)}
			{#if arms.length < 20}<Button
					kind="tertiary"
					size="small"
					type="button"
					on:click={() => arms.push(arm('Without'), arm('With'))}>Add a page</Button
				>{/if}
		{:else if !isSamePage(kind) && arms.length < 8}<Button
				kind="tertiary"
				size="small"
				type="button"
				on:click={() => arms.push(arm())}>{hasStages(kind) ? 'Add a stage' : 'Add an arm'}</Button
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
					{conditions.summary}{conditions.summary ? '.' : ''}<br /><span class="muted figures">{conditions.detail}</span
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
					><b>Look after 10, 14, 18 and 24 rounds</b> and stop once all is decided, or nothing open has hope. Answers come
					at the looks alone; together they spend no more than one look would.</span
				></label
			>
		{/if}
		<div class="numbers">
			{#if !adaptive || hasStages(kind)}
				<NumberInput
					name="rounds"
					labelText="Rounds"
					helperText="12 rounds see a shift of 10 %; fewer than 8 can hardly decide anything. The answer comes at the end."
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
				><b>Wait until the served page is stable</b> before the warm-ups: it is fetched again and again, as each device, until
				sizes, validators and cache headers repeat.</span
			></label
		>
		{#if settle}<label class="inline"
				>At most <input type="number" name="settleWithinS" min="5" max="1800" value={typed?.settleWithinS ?? 60} /> s for
				each page and device</label
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

	<details class="more" open={Boolean(form?.issues.some((one) => /^(primary|steps|notBefore|spread)/.test(one.path)))}>
		<summary>More: metrics to decide on, checks, a time to run</summary>
		<section>
			<h3>Metrics to decide on</h3>
			<p class="muted small">
				Chosen before the first load. They share the error level; the more there are, the more rounds each needs.
			</p>
			{#if issue('primary')}<p class="wrong">{issue('primary')}</p>{/if}
			<div class="metrics">
				{#each data.metrics as metric (metric.id)}<label
						><input
							type="checkbox"
							name="primary"
							value={metric.id}
							checked={primary.includes(metric.id)}
							onchange={(event) =>
								(primary = event.currentTarget.checked
									? [...primary, metric.id]
									: primary.filter((id) => id !== metric.id))}
						/>
						{metric.name}</label
					>{/each}
			</div>
		</section>
		<section>
			<h3>Steps after each load</h3>
			<p class="muted small">
				A JSON list that shows that nothing broke: open, click, type, scroll, wait, expect, mark.
			</p>
			<textarea
				name="steps"
				rows="3"
				spellcheck="false"
				aria-label="Steps after each load"
				placeholder={'[{"click": "#menu"}, {"expect": {"text": "Timetable"}}]'}>{typed?.steps ?? ''}</textarea
			>
			{#if issue('steps')}<p class="wrong" role="alert">{issue('steps')}</p>{/if}
		</section>
		<section>
			<h3>A time to run</h3>
			<div class="numbers">
				<label class="inline"
					>Not before <input type="datetime-local" name="notBefore" value={typed?.notBefore ?? ''} /></label
				>
				<label class="inline"
					>Rounds spread over <input
						type="number"
						name="spreadMinutes"
						min="1"
						max="10080"
						value={typed?.spreadMinutes ?? ''}
					/> minutes</label
				>
			</div>
			{#if issue('notBefore') || issue('spreadMinutes')}<p class="wrong">
					{issue('notBefore') || issue('spreadMinutes')}
				</p>{/if}
		</section>
	</details>
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
	.templates {
		list-style: none;
		padding: 0;
		margin: 0 0 1rem;
		display: grid;
		grid-template-columns: repeat(auto-fit, minmax(min(100%, 13rem), 1fr));
		gap: 0.6rem;
	}
	.templates button {
		width: 100%;
		height: 100%;
		text-align: left;
		background: var(--panel);
		border: 1px solid var(--rule);
		color: var(--ink);
		padding: 0.6rem 0.7rem;
		cursor: pointer;
		font-size: 0.86rem;
		display: grid;
		gap: 0.2rem;
		align-content: start;
	}
	.templates button[aria-pressed='true'] {
		border-color: var(--action);
		box-shadow: inset 3px 0 0 var(--action);
	}
	.templates span {
		color: var(--muted);
	}
	.arm {
		display: grid;
		grid-template-columns: minmax(9rem, 1fr) minmax(14rem, 2fr) minmax(6rem, auto);
		gap: 0.3rem 1rem;
		border: 0;
		border-left: 3px solid var(--rule);
		padding: 0.3rem 0 0.3rem 0.8rem;
		margin: 0 0 0.8rem;
	}
	.arm.sweep {
		grid-template-columns: repeat(auto-fit, minmax(min(100%, 11rem), 1fr));
	}
	@media (max-width: 640px) {
		.arm {
			grid-template-columns: minmax(0, 1fr);
		}
	}
	.arm:has(input[type='radio']:checked) {
		border-left-color: var(--ink);
	}
	legend {
		font-size: 0.82rem;
		color: var(--muted);
		grid-column: 1 / -1;
	}
	.side {
		display: flex;
		flex-direction: column;
		justify-content: center;
		gap: 0.2rem;
		padding-top: 1rem;
	}
	.check {
		display: flex;
		gap: 0.7rem;
		align-items: flex-start;
		margin-bottom: 0.6rem;
	}
	input[type='checkbox'],
	input[type='radio'] {
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
	textarea {
		width: 100%;
		font-family: ui-monospace, monospace;
		font-size: 0.86rem;
	}
	.metrics {
		display: grid;
		grid-template-columns: repeat(auto-fill, minmax(min(100%, 14rem), 1fr));
		gap: 0.2rem 1rem;
		font-size: 0.9rem;
	}
	.metrics label {
		display: flex;
		gap: 0.5rem;
	}
	.more summary {
		cursor: pointer;
		color: var(--action);
		margin-bottom: 0.8rem;
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
	.plain {
		background: none;
		border: 0;
		color: var(--action);
		cursor: pointer;
		text-decoration: underline;
		padding: 0;
		text-align: left;
	}
</style>
