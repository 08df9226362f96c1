<script lang="ts">
	/** The components that a site runs on, and what its newest load says of them. */
	import { Button, Tag } from 'carbon-components-svelte';
	import type { ComponentCost, ComponentProposal } from '$core/setups/recognition';
	import { formatValue } from '$core/wording/format';
	import { keepTyped } from '$lib/keepTyped';
	import Action from '$lib/parts/Action.svelte';
	import Choice from '$lib/parts/Choice.svelte';
	import Field from '$lib/parts/Field.svelte';
	import Hidden from '$lib/parts/Hidden.svelte';
	import Table from '$lib/parts/Table.svelte';
	import type { Column } from '$lib/parts/tableRows';
	import { proposalLink } from './proposalLink';

	interface Own {
		id: number;
		kind: string;
		name: string;
		version: string;
		tier: string;
		tiers: string[];
	}
	interface Props {
		components: Own[];
		library: { id: number; name: string }[];
		proposals: { load: number; url: string; costs: ComponentCost[]; proposals: ComponentProposal[] } | null;
	}
	let { components, library, proposals }: Props = $props();
	const others = $derived(library.filter(({ id }) => components.every((own) => own.id !== id)));
	let chosen = $state('');
	const columns: Column<Own>[] = [
		{ key: 'name', name: 'Component', isRowHead: true, text: ({ name }) => name },
		{ key: 'kind', name: 'Kind', text: ({ kind }) => kind },
		{ key: 'tier', name: 'Version and tier' },
		{ key: 'off', name: 'Remove', isUnnamed: true }
	];
	const costColumns: Column<ComponentCost>[] = [
		{ key: 'name', name: 'Component', isRowHead: true, text: ({ name }) => name },
		{ key: 'requests', name: 'Requests', number: true, text: ({ requests }) => requests },
		{ key: 'wire', name: 'Bytes', number: true, text: ({ wireBytes }) => formatValue('wire', wireBytes) },
		{
			key: 'inline',
			name: 'Inline code',
			number: true,
			text: ({ inlineBytes }) => formatValue('wire', inlineBytes)
		},
		{
			key: 'blocking',
			name: 'Blocking',
			number: true,
			text: ({ blockingMs }) => formatValue('tbt', blockingMs)
		}
	];
	const proposalColumns: Column<ComponentProposal>[] = [
		{ key: 'name', name: 'Seen in the load', isRowHead: true, text: ({ name }) => name },
		{ key: 'requests', name: 'Requests', number: true, text: ({ requests }) => requests },
		{ key: 'wire', name: 'Bytes', number: true, text: ({ wireBytes }) => formatValue('wire', wireBytes) },
		{ key: 'add', name: 'Add', isUnnamed: true }
	];
</script>

<section>
	<h2>What it runs on</h2>
	{#if components.length}
		<Table label="Components of this site" {columns} rows={components} key={({ id }) => id}>
			{#snippet cell(own, column)}
				{#if column.key === 'tier'}
					<form method="POST" action="?/component" use:keepTyped class="row">
						<Hidden name="component" value={own.id} />
						<Field
							label="Version of {own.name}"
							hideLabel
							name="version"
							size="sm"
							value={own.version}
							placeholder="version"
						/>
						<Choice
							label="Tier of {own.name}"
							hideLabel
							name="tier"
							options={[
								{ value: '', text: 'tier not known' },
								...own.tiers.map((tier) => ({ value: tier, text: tier }))
							]}
							value={own.tier}
						/>
						<Button type="submit" kind="ghost" size="small"
							>Save <span class="visually-hidden">{own.name}</span></Button
						>
					</form>
				{:else}<Action action="?/takeOff" text="Remove" about={own.name} values={{ component: own.id }} />{/if}
			{/snippet}
		</Table>
	{:else}<p class="muted">Not written down yet.</p>{/if}
	<form method="POST" action="?/component" use:keepTyped class="row add">
		<Choice
			label="Add a component"
			name="component"
			options={[
				{ value: '', text: 'Choose' },
				...others.map(({ id, name }) => ({ value: String(id), text: name }))
			]}
			bind:value={chosen}
		/>
		<Button type="submit" kind="tertiary" size="small" disabled={chosen === ''}>Add to this site</Button>
		<Button kind="ghost" size="small" href="/workshop/components/new">New component</Button>
	</form>
	{#if proposals}
		<h3>In its newest load</h3>
		<p class="muted small">
			<a href="/loads/{proposals.load}">{proposals.url}</a>: requests are known by host, path, inline code and
			what asked for them.
		</p>
		<Table
			label="Components in the newest load"
			columns={costColumns}
			rows={proposals.costs}
			key={({ name }) => name}
		/>
		{#if proposals.proposals.length}
			<p class="small proposals">These addresses are claimed by no component yet:</p>
			<Table
				label="Unclaimed addresses"
				columns={proposalColumns}
				rows={proposals.proposals}
				key={({ name }) => name}
			>
				{#snippet cell(proposal)}
					<Button kind="ghost" size="small" href={proposalLink(proposal)}
						>Make it a component <span class="visually-hidden">{proposal.name}</span></Button
					>
				{/snippet}
			</Table>
		{:else}<Tag size="sm" type="outline">every request is claimed</Tag>{/if}
	{:else}<p class="muted small">
			Once a page of this site was loaded, its requests are shown here by component, and new components are
			proposed from them.
		</p>{/if}
</section>

<style>
	section {
		margin-top: var(--gap-7);
	}
	.add,
	h3 {
		margin-top: var(--gap-6);
	}
	.proposals {
		margin-top: var(--gap-5);
	}
</style>
