<script lang="ts">
	/** One component of a setup. */
	import { Button, Checkbox, NumberInput } from 'carbon-components-svelte';
	import { COMPONENT_KINDS, EXCLUSIVE_JOBS, type Component } from '$core/trial/design/setup';
	import { page } from '$app/state';
	import Choice from './Choice.svelte';
	import Field from './Field.svelte';
	import FileField from './FileField.svelte';

	interface Props {
		component: Component;
		number: number;
		remove: () => void;
	}
	let { component = $bindable(), number, remove }: Props = $props();
	const MOST_LETTERS = 200_000;
	const asOptions = <Value extends string>(values: readonly Value[]) =>
		values.map((value) => ({ value, text: value }));
	const TIERS = ['unknown', 'free', 'paid'] as const;

	async function readSettings(file: File) {
		component.settings = (await file.text()).slice(0, MOST_LETTERS);
	}
</script>

<fieldset class="component">
	<legend>Component {number}</legend>
	<Choice label="Kind" options={asOptions(COMPONENT_KINDS)} bind:value={component.kind} />
	<Field label="Name" size="sm" bind:value={component.name} />
	<Field label="Version" size="sm" bind:value={component.version} />
	<Choice label="Tier" options={asOptions(TIERS)} bind:value={component.tier} />
	<NumberInput
		labelText="Cost a month, {page.data.currency}"
		size="sm"
		allowEmpty
		min={0}
		bind:value={component.monthlyCost}
	/>
	<fieldset class="row jobs">
		<legend class="bx--label">Does alone</legend>
		{#each EXCLUSIVE_JOBS as job (job)}<Checkbox
				value={job}
				labelText={job}
				bind:group={component.jobs}
			/>{/each}
	</fieldset>
	<div class="settings">
		<Field
			label="Settings"
			rows={2}
			placeholder="Text, or the JSON that it exports"
			bind:value={component.settings}
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
