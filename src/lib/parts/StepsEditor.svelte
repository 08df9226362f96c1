<script lang="ts">
	/** Steps row by row; the JSON list is another view of the same. Without scripts it is the only one. */
	import { Button, TextInput } from 'carbon-components-svelte';
	import { onMount } from 'svelte';
	import { KEYS, type Step } from '$core/load/journey/steps';
	import Choice from './Choice.svelte';
	import Field from './Field.svelte';
	import Lazy from './Lazy.svelte';
	import Hidden from './Hidden.svelte';
	import {
		FIRST_KEY,
		NEW_ROW,
		ROW_VERBS,
		rowsOf,
		stepsText,
		type RowVerb,
		type StateKind,
		type StepRow
	} from './stepRows';

	interface Props {
		label: string;
		name: string;
		value: string;
		wrong?: string;
		help?: string;
		placeholder?: string;
		/** Of the page that the steps are done on: it can be looked at. */
		url?: string | null;
	}
	let {
		label,
		name,
		value = $bindable(),
		wrong = '',
		help = '',
		placeholder = '',
		url = null
	}: Props = $props();
	const VERBS: Record<RowVerb, string> = {
		open: 'Go to',
		click: 'Click',
		type: 'Type',
		press: 'Press a key',
		scroll: 'Scroll to',
		'wait-for': 'Wait for',
		wait: 'Wait, ms',
		expect: 'Expect',
		trySend: 'Try to send',
		mark: 'Mark'
	};
	const STATES: Record<StateKind, string> = {
		selector: 'Selector',
		text: 'Words',
		gone: 'Gone selector',
		title: 'Title',
		url: 'Address',
		plays: 'Playing'
	};
	const LABELS: Record<RowVerb, string> = {
		open: 'Address',
		click: 'Selector',
		type: 'Into, by selector',
		press: 'Key',
		scroll: 'Selector, “bottom”, or pixels',
		'wait-for': 'What',
		wait: 'Time, ms',
		expect: 'What',
		trySend: 'Form, by selector',
		mark: 'Name'
	};
	const verbs = ROW_VERBS.map((verb) => ({ value: verb, text: VERBS[verb] }));
	const states = (Object.keys(STATES) as StateKind[]).map((kind) => ({ value: kind, text: STATES[kind] }));
	const keys = KEYS.map((key) => ({ value: key as string, text: key }));

	/** Null: a list with a step that no row can show stays as JSON. */
	const read = $derived(rowsOf(value));
	const rows = $derived(read ?? []);
	/** Rows need scripts. */
	let isAwake = $state(false);
	let wantsJson = $state(false);
	const isList = $derived(isAwake && !wantsJson && read !== null);
	let isLooking = $state(false);
	const takeSteps = (steps: readonly Step[]) => change([...rows, ...(rowsOf(JSON.stringify(steps)) ?? [])]);
	onMount(() => {
		isAwake = true;
	});

	const change = (next: readonly StepRow[]) => (value = stepsText(next));
	const set = (i: number, changes: Partial<StepRow>) => change(rows.with(i, { ...rows[i]!, ...changes }));
	const setVerb = (i: number, verb: RowVerb) =>
		set(i, { verb, value: verb === 'press' ? FIRST_KEY : rows[i]!.verb === 'press' ? '' : rows[i]!.value });
	const move = (i: number, by: -1 | 1) => {
		const next = [...rows];
		[next[i], next[i + by]] = [next[i + by]!, next[i]!];
		change(next);
	};
	const text = (event: CustomEvent<string | number | null>) => String(event.detail ?? '');
</script>

{#if isList}
	<fieldset class="steps" aria-label={label}>
		<Hidden {name} {value} />
		<legend class="bx--label">{label}</legend>
		{#each rows as row, i (i)}
			<div class="step">
				<Choice label="Step {i + 1}" options={verbs} value={row.verb} onchange={(verb) => setVerb(i, verb)} />
				{#if row.verb === 'type'}<TextInput
						labelText="Text of step {i + 1}"
						size="sm"
						value={row.text}
						on:input={(event) => set(i, { text: text(event) })}
					/>{/if}
				{#if row.verb === 'expect' || row.verb === 'wait-for'}<Choice
						label="Looks for, step {i + 1}"
						options={states}
						value={row.state}
						onchange={(state) => set(i, { state })}
					/>{/if}
				{#if row.verb === 'press'}<Choice
						label="Key of step {i + 1}"
						options={keys}
						value={row.value}
						onchange={(key) => set(i, { value: key })}
					/>
				{:else}<TextInput
						labelText="{LABELS[row.verb]}, step {i + 1}"
						size="sm"
						value={row.value}
						on:input={(event) => set(i, { value: text(event) })}
					/>{/if}
				<div class="buttons">
					<Button kind="ghost" size="small" disabled={i === 0} on:click={() => move(i, -1)}
						>Up<span class="visually-hidden">, step {i + 1}</span></Button
					>
					<Button kind="ghost" size="small" on:click={() => change(rows.toSpliced(i, 1))}
						>Remove<span class="visually-hidden"> step {i + 1}</span></Button
					>
				</div>
			</div>
		{:else}<p class="muted small">{placeholder || 'No steps.'}</p>{/each}
		{#if wrong}<p class="wrong" role="alert">{wrong}</p>{:else if help}<p class="muted small">{help}</p>{/if}
		<div class="buttons">
			<Button kind="tertiary" size="small" on:click={() => change([...rows, { ...NEW_ROW }])}>Add a step</Button
			>
			{#if url !== null && !isLooking}<Button kind="tertiary" size="small" on:click={() => (isLooking = true)}
					>Pick on the page</Button
				>{/if}
			<Button kind="ghost" size="small" on:click={() => (wantsJson = true)}>As JSON</Button>
		</div>
		{#if isLooking && url !== null}<Lazy
				load={() => import('./PagePick.svelte')}
				props={{ url, take: takeSteps, close: () => (isLooking = false) }}
			/>{/if}
	</fieldset>
{:else}
	<Field rows={3} {label} {name} {help} {placeholder} bind:value {wrong} />
	{#if isAwake && read}<Button kind="ghost" size="small" on:click={() => (wantsJson = false)}>As a list</Button
		>{/if}
{/if}

<style>
	.steps {
		border: 0;
		padding: 0;
		margin: 0;
		min-width: 0;
	}
	.step {
		display: grid;
		grid-template-columns: repeat(auto-fit, minmax(min(100%, 9rem), 1fr));
		gap: var(--gap-3);
		align-items: end;
		margin-bottom: var(--gap-3);
	}
</style>
