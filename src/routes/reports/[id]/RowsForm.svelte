<script lang="ts" generics="Item">
	/** Some items of one shape: added, changed, put in order, removed. */
	import { Button } from 'carbon-components-svelte';
	import type { Snippet } from 'svelte';

	interface Props {
		/** "Recommendation" */
		what: string;
		items: readonly Item[];
		fresh: () => Item;
		row: Snippet<[Item, (part: Partial<Item>) => void]>;
		onchange: (items: Item[]) => void;
	}
	let { what, items, fresh, row, onchange }: Props = $props();
	const setAt = (at: number, part: Partial<Item>) =>
		onchange(items.map((item, i) => (i === at ? { ...item, ...part } : item)));
	function up(at: number) {
		const next = [...items];
		const [moved] = next.splice(at, 1);
		next.splice(at - 1, 0, moved!);
		onchange(next);
	}
</script>

{#each items as item, i (i)}
	<fieldset>
		<legend>{what} {i + 1}</legend>
		{@render row(item, (part) => setAt(i, part))}
		<div>
			{#if i > 0}<Button kind="ghost" size="small" on:click={() => up(i)}>Move up</Button>{/if}
			<Button kind="danger-ghost" size="small" on:click={() => onchange(items.filter((_, at) => at !== i))}
				>Remove <span class="visually-hidden">{what} {i + 1}</span></Button
			>
		</div>
	</fieldset>
{/each}
<p>
	<Button kind="tertiary" size="small" on:click={() => onchange([...items, fresh()])}
		>Add {what.toLowerCase()}</Button
	>
</p>

<style>
	fieldset {
		border: 1px solid var(--rule);
		padding: var(--gap-4) var(--gap-5);
		display: grid;
		gap: var(--gap-4);
		margin: 0;
	}
	legend {
		font-size: var(--type-3);
		font-weight: 600;
	}
	p {
		margin: 0;
	}
</style>
