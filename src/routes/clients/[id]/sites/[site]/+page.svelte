<script lang="ts">
	import { Button, Checkbox } from 'carbon-components-svelte';
	import { keepTyped } from '$lib/keepTyped';
	import Choice from '$lib/parts/Choice.svelte';
	import Confirm from '$lib/parts/Confirm.svelte';
	import Field from '$lib/parts/Field.svelte';
	import Notice from '$lib/parts/Notice.svelte';
	import RunsOn from './RunsOn.svelte';
	import States from './States.svelte';

	let { data, form } = $props();
	const issues = $derived(form?.issues ?? []);
	const issue = (path: string) =>
		issues.find((found) => found.path === path || found.path.startsWith(`${path}.`))?.message ?? '';
	const site = $derived({ ...data.site, ...((form && 'typed' in form && form.typed) || {}) });
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
	<States states={data.states} typed={(form && 'state' in form && form.state) || null} {issue} />
	<form method="POST" action="?/change" novalidate use:keepTyped class="panel">
		<h2>The site</h2>
		<div class="cells fields">
			<Field label="Name" name="name" value={site.name} wrong={issue('name')} />
			<Field label="Host" name="host" value={site.host} wrong={issue('host')} />
			<Choice
				label="Asked for by"
				name="scheme"
				options={[
					{ value: 'https', text: 'https' },
					{ value: 'http', text: 'http, not encrypted' }
				]}
				value={site.scheme}
			/>
			<Choice label="It is" name="role" options={ROLES} value={site.role} />
			<Field
				label="Further hosts"
				name="hosts"
				value={site.hosts}
				wrong={issue('hosts')}
				help="That show the same site, by comma"
			/>
			<Field
				label="CDN hosts"
				name="cdnHosts"
				value={site.cdnHosts}
				wrong={issue('cdnHosts')}
				help="Of other domains, that serve its own files"
			/>
			<Choice label="Nearest place to its visitors" name="place" options={places} value={site.place} />
			<Field
				label="Preview host"
				name="previewHost"
				value={site.previewHost}
				wrong={issue('previewHost')}
				placeholder="none"
			/>
			<Field
				label="Access to the preview"
				name="previewAccess"
				type="password"
				placeholder={data.site.hasAccess ? 'saved, not shown' : 'user:password'}
				wrong={issue('previewAccess')}
			/>
			{#if data.site.hasAccess}<Checkbox name="forgetAccess" labelText="Forget the saved access" />{/if}
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

<style>
	.fields {
		margin-bottom: var(--gap-6);
	}
</style>
