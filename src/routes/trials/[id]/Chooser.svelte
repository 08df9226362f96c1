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
		onchange: (chosen: { condition?: string; armId?: number }) => void;
	}
	let { conditions, pairs, condition, armId, onchange }: Props = $props();
	const named = $derived(conditions.map(({ id, name }, i) => ({ value: i === 0 ? '' : id, text: name })));
	const arms = $derived(pairs.map(({ id, name }, i) => ({ value: i === 0 ? 0 : id, text: name })));
</script>

<div class="chooser no-print">
	{#if conditions.length > 1}<Choice
			label="Evidence under"
			inline
			options={named}
			value={condition}
			onchange={(chosen) => onchange({ condition: chosen })}
		/>{/if}
	{#if pairs.length > 1}<Choice
			label="of"
			inline
			options={arms}
			value={armId}
			onchange={(chosen) => onchange({ armId: chosen })}
		/>{/if}
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
