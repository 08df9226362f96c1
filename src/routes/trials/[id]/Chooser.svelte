<script lang="ts">
	/** Which conditions and which variant the parts below speak of. */
	import Choice from '$lib/parts/Choice.svelte';

	interface Props {
		conditions: readonly { id: string; name: string }[];
		pairs: readonly { id: number; name: string }[];
		chosen: { condition: string; arm: number };
		onchange: (chosen: { conditions: string } | { variant: string }) => void;
	}
	let { conditions, pairs, chosen, onchange }: Props = $props();
	const named = $derived(conditions.map(({ id, name }) => ({ value: id, text: name })));
	const arms = $derived(pairs.map(({ id, name }) => ({ value: id, text: name })));
</script>

<div class="chooser no-print">
	{#if conditions.length > 1}<Choice
			label="Evidence under"
			inline
			options={named}
			value={chosen.condition}
			onchange={(id) => onchange({ conditions: id })}
		/>{/if}
	{#if pairs.length > 1}<Choice
			label="of"
			inline
			options={arms}
			value={chosen.arm}
			onchange={(id) => onchange({ variant: String(id) })}
		/>{/if}
</div>

<style>
	.chooser {
		display: flex;
		flex-wrap: wrap;
		gap: var(--gap-3);
		justify-content: flex-end;
		margin: var(--gap-3) 0;
	}
</style>
