<script lang="ts">
	/** Page types that addresses and markup suggest: named and taken by the analyst. */
	import { Button } from 'carbon-components-svelte';
	import { keepTyped } from '$lib/keepTyped';
	import Field from '$lib/parts/Field.svelte';
	import Hidden from '$lib/parts/Hidden.svelte';
	import { pathOf } from './pageWords';

	interface Proposal {
		type: string;
		by: 'front-page' | 'address' | 'markup';
		pages: number;
		examples: string[];
	}
	interface Props {
		proposals: Proposal[];
		action: string;
		gatherAction: string;
	}
	let { proposals, action, gatherAction }: Props = $props();
	const BY = { 'front-page': 'the front page', address: 'by their addresses', markup: 'by their markup' };
</script>

<section>
	<div class="head">
		<h2>Proposed page types</h2>
		<form method="POST" {action} use:keepTyped>
			<Button type="submit" kind="tertiary" size="small">Take all {proposals.length}</Button>
		</form>
		<form method="POST" action={gatherAction} use:keepTyped>
			<Hidden name="what" value="types" />
			<Button type="submit" kind="ghost" size="small">Compare the markup of pages</Button>
		</form>
	</div>
	<ul class="plain">
		{#each proposals as { type, by, pages, examples } (type)}
			<li>
				<form method="POST" {action} use:keepTyped>
					<Hidden name="proposal" value={type} />
					<Field label="Name of the type {type}" hideLabel name="name" size="sm" value={type} />
					<Button type="submit" kind="ghost" size="small"
						>Take <span class="visually-hidden">{type}</span></Button
					>
					<span
						>{pages === 1 ? 'one page' : `${pages} pages`}, {BY[by]}:
						<span class="muted">{examples.map(pathOf).join(', ')}</span></span
					>
				</form>
			</li>
		{/each}
	</ul>
</section>

<style>
	.head,
	li form {
		display: flex;
		flex-wrap: wrap;
		gap: var(--gap-5);
		align-items: center;
	}
	li {
		margin-bottom: var(--gap-3);
	}
	li :global(.bx--form-item) {
		flex: 0 0 10rem;
	}
	li span {
		flex: 1 1 16rem;
		overflow-wrap: anywhere;
	}
</style>
