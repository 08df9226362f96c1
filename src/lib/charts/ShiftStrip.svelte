<script lang="ts">
	/** The shift board on one line, for rows of lists: marks without figures. */
	import type { BoardMark } from '$core/trial/judge/board';
	import BoardTrack from './BoardTrack.svelte';

	interface Props {
		/** What the line is about, for screen readers. */
		label: string;
		marks: readonly (BoardMark & { short: string; word: string })[];
	}
	let { label, marks }: Props = $props();
</script>

<ul class="strip" aria-label={label}>
	{#each marks as mark (mark.metric)}
		<li title="{mark.short}: {mark.word}">
			<span class="visually-hidden">{mark.short}: {mark.word}</span>
			<BoardTrack {mark} height={16} />
		</li>
	{/each}
</ul>

<style>
	.strip {
		display: flex;
		gap: 5px;
		list-style: none;
		margin: 0;
		padding: 0;
	}
	li {
		width: 52px;
		position: relative;
	}
</style>
