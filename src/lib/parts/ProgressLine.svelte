<script lang="ts">
	/** How far a trial is. */
	import { ProgressBar } from 'carbon-components-svelte';

	let { done, total, note = '' }: { done: number; total: number; note?: string } = $props();
</script>

<ProgressBar
	size="sm"
	labelText="Loads"
	hideLabel
	value={done}
	max={Math.max(1, total)}
	helperText="{done} of {total} loads{note ? `, ${note}` : ''}"
/>
