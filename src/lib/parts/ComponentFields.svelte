<script lang="ts">
	/** One component of a setup. */
	import { Button, MultiSelect, NumberInput } from 'carbon-components-svelte';
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
	<MultiSelect
		labelText="Does alone"
		label={component.jobs.join(', ') || 'Nothing exclusive'}
		size="sm"
		items={EXCLUSIVE_JOBS.map((job) => ({ id: job, text: job }))}
		selectedIds={component.jobs}
		on:select={(event) => (component.jobs = event.detail.selectedIds as Component['jobs'])}
	/>
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
	.component {
		display: grid;
		grid-template-columns: repeat(auto-fit, minmax(min(100%, 9rem), 1fr));
		gap: 0.5rem 0.9rem;
		align-items: end;
		border: 0;
		border-left: 2px solid var(--rule);
		padding: 0.3rem 0 0.3rem 0.7rem;
		margin: 0.4rem 0;
	}
	.settings {
		grid-column: 1 / -1;
		display: grid;
		grid-template-columns: minmax(0, 1fr) auto;
		gap: 0.6rem;
		align-items: end;
	}
	legend {
		color: var(--muted);
		font-size: 0.86rem;
	}
</style>
