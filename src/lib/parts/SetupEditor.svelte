<script lang="ts">
	/** What an arm's page runs on: components, features, effort; kept as JSON in a hidden field. */
	import {
		COMPONENT_KINDS,
		EXCLUSIVE_JOBS,
		NO_SETUP,
		exclusiveClashes,
		type Component,
		type Setup
	} from '$core/trial/setup';

	interface Props {
		name: string;
		setup: Setup | null;
		label: string;
	}
	let { name, setup, label }: Props = $props();
	// svelte-ignore state_referenced_locally
	let components: Component[] = $state(structuredClone($state.snapshot(setup)?.components ?? []));
	// svelte-ignore state_referenced_locally
	let features = $state(
		Object.entries(setup?.features ?? {})
			.map(([feature, on]) => `${feature}: ${on ? 'on' : 'off'}`)
			.join('\n')
	);
	// svelte-ignore state_referenced_locally
	let effort: number | null = $state(setup?.effortHours ?? null);
	const parsed = $derived(
		Object.fromEntries(
			features
				.split('\n')
				.map((line) => line.trim())
				.filter(Boolean)
				.map((line) => {
					const [feature = '', state = 'on'] = line.split(':').map((part) => part.trim());
					return [feature, !/^(off|no|false|0)$/i.test(state)];
				})
		)
	);
	const value: Setup = $derived({
		...NO_SETUP,
		components: components.filter((one) => one.name.trim()),
		features: parsed,
		effortHours: effort
	});
	const isEmpty = $derived(
		value.components.length === 0 && Object.keys(value.features).length === 0 && value.effortHours === null
	);
	const clashes = $derived(exclusiveClashes(value));
	const blank = (): Component => ({
		kind: 'plugin',
		name: '',
		version: '',
		tier: 'unknown',
		monthlyCost: null,
		jobs: [],
		settings: ''
	});

	async function readSettings(component: Component, files: FileList | null) {
		const file = files?.[0];
		if (file) component.settings = (await file.text()).slice(0, 200_000);
	}
</script>

<details class="setup" open={!isEmpty || undefined}>
	<summary
		>{label}{value.components.length ? `: ${value.components.map((one) => one.name).join(', ')}` : ''}</summary
	>
	<input type="hidden" {name} value={isEmpty ? '' : JSON.stringify(value)} />
	{#each components as component, i (i)}
		<fieldset>
			<legend>Component {i + 1}</legend>
			<label
				>Kind <select bind:value={component.kind}
					>{#each COMPONENT_KINDS as kind (kind)}<option>{kind}</option>{/each}</select
				></label
			>
			<label>Name <input bind:value={component.name} /></label>
			<label>Version <input bind:value={component.version} size="8" /></label>
			<label
				>Tier <select bind:value={component.tier}
					><option>unknown</option><option>free</option><option>paid</option></select
				></label
			>
			<label>Cost a month <input type="number" min="0" step="any" bind:value={component.monthlyCost} /></label>
			<label
				>Does alone <select multiple size="3" bind:value={component.jobs}
					>{#each EXCLUSIVE_JOBS as job (job)}<option>{job}</option>{/each}</select
				></label
			>
			<label class="wide"
				>Settings <textarea
					rows="2"
					bind:value={component.settings}
					spellcheck="false"
					placeholder="Text, or the JSON that it exports"></textarea></label
			>
			<label
				>Settings file <input
					type="file"
					accept=".json,.txt,application/json,text/plain"
					onchange={(event) => readSettings(component, event.currentTarget.files)}
				/></label
			>
			<button type="button" onclick={() => components.splice(i, 1)}
				>Remove<span class="visually-hidden"> component {i + 1}</span></button
			>
		</fieldset>
	{/each}
	<p><button type="button" onclick={() => components.push(blank())}>Add a component</button></p>
	{#each clashes as clash (clash)}<p class="clash" role="alert">{clash}</p>{/each}
	<div class="row">
		<label
			>Features, one a line: name: on or off <textarea
				rows="3"
				bind:value={features}
				placeholder="Web fonts: on"></textarea></label
		>
		<label>Hours of work to get here <input type="number" min="0" step="any" bind:value={effort} /></label>
	</div>
</details>

<style>
	.setup {
		font-size: 0.88rem;
		grid-column: 1 / -1;
	}
	summary {
		cursor: pointer;
		color: var(--action);
	}
	fieldset {
		display: flex;
		flex-wrap: wrap;
		gap: 0.5rem 0.9rem;
		align-items: end;
		border: 0;
		border-left: 2px solid var(--rule);
		padding: 0.3rem 0 0.3rem 0.7rem;
		margin: 0.4rem 0;
	}
	legend {
		color: var(--muted);
	}
	label {
		display: grid;
		gap: 0.1rem;
		color: var(--muted);
	}
	.wide {
		flex: 1 1 16rem;
	}
	.row {
		display: flex;
		flex-wrap: wrap;
		gap: 1rem;
	}
	input[type='number'] {
		width: 6.5rem;
	}
	textarea {
		width: 100%;
		min-width: 14rem;
	}
	.clash {
		color: var(--worse);
		border-left: 3px solid var(--worse);
		padding-left: 0.6rem;
		margin: 0.4rem 0;
	}
</style>
