<script lang="ts">
	import { Button, Checkbox } from 'carbon-components-svelte';
	import { typedForm } from '$lib/typedForm';
	import Choice from '$lib/parts/Choice.svelte';
	import Confirm from '$lib/parts/Confirm.svelte';
	import Field from '$lib/parts/Field.svelte';
	import Notice from '$lib/parts/Notice.svelte';
	import HostLook from './HostLook.svelte';
	import RunsOn from './RunsOn.svelte';
	import States from './States.svelte';

	let { data } = $props();
	const { form: typed, wrong, enhance } = typedForm(() => data.form);
	const places = $derived([
		{ value: '', text: 'As the conditions say' },
		...data.places.map(({ id, name }) => ({ value: id, text: name }))
	]);
	const ROLES = [
		{ value: 'own', text: 'the client’s own' },
		{ value: 'competitor', text: 'a competitor' },
		{ value: 'bench', text: 'a bench for trials' }
	];
	let deleting = $state(false);
	let deleteForm = $state<HTMLFormElement>();
</script>

<svelte:head><title>{data.site.name} – Zafra</title></svelte:head>

<div class="page">
	<div class="page-top">
		<h1>{data.site.name}</h1>
		<div class="buttons">
			<Button size="field" href="/pages?site={data.site.id}" data-key="r">Its pages</Button>
		</div>
	</div>
	<p class="muted">
		{data.site.host}, of <a href="/clients/{data.client.id}">{data.client.name}</a>
	</p>
	{#if data.alsoOf.length}<Notice
			kind="warning"
			title="{data.site.host} is a site of {data.alsoOf.join(', ')} too."
			text="Each client has its own pages and trials of it."
		/>{/if}
	<RunsOn components={data.components} library={data.library} proposals={data.proposals} />
	<HostLook kept={data.hostLook} />
	<States states={data.states} form={data.stateForm} />
	<form method="POST" action="?/change" novalidate use:enhance class="panel">
		<h2>The site</h2>
		<div class="cells fields">
			<Field label="Name" name="name" bind:value={$typed.name} wrong={$wrong('name')} />
			<Field label="Host" name="host" bind:value={$typed.host} wrong={$wrong('host')} />
			<Choice
				label="Asked for by"
				name="scheme"
				options={[
					{ value: 'https', text: 'https' },
					{ value: 'http', text: 'http, not encrypted' }
				]}
				bind:value={$typed.scheme}
			/>
			<Choice label="It is" name="role" options={ROLES} bind:value={$typed.role} />
			<Field
				label="Further hosts"
				name="hosts"
				bind:value={$typed.hosts}
				wrong={$wrong('hosts')}
				help="That show the same site, by comma"
			/>
			<Field
				label="CDN hosts"
				name="cdnHosts"
				bind:value={$typed.cdnHosts}
				wrong={$wrong('cdnHosts')}
				help="Of other domains, that serve its own files"
			/>
			<Choice label="Nearest place to its visitors" name="place" options={places} bind:value={$typed.place} />
			<Field
				label="Preview host"
				name="previewHost"
				bind:value={$typed.previewHost}
				wrong={$wrong('previewHost')}
				placeholder="none"
			/>
			<Field
				label="Access to the preview"
				name="previewAccess"
				bind:value={$typed.previewAccess}
				type="password"
				placeholder={data.site.hasAccess ? 'saved, not shown' : 'user:password'}
				wrong={$wrong('previewAccess')}
			/>
			{#if data.site.hasAccess}<Checkbox
					name="forgetAccess"
					bind:checked={$typed.forgetAccess}
					labelText="Forget the saved access"
				/>{/if}
		</div>
		<div class="buttons">
			<Button type="submit" size="field">Save the site</Button>
			<Button kind="danger-ghost" size="field" on:click={() => (deleting = true)}>Delete the site</Button>
		</div>
	</form>
</div>

<form method="POST" action="?/delete" bind:this={deleteForm}></form>
<Confirm
	bind:open={deleting}
	heading="Delete {data.site.name}?"
	action="Delete the site"
	onconfirm={() => deleteForm?.requestSubmit()}
>
	<p>Its list of pages and its visitor states go with it. Trials and loads of its pages stay.</p>
</Confirm>
