<script lang="ts">
	/** Evidence that is not there yet. */
	import { page } from '$app/state';
	import type { SheetHead } from '$lib/server/rooms/trials/sheet/head';

	let { data }: { data: SheetHead } = $props();
	const isMoving = $derived(data.trial.status === 'running' || data.trial.status === 'queued');
</script>

<p class="muted">
	{page.data.lab?.state === 'off' && (isMoving || data.evidencePending)
		? 'The lab works this out, and the lab is off. Start Zafra without ZAFRA_RUNNER=off, or start a lab with “npm run runner”.'
		: isMoving
			? 'Worked out once the loads have ended.'
			: data.evidencePending
				? 'Being worked out from the records …'
				: 'Both variants need a load that did not fail.'}
</p>
