<script lang="ts">
	/** Evidence that is not there yet. */
	import type { SheetView } from '$lib/server/trials/sheetView';

	let { data }: { data: SheetView } = $props();
	const isMoving = $derived(data.trial.status === 'running' || data.trial.status === 'queued');
</script>

<p class="muted">
	{isMoving
		? 'Worked out once the loads have ended.'
		: data.evidencePending
			? 'Being worked out from the records …'
			: 'Both variants need a load that did not fail.'}
</p>
