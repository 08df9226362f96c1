<script lang="ts">
	/** The sites of a client, and what the chosen pages of each stand for. */
	import { untrack } from 'svelte';
	import { Button, Tag } from 'carbon-components-svelte';
	import type { SiteRole } from '$core/clients/site';
	import { coverageWords } from '$core/wording/coverage';
	import { typedForm } from '$lib/typedForm';
	import type { Form } from '$lib/server/http/form';
	import type { SiteFields } from '$lib/server/rooms/clients/form';
	import Choice from '$lib/parts/Choice.svelte';
	import Field from '$lib/parts/Field.svelte';
	import Table from '$lib/parts/Table.svelte';
	import type { Column } from '$lib/parts/tableRows';
	import type { SampleView } from '$lib/server/rooms/pages/view';

	interface SiteRow {
		id: number;
		name: string;
		host: string;
		role: SiteRole;
		sample: SampleView;
		alsoOf: string[];
	}
	interface Props {
		sites: SiteRow[];
		clientId: number;
		roles: readonly SiteRole[];
		form: Form<typeof SiteFields>;
	}
	let { sites, clientId, roles, form }: Props = $props();
	const {
		form: typed,
		wrong,
		atFields,
		enhance
	} = typedForm(() => form, {
		isRepeated: true,
		done: () => (isAdding = false)
	});
	const ROLES: Record<SiteRole, string> = { own: 'own', competitor: 'competitor', bench: 'bench' };
	let isAdding = $state(untrack(() => sites.length === 0 || $atFields > 0));
	const columns: Column<SiteRow>[] = [
		{ key: 'site', name: 'Site' },
		{ key: 'role', name: 'Role', text: ({ role }) => ROLES[role] },
		{ key: 'pages', name: 'Pages', number: true, text: ({ sample }) => sample.all },
		{ key: 'sample', name: 'Sample' }
	];
</script>

<section class="sites">
	<h2>Sites</h2>
	{#if sites.length}
		<Table label="Sites of this client" {columns} rows={sites} key={({ id }) => id}>
			{#snippet cell(site, column)}
				{#if column.key === 'site'}
					<a href="/clients/{clientId}/sites/{site.id}" data-row-link>{site.name}</a><br /><span class="muted"
						>{site.host}</span
					>
					{#if site.alsoOf.length}<Tag size="sm" type="outline">also of {site.alsoOf.join(', ')}</Tag>{/if}
				{:else if site.sample.all}
					{coverageWords(site.sample)}.
					<a href="/pages?site={site.id}">Pages <span class="visually-hidden">of {site.name}</span></a>
				{:else if site.role === 'bench'}<span class="muted">for trials alone</span>
				{:else}<a href="/pages?site={site.id}">Add its pages</a>{/if}
			{/snippet}
		</Table>
	{:else}<p class="muted">No site yet: add the client’s own first, then those it competes with.</p>{/if}
	{#if isAdding}
		<form method="POST" action="?/site" novalidate use:enhance class="panel">
			<h3>Add a site</h3>
			<div class="cells fields" style:--cell="11rem">
				<Field
					label="Host"
					name="host"
					bind:value={$typed.host}
					placeholder="shop.example.test"
					wrong={$wrong('host')}
				/>
				<Field
					label="Name"
					name="name"
					bind:value={$typed.name}
					placeholder="as the host"
					wrong={$wrong('name')}
				/>
				<Choice
					label="It is"
					name="role"
					options={[
						{ value: 'own', text: 'the client’s own' },
						{ value: 'competitor', text: 'a competitor' },
						{ value: 'bench', text: 'a bench for trials' }
					].filter(({ value }) => (roles as readonly string[]).includes(value))}
					bind:value={$typed.role}
				/>
			</div>
			<div class="buttons">
				<Button type="submit" size="field">Add the site</Button>
				{#if sites.length}<Button kind="ghost" size="field" on:click={() => (isAdding = false)}>Cancel</Button
					>{/if}
			</div>
		</form>
	{:else}<Button kind="ghost" size="small" on:click={() => (isAdding = true)}>Add a site</Button>{/if}
</section>

<style>
	.sites {
		margin: var(--gap-7) 0;
	}
</style>
