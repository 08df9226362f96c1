<script lang="ts">
	import { Button, Checkbox, NumberInput } from 'carbon-components-svelte';
	import { onDestroy, onMount, untrack } from 'svelte';
	import { KINDS, hasPages, hasStages, isSamePage } from '$core/trial/design/kinds';
	import type { TrialAim, TrialKind } from '$core/trial/types';
	import Field from '$lib/parts/Field.svelte';
	import Hidden from '$lib/parts/Hidden.svelte';
	import Notice from '$lib/parts/Notice.svelte';
	import { typedForm } from '$lib/typedForm';
	import type { TypedTrial } from '$lib/server/rooms/trials/form';
	import AlsoAs from './AlsoAs.svelte';
	import AimChooser from './AimChooser.svelte';
	import ArmFields from './ArmFields.svelte';
	import {
		aimOf,
		armDraft,
		armsForAim,
		armsForKind,
		differsFrom,
		kindOf,
		pasteAddresses,
		storeDraft,
		storedDraft
	} from './drafts';
	import LogFields from './LogFields.svelte';
	import KindChooser from './KindChooser.svelte';
	import More from './More.svelte';
	import PlanPanel from './PlanPanel.svelte';
	import ReferenceHint from './ReferenceHint.svelte';

	const REFERENCE_HELP =
		'Loaded in every stage, about as heavy as the page: it shows how much the world drifted. Without it, or a last stage that takes the change back, times and score get no verdict.';
	let { data } = $props();
	const {
		form: draft,
		wrong,
		errors,
		atFields,
		enhance,
		reset
	} = typedForm(() => data.form, { isNested: true, done: forget });

	const HINTS: Record<TrialKind, string> = {
		'side-by-side':
			'Every round loads all variants once, in random order. Paste several addresses at once to get a variant each.',
		'before-after':
			'One address in two or more stages, with a change between them. Between stages the trial waits for you.',
		'same-page': 'One address against itself: the noise floor.',
		sweep:
			'For every page a variant without and one with the change. Each page gets an answer, and all together get one.'
	};
	const STORE_AFTER_MS = 200;
	const clientId = untrack(() => data.clientId);
	const start = untrack(() => $state.snapshot(data.form.data));
	const kind = $derived(kindOf($draft));
	const aim = $derived(aimOf($draft));
	const isLog = $derived(hasStages(kind) && $draft.log);
	let isRestored = $state(false);
	let isReady = $state(false);
	let now = $state('');

	onMount(() => {
		now = new Date().toISOString();
		const stored = $atFields || data.isChosen ? null : storedDraft(clientId, start);
		if (stored) {
			$draft = stored;
			isRestored = true;
		}
		isReady = true;
	});
	// What is typed survives a reload and a closed tab.
	let waiting: TypedTrial | null = null;
	function store() {
		if (waiting && differsFrom(waiting, start)) storeDraft(clientId, waiting);
		waiting = null;
	}
	$effect(() => {
		const typed = $draft;
		if (!isReady) return;
		waiting = typed;
		// Not between a press and what it shows.
		const timer = setTimeout(store, STORE_AFTER_MS);
		return () => clearTimeout(timer);
	});
	onDestroy(store);

	/** It is a trial now. */
	function forget() {
		waiting = null;
		storeDraft(clientId, null);
	}
	function startAfresh() {
		waiting = null;
		storeDraft(clientId, null);
		reset();
		isRestored = false;
	}

	/** Of a list itself, not of its rows. */
	const ownErrors = (errors: { _errors?: string[] } | string[] | undefined) =>
		(Array.isArray(errors) ? errors : errors?._errors)?.[0] ?? '';
	const heading = $derived(
		hasStages(kind)
			? 'Stages'
			: isSamePage(kind)
				? 'Page'
				: hasPages(kind)
					? 'Pages'
					: aim === 'best'
						? 'Candidates'
						: 'Variants'
	);

	function setKind(next: TrialKind) {
		if (next === kind) return;
		const template = data.templates.find((candidate) => candidate.kind === next)!;
		$draft = { ...$draft, kind: next, arms: armsForKind($draft.arms, next, template), baseline: '0' };
	}
	function setAim(next: TrialAim) {
		$draft = { ...$draft, aim: next, arms: armsForAim($draft.arms, next) };
	}
	const add = (...arms: Parameters<typeof armDraft>[0][]) =>
		($draft.arms = [...$draft.arms, ...arms.map(armDraft)]);
	function remove(i: number) {
		$draft.arms = $draft.arms.toSpliced(i, hasPages(kind) ? 2 : 1);
		if (Number($draft.baseline) >= $draft.arms.length) $draft.baseline = '0';
	}
	const paste = (i: number, urls: string[]) =>
		($draft.arms = pasteAddresses($draft.arms, i, urls, KINDS[kind].mostArms));
