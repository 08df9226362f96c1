<script lang="ts">
	import { Button, Checkbox } from 'carbon-components-svelte';
	import { typedForm } from '$lib/typedForm';
	import Choice from '$lib/parts/Choice.svelte';
	import Confirm from '$lib/parts/Confirm.svelte';
	import Field from '$lib/parts/Field.svelte';
	import FileField from '$lib/parts/FileField.svelte';
	import Notice from '$lib/parts/Notice.svelte';
	import PriceRows from './PriceRows.svelte';

	let { data } = $props();
	const { form: typed, wrong, atFields, enhance } = typedForm(() => data.form, { isNested: true });
	const kinds = $derived(data.kinds.map((kind) => ({ value: kind as string, text: kind })));
	let deleting = $state(false);
	let deleteForm = $state<HTMLFormElement>();
</script>

<svelte:head><title>{data.isNew ? 'New component' : data.name} – Zafra</title></svelte:head>

<div class="page">
	<form method="POST" action="?/save" enctype="multipart/form-data" novalidate use:enhance>
		<div class="page-top">
			<h1>{data.isNew ? 'New component' : data.name}</h1>
			<Button type="submit" size="field" data-key="r">Save the component</Button>
		</div>
		{#if $atFields}<Notice
				kind="error"
				title="This component was not saved."
				text="See the fields that are marked."
			/>{/if}
		<div class="cells columns" style:--cell="24rem">
			<section class="stack">
				<h2>What it is</h2>
				<Field label="Name" name="name" bind:value={$typed.name} wrong={$wrong('name')} />
				<Choice label="Kind" name="kind" options={kinds} bind:value={$typed.kind} />
				<Field
					rows={2}
					label="Versions"
					name="versions"
					bind:value={$typed.versions}
					help="One a line"
					wrong={$wrong('versions')}
				/>
				<Field
					rows={2}
					label="Features"
					name="features"
					bind:value={$typed.features}
					help="One a line"
					wrong={$wrong('features')}
				/>
				<fieldset>
					<legend>Jobs that only one component of a site should do</legend>
					{#each data.jobs as job (job)}<Checkbox
							name="jobs"
							value={job}
							labelText={job}
							bind:group={$typed.jobs}
						/>{/each}
				</fieldset>
				<Field rows={2} label="Note" name="note" bind:value={$typed.note} wrong={$wrong('note')} />
			</section>
			<section class="stack">
				<h2>By what it is known in a load</h2>
				<p class="muted small">One a line. What no component claims is shown as unattributed.</p>
				<Field
					rows={2}
					label="Hosts"
					name="hosts"
					bind:value={$typed.hosts}
					placeholder="chat.example.test"
					wrong={$wrong('recognition.hosts')}
				/>
				<Field
					rows={2}
					label="Parts of a path"
					name="paths"
					bind:value={$typed.paths}
					placeholder="/plugins/cache/*"
					wrong={$wrong('recognition.paths')}
				/>
				<Field
					rows={2}
					label="Beginnings of inline code"
					name="markers"
					bind:value={$typed.markers}
					wrong={$wrong('recognition.markers')}
				/>
				<Field
					rows={2}
					label="Scripts that ask for it"
					name="initiators"
					bind:value={$typed.initiators}
					placeholder="/loader.js"
					wrong={$wrong('recognition.initiators')}
				/>
				<h2>Settings</h2>
				{#each data.settings as { name, bytes } (name)}<Checkbox
						name="dropSettings"
						value={name}
						bind:group={$typed.dropSettings}
						labelText="Delete {name} ({bytes.toLocaleString('en-GB')} characters)"
					/>{/each}
				<FileField label="Add a settings file" name="file" wrong={$wrong('file') || $wrong('settings')} />
			</section>
		</div>
		<PriceRows form={typed} wrong={$wrong('prices')} />
	</form>
	{#if !data.isNew}<Button kind="danger-ghost" size="small" on:click={() => (deleting = true)}
			>Delete this component</Button
		>{/if}
</div>

<form method="POST" action="?/delete" bind:this={deleteForm}></form>
<Confirm
	bind:open={deleting}
	heading="Delete {data.name}?"
	action="Delete the component"
	onconfirm={() => deleteForm?.requestSubmit()}
>
	<p>The sites that run on it lose it from their list. Setups of trials keep what they had.</p>
</Confirm>

<style>
	.columns {
		margin-bottom: var(--gap-7);
	}
	fieldset {
		border: 0;
		padding: 0;
		margin: 0;
		display: grid;
		grid-template-columns: repeat(auto-fit, minmax(10rem, 1fr));
		align-items: start;
	}
	h2 {
		margin: 0;
	}
</style>
