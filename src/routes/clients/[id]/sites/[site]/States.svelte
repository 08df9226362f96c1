<script lang="ts">
	/** Who may come to the site: signed in, with a basket. */
	import { untrack } from 'svelte';
	import { Button } from 'carbon-components-svelte';
	import { typedForm } from '$lib/typedForm';
	import type { Form } from '$lib/server/http/form';
	import type { StateFields } from '$lib/server/rooms/clients/form';
	import Action from '$lib/parts/Action.svelte';
	import Field from '$lib/parts/Field.svelte';
	import StepsEditor from '$lib/parts/StepsEditor.svelte';
	import Table from '$lib/parts/Table.svelte';
	import type { Column } from '$lib/parts/tableRows';

	interface StateRow {
		id: number;
		name: string;
		url: string | null;
		steps: number;
		cookies: number;
	}
	interface Props {
		states: StateRow[];
		form: Form<typeof StateFields>;
	}
	let { states, form }: Props = $props();
	const {
		form: typed,
		wrong,
		atFields,
		enhance
	} = typedForm(() => form, {
		isRepeated: true,
		done: () => (isAdding = false)
	});
	let isAdding = $state(untrack(() => $atFields > 0));
	const partsOf = ({ steps, cookies }: StateRow) =>
		[
			steps ? `${steps} ${steps === 1 ? 'step' : 'steps'}` : '',
			cookies ? `${cookies} ${cookies === 1 ? 'cookie' : 'cookies'}` : ''
		]
			.filter(Boolean)
			.join(', ');
	const columns: Column<StateRow>[] = [
		{ key: 'name', name: 'Visitor', isRowHead: true, text: ({ name }) => name },
		{ key: 'how', name: 'Made by', text: partsOf },
		{ key: 'where', name: 'Begins at', text: ({ url }) => url ?? 'the page itself', kind: 'address' },
		{ key: 'delete', name: 'Delete', isUnnamed: true }
	];
</script>

<section>
	<h2>Who visits</h2>
	<p class="muted small">
		Signed in, with a basket: done before each load of a variant that asks for it. Nobody is shown what the
		steps type, or the cookies.
	</p>
	{#if states.length}
		<Table label="Visitor states" {columns} rows={states} key={({ id }) => id}>
			{#snippet cell(state)}<Action
					action="?/deleteState"
					text="Delete"
					about={state.name}
					values={{ state: state.id }}
				/>{/snippet}
		</Table>
	{/if}
	{#if isAdding}
		<form method="POST" action="?/state" novalidate use:enhance class="panel">
			<h3>A visitor state</h3>
			<div class="cells fields" style:--cell="18rem">
				<Field
					label="Name"
					name="stateName"
					bind:value={$typed.stateName}
					placeholder="Signed in"
					wrong={$wrong('stateName')}
				/>
				<Field
					label="Begins at"
					name="stateUrl"
					bind:value={$typed.stateUrl}
					placeholder="the page that is measured"
					wrong={$wrong('stateUrl')}
				/>
				<StepsEditor
					label="Steps"
					name="stateSteps"
					url={$typed.stateUrl ?? ''}
					bind:value={$typed.stateSteps}
					wrong={$wrong('stateSteps')}
				/>
				<Field
					rows={4}
					label="Cookies"
					name="stateCookies"
					bind:value={$typed.stateCookies}
					help="name=value, one a line"
					wrong={$wrong('stateCookies')}
				/>
			</div>
			<div class="buttons">
				<Button type="submit" size="field">Save the state</Button>
				<Button kind="ghost" size="field" on:click={() => (isAdding = false)}>Cancel</Button>
			</div>
		</form>
	{:else}<Button kind="ghost" size="small" on:click={() => (isAdding = true)}>Add a visitor state</Button>{/if}
</section>

<style>
	section {
		margin: var(--gap-7) 0;
	}
</style>
