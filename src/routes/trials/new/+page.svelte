<script lang="ts">
	import { Button, NumberInput, TextInput } from 'carbon-components-svelte';
	import { enhance } from '$app/forms';
	import { formatWait } from '../../../core/wording/format';

	let { data, form } = $props();

	let key = 0;
	const arm = (name = '', url = '') => ({ key: key++, name, url });
	// svelte-ignore state_referenced_locally
	const typed = form?.values;
	let question = $state(typed?.question ?? '');
	let arms = $state(typed ? typed.arms.map((one) => arm(one.name, one.url)) : [arm('As it is'), arm()]);
	let baseline = $state(typed ? Math.max(0, typed.arms.findIndex((one) => one.baseline)) : 0);
	// svelte-ignore state_referenced_locally
	let chosen = $state(typed?.conditions ?? data.conditions.map((conditions) => conditions.id));
	let rounds: number | null = $state(typed && Number.isFinite(typed.rounds) ? typed.rounds : 10);
	let warmups: number | null = $state(typed && Number.isFinite(typed.warmups) ? typed.warmups : 1);

	const issue = (path: string) => form?.issues.find((one) => one.path === path)?.message ?? '';
	const loads = $derived(arms.length * chosen.length * ((rounds ?? 0) + (warmups ?? 0)));
	/** About what a load takes with everything around it. */
	const LOAD_MS = 9000;

	function remove(index: number) {
		arms.splice(index, 1);
		if (baseline >= arms.length) baseline = 0;
	}
</script>

<svelte:head><title>New trial – Zafra</title></svelte:head>

<form method="POST" novalidate use:enhance={() => ({ update }) => update({ reset: false })}>
	<div class="top">
		<h1>New trial</h1>
		<div class="buttons">
			<Button kind="tertiary" type="submit" name="then" value="draft">Save as a draft</Button>
			<Button type="submit" name="then" value="start" data-key="r">Start the trial</Button>
		</div>
	</div>
	{#if form?.issues.length}
		<p class="summary" role="alert">
			The trial was not made: {form.issues.length === 1 ? 'one field needs' : `${form.issues.length} fields need`} another look.
			{#each form.issues.filter((one) => one.path === '') as one (one.message)}<br />{one.message}{/each}
		</p>
	{/if}
	<input type="hidden" name="clientId" value={data.clientId ?? ''} />

	<section>
		<h2>Question</h2>
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
		<h2>Arms</h2>
		<p class="muted">Each arm is a page to load. Every round loads all of them once, in random order. The others are compared with the baseline.</p>
		{#if issue('arms')}<p class="wrong" role="alert">{issue('arms')}</p>{/if}
		{#each arms as one, i (one.key)}
			<fieldset class="arm">
				<legend>{baseline === i ? `Arm ${i + 1}, baseline` : `Arm ${i + 1}`}</legend>
				<TextInput
					name="arm-name"
					labelText="Name of arm {i + 1}"
					placeholder={i === 0 ? 'As it is' : 'With the chat'}
					bind:value={one.name}
					invalid={issue(`arms.${i}.name`) !== ''}
					invalidText={issue(`arms.${i}.name`)}
				/>
				<TextInput
					name="arm-url"
					labelText="Address of arm {i + 1}"
					placeholder="https://"
					inputmode="url"
					bind:value={one.url}
					invalid={issue(`arms.${i}.url`) !== ''}
					invalidText={issue(`arms.${i}.url`)}
				/>
				<div class="side">
					<label><input type="radio" name="baseline" value={i} bind:group={baseline} /> Baseline</label>
					{#if arms.length > 2}<button type="button" class="plain" onclick={() => remove(i)}>Remove<span class="visually-hidden"> arm {i + 1}</span></button>{/if}
				</div>
			</fieldset>
		{/each}
		{#if arms.length < 8}<Button kind="tertiary" size="small" type="button" on:click={() => arms.push(arm())}>Add an arm</Button>{/if}
	</section>

	<section>
		<h2>Conditions</h2>
		{#if issue('conditions')}<p class="wrong" role="alert">{issue('conditions')}</p>{/if}
		{#each data.conditions as conditions (conditions.id)}
			<label class="check">
				<input type="checkbox" name="conditions" value={conditions.id} bind:group={chosen} />
				<span><b>{conditions.name}.</b> {conditions.summary}.<br /><span class="muted figures">{conditions.detail}</span></span>
			</label>
		{/each}
	</section>

	<section>
		<h2>Rounds</h2>
		<div class="numbers">
			<NumberInput
				name="rounds"
				labelText="Rounds"
				helperText="8 or more: fewer can hardly decide anything."
				bind:value={rounds}
				invalid={issue('rounds') !== ''}
				invalidText={issue('rounds')}
				allowEmpty
			/>
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
		<p class="figures">{loads} loads, {formatWait(loads * LOAD_MS)} in the lab.</p>
	</section>
</form>

<style>
	form {
		max-width: 860px;
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
	.arm {
		display: grid;
		grid-template-columns: minmax(9rem, 1fr) minmax(14rem, 2fr) auto;
		gap: 0 1rem;
		border: 0;
		border-left: 3px solid var(--rule);
		padding: 0.3rem 0 0.3rem 0.8rem;
		margin: 0 0 0.8rem;
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
	}
	.numbers {
		display: grid;
		grid-template-columns: repeat(auto-fit, minmax(15rem, 1fr));
		gap: 1.2rem;
		margin-bottom: 0.7rem;
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
	@media (max-width: 640px) {
		.arm {
			grid-template-columns: minmax(0, 1fr);
		}
	}
</style>
