<script lang="ts">
	import { Button } from 'carbon-components-svelte';
	import { typedForm } from '$lib/typedForm';
	import Action from '$lib/parts/Action.svelte';
	import Field from '$lib/parts/Field.svelte';
	import FileField from '$lib/parts/FileField.svelte';
	import Notice from '$lib/parts/Notice.svelte';

	let { data, form } = $props();
	const { form: agency, wrong, enhance } = typedForm(() => data.form);
</script>

<svelte:head><title>Agency – Zafra</title></svelte:head>

<div class="page">
	<h1>The agency</h1>
	<p class="muted">Stands on every report: a frozen one keeps what it had.</p>
	{#if form && 'isSaved' in form}<Notice kind="success" title="Saved." />{/if}
	<form method="POST" action="?/save" enctype="multipart/form-data" use:enhance>
		<Field label="Name" name="name" bind:value={$agency.name} wrong={$wrong('name')} />
		<Field
			label="Contact"
			name="contact"
			bind:value={$agency.contact}
			wrong={$wrong('contact')}
			help="Under every report."
		/>
		<Field
			label="Accent colour"
			name="accent"
			bind:value={$agency.accent}
			wrong={$wrong('accent')}
			help="As #1F6F54. A client’s own colour goes before it."
		/>
		<Field
			label="Standing text"
			name="standing"
			rows={4}
			bind:value={$agency.standing}
			wrong={$wrong('standing')}
		/>
		<Field
			label="The same in Spanish"
			name="standingEs"
			rows={4}
			bind:value={$agency.standingEs}
			wrong={$wrong('standingEs')}
		/>
		<FileField
			label="Logo"
			name="logo"
			accept={['.png', '.svg']}
			wrong={$wrong('logo')}
			help="PNG or SVG, up to 2 MB. It is drawn to pixels."
		/>
		<Button type="submit" size="field">Save</Button>
	</form>
	{#if data.hasLogo}
		<section>
			<h2>Logo now</h2>
			<p><img src="/workshop/agency/logo" alt="Logo of the agency" height="40" /></p>
			<Action action="?/dropLogo" text="Remove the logo" kind="danger-tertiary" />
		</section>
	{/if}
</div>

<style>
	form {
		display: grid;
		gap: var(--gap-6);
		max-width: 34rem;
	}
	section {
		margin-top: var(--gap-7);
	}
</style>
