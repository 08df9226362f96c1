<script lang="ts">
	/** What the lab is doing now, and whether the server answers at all. */
	import { formatWait } from '$core/wording/format';
	import type { LabNow } from '$lib/server/desk/labNow';

	let { lab, isUnreachable }: { lab: LabNow; isUnreachable: boolean } = $props();
</script>

<span class="lab-line" role="status" aria-label="The lab">
	{#if isUnreachable}
		<span class="trouble">Zafra does not answer; trying again. What you typed stays here.</span>
	{:else if lab.problem}
		<span class="trouble">The lab cannot load pages. {lab.problem}</span>
	{:else if lab.state === 'busy' && lab.trialId}
		<a href="/trials/{lab.trialId}"
			>Loading: {lab.doing}{lab.timeLeftMs ? `; ${formatWait(lab.timeLeftMs)} left` : ''}</a
		>
	{:else if lab.state === 'busy' && lab.isGathering}
		<span>Gathering pages or field data</span>
	{:else if lab.state === 'busy'}
		<a href="/loads">Loading: {lab.doing}</a>
	{:else if lab.state === 'off'}
		<span class="trouble">The lab is off: trials wait in the queue.</span>
	{:else}
		<a class="muted" href="/workshop/lab">The lab is free</a>
	{/if}
</span>
