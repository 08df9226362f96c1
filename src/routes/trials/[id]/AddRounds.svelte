<script lang="ts">
	/** Further rounds for a trial that is done. */
	import { Button, NumberInput } from 'carbon-components-svelte';
	import { reserveSpending } from '$core/trial/design/looks';
	import { keepTyped } from '$lib/keepTyped';
	import { percentOf } from './percent';

	interface Props {
		/** How often rounds were added before. */
		added: number;
		/** Rounds that would probably decide what is open. */
		suggested?: number;
	}
	let { added, suggested = 6 }: Props = $props();
	const MOST = 50;
	const spends = $derived(percentOf(reserveSpending(added + 1) - reserveSpending(added)));
</script>

<form method="POST" action="?/rounds" use:keepTyped class="row more no-print">
	<NumberInput
		name="rounds"
		labelText="Rounds to add"
		min={1}
		max={MOST}
		value={Math.min(MOST, suggested)}
		size="sm"
	/>
	<Button type="submit" kind="tertiary" size="small">Add rounds</Button>
	<span class="muted small"
		>A further look spends {spends} of the error level that the plan left; calls that were made stay.</span
	>
</form>

<style>
	.more {
		margin-top: var(--gap-5);
	}
</style>
