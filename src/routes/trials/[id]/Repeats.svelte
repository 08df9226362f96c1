<script lang="ts">
	/** The same trial at other times. */
	import { formatMoment } from '$core/wording/format';
	import Action from '$lib/parts/Action.svelte';
	import Strips from '$lib/parts/Strips.svelte';
	import type { SheetView } from '$lib/server/trials/sheetView';
	import { STATES } from '$lib/parts/trialNames';

	let { data }: { data: SheetView } = $props();
</script>

<ul class="plain">
	{#each data.repeats as other (other.id)}
		<li>
			<a href="/trials/{other.id}"
				>{other.age ? `${other.age} later` : 'The first one'}, {formatMoment(other.at)}</a
			>
			{#if other.answer?.strips.length}<Strips answer={other.answer} />{:else}{STATES[other.status]}{/if}
		</li>
	{/each}
</ul>
{#if data.trial.canRepeatByAge && data.trial.status === 'done'}<Action
		action="?/age"
		text="Repeat after an hour, a day and a week"
		kind="tertiary"
	/>{/if}
