<script lang="ts">
	/** The answer of a trial in a row of a list: a line per conditions and variant. */
	import ShiftStrip from '$lib/charts/ShiftStrip.svelte';
	import type { ListedAnswer } from '$lib/server/rooms/trials/listedAnswer';

	interface Props {
		answer: ListedAnswer;
		/** With the sentence beside the marks. */
		spoken?: boolean;
	}
	let { answer, spoken = true }: Props = $props();
	const isOneArm = $derived(new Set(answer.strips.map(({ arm }) => arm)).size <= 1);
</script>

<div class="strips">
	<span class="names" aria-hidden="true"
		>{#each answer.strips[0]?.marks ?? [] as mark (mark.metric)}<span>{mark.short}</span>{/each}</span
	>
	{#each answer.strips as strip (strip.condition + strip.arm)}
		<span class="of muted">{isOneArm ? '' : `${strip.arm}, `}{strip.conditionName}</span>
		<ShiftStrip label="{strip.arm}, {strip.conditionName}" marks={strip.marks} />
		{#if spoken}<span class="judgement small {strip.tone}">{strip.sentence}</span>{/if}
	{/each}
	{#if answer.more}<span class="muted more">and {answer.more} more</span>{/if}
</div>

<style>
	.strips {
		display: grid;
		grid-template-columns: minmax(4.5rem, auto) auto minmax(0, 1fr);
		gap: var(--gap-2) var(--gap-5);
		align-items: start;
		justify-content: start;
	}
	.names {
		grid-column: 2 / -1;
		display: flex;
		gap: 5px;
		font-size: var(--type-1);
		line-height: 1.1;
		color: var(--muted);
	}
	.names span {
		width: 52px;
		text-align: center;
	}
	.of,
	.more {
		font-size: var(--type-3);
		line-height: 1.2;
	}
	.more {
		grid-column: 1 / -1;
	}
	.judgement {
		margin: 0;
		line-height: 1.25;
	}
	@media (max-width: 640px) {
		/* Five marks: a column of a table may not be narrower, its sentences would stand a word to a line. */
		.strips {
			grid-template-columns: minmax(17.5rem, 1fr);
		}
		.names {
			grid-column: 1;
		}
	}
</style>
