<script lang="ts">
	/** One component of a setup. */
	import { Button, Checkbox, NumberInput } from 'carbon-components-svelte';
	import { COMPONENT_KINDS, EXCLUSIVE_JOBS } from '$core/trial/design/setup';
	import type { ComponentRow } from '$lib/server/rooms/setups/setupForm';
	import { page } from '$app/state';
	import Choice from './Choice.svelte';
	import Field from './Field.svelte';
	import FileField from './FileField.svelte';

	interface Props {
		/** Path of the row among the form's fields. */
		name: string;
		component: ComponentRow;
		change: (component: ComponentRow) => void;
		number: number;
		remove: () => void;
	}
	let { name, component, change, number, remove }: Props = $props();
	const MOST_LETTERS = 200_000;
	const asOptions = (values: readonly string[]) => values.map((value) => ({ value, text: value }));
	const TIERS = ['unknown', 'free', 'paid'] as const;

	const jobsWith = (job: string, isOn: boolean) =>
		isOn ? [...new Set([...component.jobs, job])] : component.jobs.filter((own) => own !== job);
	const set = (part: Partial<ComponentRow>) => change({ ...component, ...part });

	async function readSettings(file: File) {
		set({ settings: (await file.text()).slice(0, MOST_LETTERS) });
	}
</script>

<fieldset class="component">
	<legend>Component {number}</legend>
	<Choice
		label="Kind"
		options={asOptions(COMPONENT_KINDS)}
		name="{name}.kind"
		bind:value={() => component.kind, (kind) => set({ kind })}
	/>
	<Field
		label="Name"
		size="sm"
		name="{name}.name"
		bind:value={() => component.name, (next) => set({ name: next })}
	/>
	<Field
		label="Version"
		size="sm"
		name="{name}.version"
		bind:value={() => component.version, (version) => set({ version })}
	/>
	<Choice
		label="Tier"
		options={asOptions(TIERS)}
		name="{name}.tier"
		bind:value={() => component.tier, (tier) => set({ tier })}
	/>
	<NumberInput
		labelText="Cost a month, {page.data.currency}"
		size="sm"
		allowEmpty
		min={0}
		name="{name}.monthlyCost"
		bind:value={() => component.monthlyCost, (monthlyCost) => set({ monthlyCost })}
	/>
	<fieldset class="row jobs">
		<legend class="bx--label">Does alone</legend>
		{#each EXCLUSIVE_JOBS as job (job)}<Checkbox
				name="{name}.jobs"
				value={job}
				labelText={job}
				checked={component.jobs.includes(job)}
				on:check={({ detail }) => set({ jobs: jobsWith(job, detail) })}
			/>{/each}
	</fieldset>
	<div class="settings">
		<Field
			label="Settings"
			rows={2}
			placeholder="Text, or the JSON that it exports"
			name="{name}.settings"
			bind:value={() => component.settings, (settings) => set({ settings })}
		/>
		<FileField label="Read from a file" accept={['.json', '.txt']} onfile={readSettings} />
	</div>
	<Button kind="danger-ghost" size="small" on:click={remove}
		>Remove <span class="visually-hidden">component {number}</span></Button
	>
</fieldset>

<style>
	.jobs {
		grid-column: 1 / -1;
	}
	.jobs legend {
		float: left;
		margin-right: var(--gap-7);
	}
	.component {
		display: grid;
		grid-template-columns: repeat(auto-fit, minmax(min(100%, 9rem), 1fr));
		gap: var(--gap-4) var(--gap-6);
		align-items: end;
		border: 0;
		border-left: 2px solid var(--rule);
		padding: var(--gap-3) 0 var(--gap-3) var(--gap-5);
		margin: var(--gap-3) 0;
	}
	.settings {
		grid-column: 1 / -1;
		display: grid;
		grid-template-columns: minmax(0, 1fr) auto;
		gap: var(--gap-4);
		align-items: end;
	}
	legend {
		color: var(--muted);
		font-size: var(--type-3);
	}
</style>