</script>

<svelte:window onpagehide={store} />

<svelte:head><title>New trial – Zafra</title></svelte:head>

<form method="POST" novalidate use:enhance class="page">
	<div class="page-top">
		<h1>New trial</h1>
		<div class="buttons">
			<Button kind="tertiary" size="field" type="submit" name="then" value="draft">Save as a draft</Button>
			<Button type="submit" size="field" name="then" value="start" data-key="r">Start the trial</Button>
		</div>
	</div>
	{#if $atFields}
		<Notice
			kind="error"
			title="The trial was not made."
			text={$atFields === 1 ? 'One field needs another look.' : `${$atFields} fields need another look.`}
		/>
	{/if}
	{#if isRestored}
		<p class="message small">
			This is what you typed before.
			<Button kind="ghost" size="small" on:click={startAfresh}>Start afresh</Button>
		</p>
	{/if}
	<Hidden name="clientId" value={$draft.clientId} />
	{#if $draft.limits}<Hidden name="limits" value="on" />{/if}
	<Hidden name="kind" value={kind} />

	<div class="columns">
		<div>
			<section>
				<KindChooser templates={data.templates} {kind} choose={setKind} />
			</section>
			<section>
				<Field
					name="question"
					label="What do you want to know?"
					placeholder="Did adding the chat make the timetable slower?"
					help="One question, one change: the answer will be worded to it."
					bind:value={$draft.question}
					wrong={$wrong('question')}
				/>
			</section>

			<section>
				<h2>{heading}</h2>
				<p class="muted small">{HINTS[kind]}</p>
				{#if KINDS[kind].aims.length > 1}<AimChooser {aim} issue={$wrong('aim')} choose={setAim} />{/if}
				{#if ownErrors($errors.arms)}<p class="wrong" role="alert">{ownErrors($errors.arms)}</p>{/if}
				{#if hasStages(kind) && $draft.arms[0]}
					<div class="cells numbers" style:--cell="13rem">
						<Field
							name="arms.0.url"
							label="Address"
							placeholder="https://"
							bind:value={$draft.arms[0].url}
							wrong={$wrong('arms.0.url')}
						/>
						<Field
							name="referenceUrl"
							label="Reference page, which nobody touches"
							placeholder="https://"
							help={REFERENCE_HELP}
							bind:value={$draft.referenceUrl}
							wrong={$wrong('referenceUrl')}
						/>
					</div>
					<ReferenceHint
						page={$draft.arms[0].url}
						reference={$draft.referenceUrl}
						conditions={$draft.conditions}
					/>
				{/if}
				{#if hasStages(kind)}<LogFields {draft} issue={$wrong} />{/if}
				{#each isLog ? $draft.arms.slice(0, 1) : $draft.arms, i (i)}
					<ArmFields
						{draft}
						{i}
						issue={$wrong}
						remove={() => remove(i)}
						paste={(urls) => paste(i, urls)}
						known={data.known}
					/>
				{/each}
				{#if hasStages(kind) && !isLog && $draft.arms.length > 2}<Checkbox
						name="takesBack"
						labelText="The change is taken back in the last stage"
						bind:checked={$draft.takesBack}
					/>{/if}
				{#if $wrong('returnStage')}<p class="wrong" role="alert">{$wrong('returnStage')}</p>{/if}
				{#if hasPages(kind)}
					<AlsoAs {draft} states={data.states} />
					{#if $draft.arms.length < KINDS[kind].mostArms}<Button
							kind="tertiary"
							size="small"
							on:click={() => add({ name: 'Without' }, { name: 'With' })}>Add a page</Button
						>{/if}
				{:else if !isLog && !isSamePage(kind) && $draft.arms.length < KINDS[kind].mostArms}<Button
						kind="tertiary"
						size="small"
						on:click={() => add({})}
						>{hasStages(kind) ? 'Add a stage' : aim === 'best' ? 'Add a candidate' : 'Add a variant'}</Button
					>{/if}
			</section>

			<section>
				<h2>Conditions</h2>
				{#if $wrong('conditions')}<p class="wrong" role="alert">{$wrong('conditions')}</p>{/if}
				{#each data.conditions as conditions (conditions.id)}
					<Checkbox name="conditions" value={conditions.id} bind:group={$draft.conditions}>
						<svelte:fragment slot="labelChildren"
							><b>{conditions.name}.</b>
							{conditions.summary}{conditions.summary ? '.' : ''}
							<span class="muted figures small">{conditions.detail}</span></svelte:fragment
						>
					</Checkbox>
				{/each}
				<p class="small"><a href="/workshop">Edit conditions in the workshop</a></p>
			</section>

			<section>
				<h2>Rounds</h2>
				{#if !hasStages(kind)}
					<Checkbox name="adaptive" bind:checked={$draft.adaptive}>
						<svelte:fragment slot="labelChildren"
							><b>Look after 10, 14, 18 and 24 rounds</b> and stop once all is decided, or nothing open has hope.
							Together the looks spend no more of the error level than one would.</svelte:fragment
						>
					</Checkbox>
				{/if}
				<div class="cells numbers" style:--cell="13rem">
					{#if !$draft.adaptive || hasStages(kind)}
						<NumberInput
							name="rounds"
							labelText="Rounds"
							size="sm"
							helperText="Fewer than 8 hardly decide anything. The answer comes at the end."
							bind:value={$draft.rounds}
							invalid={$wrong('rounds') !== ''}
							invalidText={$wrong('rounds')}
							allowEmpty
						/>
					{/if}
					<NumberInput
						name="warmups"
						labelText="Warm-ups"
						size="sm"
						helperText="Loads of each variant to fill caches: kept, not counted."
						bind:value={$draft.warmups}
						invalid={$wrong('warmups') !== ''}
						invalidText={$wrong('warmups')}
						allowEmpty
					/>
				</div>
				<Checkbox name="settle" bind:checked={$draft.settle}>
					<svelte:fragment slot="labelChildren"
						><b>Wait until the served page is stable</b> before the warm-ups: fetched again and again until sizes,
						validators and cache headers repeat.</svelte:fragment
					>
				</Checkbox>
				{#if $draft.settle}<div class="cells numbers" style:--cell="13rem">
						<NumberInput
							name="settleWithinS"
							labelText="At most, seconds for each page and device"
							size="sm"
							min={5}
							max={1800}
							bind:value={$draft.settleWithinS}
							invalid={$wrong('settleWithinS') !== ''}
							invalidText={$wrong('settleWithinS')}
						/>
					</div>{/if}
			</section>

			<More metrics={data.metrics} states={data.states} limits={data.limits} {draft} issue={$wrong} />
		</div>
		<PlanPanel
			draft={$draft}
			conditions={data.conditions}
			loadMs={data.loadMs}
			queuedMs={data.queuedMs}
			{now}
		/>
	</div>
</form>

<style>
	.columns {
		display: grid;
		grid-template-columns: minmax(0, 1fr) 270px;
		gap: var(--gap-8);
		align-items: start;
	}
	.columns :global(.bx--tile-group > div) {
		display: grid;
		grid-template-columns: repeat(auto-fit, minmax(min(100%, 19rem), 1fr));
		gap: var(--gap-4);
	}
	.columns :global(.bx--tile) {
		min-height: 0;
		padding: var(--gap-4) 2.6rem var(--gap-4) var(--gap-5);
	}
	.numbers {
		margin: var(--gap-4) 0 var(--gap-5);
	}
	@media (max-width: 1000px) {
		.columns {
			grid-template-columns: minmax(0, 1fr);
		}
	}
</style>
