<script lang="ts">
	/** Which conditions and which variant the parts below speak of. */
	import Choice from '$lib/parts/Choice.svelte';

	interface Props {
		conditions: readonly { id: string; name: string }[];
		pairs: readonly { id: number; name: string }[];
		/** Empty for the first. */
		condition: string;
		/** 0 for the first. */
		armId: number;
	}
	let { conditions, pairs, condition = $bindable(), armId = $bindable() }: Props = $props();
	const named = $derived(conditions.map(({ id, name }, i) => ({ value: i === 0 ? '' : id, text: name })));
	const arms = $derived(pairs.map(({ id, name }, i) => ({ value: i === 0 ? 0 : id, text: name })));
</script>

<div class="chooser no-print">
	{#if conditions.length > 1}<Choice
			label="Evidence under"
			inline
			options={named}
			bind:value={condition}
		/>{/if}
	{#if pairs.length > 1}<Choice label="of" inline options={arms} bind:value={armId} />{/if}
</div>

<style>
	.chooser {
		display: flex;
		flex-wrap: wrap;
		gap: 0.4rem;
		justify-content: flex-end;
		margin: 0.4rem 0;
	}
</style>
