<script lang="ts">
	import { Button } from 'carbon-components-svelte';
	import { formatMoment } from '$core/wording/format';
	import Action from '$lib/parts/Action.svelte';
	import Confirm from '$lib/parts/Confirm.svelte';
	import Notice from '$lib/parts/Notice.svelte';
	import Part from '$lib/parts/Part.svelte';
	import Sheet from '$lib/parts/Sheet.svelte';
	import Strips from '$lib/parts/Strips.svelte';
	import { STATES } from '$lib/parts/trialNames';
	import Pairs from './Pairs.svelte';
	import Prices from './Prices.svelte';
	import Sites from './Sites.svelte';
	import Usual from './Usual.svelte';
	import { countOf, findings } from './findings';

	let { data } = $props();
	const { client } = $derived(data);
	const found = $derived(findings(data));
	let deleting = $state(false);
	let deleteForm = $state<HTMLFormElement>();
	const LANGUAGES = { en: 'English', es: 'Spanish' };
	const parts = $derived([
		{ id: 'field', name: 'Field' },
		{ id: 'trials', name: 'Trials', state: countOf(data.allTrials, 'trial') },
		{ id: 'setups', name: 'Setups and prices' },
		{ id: 'third-parties', name: 'Third parties', state: countOf(data.thirdParties.hosts, 'host') },
		{ id: 'competitors', name: 'Competitors' },
		{ id: 'usual', name: 'Targets and margins' }
	]);
</script>

<svelte:head><title>{client.name} – Zafra</title></svelte:head>

<Sheet {parts}>
	{#snippet first()}
		<div class="page-top">
			<h1>{client.name}</h1>
			<div class="buttons">
				<Button size="field" href="/trials/new" data-key="r">New trial</Button>
			</div>
		</div>
		{#if client.archivedAt}<Notice
				title="Archived on {formatMoment(client.archivedAt)}."
				text="It stays as it is, and stands in no list but that of clients."
			/>{/if}
		{#if client.note}<p>{client.note}</p>{/if}
		<p class="muted">
			Reports in {LANGUAGES[client.language]}, prices in {client.currency}{#if client.people.length}; reports to
				{client.people.map(({ name, role }) => (role ? `${name} (${role})` : name)).join(', ')}{/if}
		</p>
		<div class="buttons no-print">
			<Button kind="ghost" size="small" href="/clients/{client.id}/change">Change</Button>
			<Button kind="ghost" size="small" href="/clients/{client.id}/export">Export as one file</Button>
			<Action
				action="?/archive"
				text={client.archivedAt ? 'Take out of the archive' : 'Archive'}
				values={{ archived: client.archivedAt ? 'no' : 'yes' }}
			/>
			<Button kind="danger-ghost" size="small" on:click={() => (deleting = true)}>Delete</Button>
		</div>
		<Sites sites={data.sites} clientId={client.id} roles={data.roles} form={data.form} />
	{/snippet}

	<Part id="field" title="Field" finding={found.field}>
		<p class="muted">
			What real visitors of the chosen pages had: look here first. What is good on both devices needs no trial.
		</p>
		<Button size="small" kind="tertiary" href="/field?client={client.id}">Open the field data</Button>
	</Part>
	<Part id="trials" title="Trials" finding={found.trials}>
		{#if data.trials.length}
			<ul class="plain trials">
				{#each data.trials as trial (trial.id)}
					<li>
						<a href="/trials/{trial.id}" data-row-link>{trial.question}</a>
						<span class="muted">{STATES[trial.status]}, {formatMoment(trial.when)}</span>
						{#if trial.answer.strips.length}<Strips answer={trial.answer} />{/if}
					</li>
				{/each}
			</ul>
			{#if data.allTrials > data.trials.length}<a href="/trials">All {data.allTrials} trials</a>{/if}
		{:else}
			<p class="muted">No trial yet. Choose the pages that matter first, then ask a question about them.</p>
			<Button size="small" kind="tertiary" href="/trials/new">New trial</Button>
		{/if}
	</Part>
	<Part id="setups" title="Setups and prices" finding={found.setups} tone={found.setupTone}>
		<Prices setups={data.setups} currency={client.currency} />
	</Part>
	<Part id="third-parties" title="Third parties" finding={found.thirdParties}>
		<p class="muted">
			All hosts of others that this client’s loads have seen: whose they are, what they cost, and which nobody
			has confirmed.
		</p>
		<Button size="small" kind="tertiary" href="/clients/{client.id}/third-parties">Open the register</Button>
	</Part>
	<Part id="competitors" title="Competitors" finding={found.competitors}>
		<Pairs pairs={data.pairs} />
	</Part>
	<Part id="usual" title="Targets and margins" finding={found.usual}>
		<Usual {client} conditions={data.conditions} />
	</Part>
</Sheet>

<form method="POST" action="?/delete" bind:this={deleteForm}></form>
<Confirm
	bind:open={deleting}
	heading="Delete {client.name}?"
	action="Delete the client"
	onconfirm={() => deleteForm?.requestSubmit()}
>
	<p>
		With it go {countOf(data.goesAlong.sites, 'site')}, {countOf(data.goesAlong.pages, 'page')},
		{countOf(data.goesAlong.trials, 'trial')} and {countOf(data.goesAlong.loads, 'load')}. This cannot be
		undone. To keep it out of sight, archive it; to keep a copy, export it first.
	</p>
</Confirm>

<style>
	.trials li {
		margin-bottom: var(--gap-5);
	}
</style>
