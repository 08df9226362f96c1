<script lang="ts">
	/** The blocks of a report in order: dragged by pointer or keyboard, chosen to be edited. */
	import { Button } from 'carbon-components-svelte';
	import { dragHandle, dragHandleZone, TRIGGERS, type DndEvent } from 'svelte-dnd-action';
	import type { Block } from '$core/report/document';
	import { BLOCK_NAMES } from './blockNames';

	interface Props {
		blocks: Block[];
		/** Id of the one that is edited; empty for none. */
		chosen: string;
		onorder: (blocks: Block[]) => void;
		onchoose: (id: string) => void;
		onremove: (id: string) => void;
	}
	let { blocks, chosen, onorder, onchoose, onremove }: Props = $props();
	/** While something is dragged, its place is only tried. */
	let tried = $state<Block[] | null>(null);
	const shown = $derived(tried ?? blocks);
	const nameOf = (block: Block) => block.heading || BLOCK_NAMES[block.kind];

	function consider(event: CustomEvent<DndEvent<Block>>) {
		// By keyboard each step is final; what comes after the last only says that it is over.
		tried = event.detail.info.trigger === TRIGGERS.DRAG_STOPPED ? null : event.detail.items;
	}
	function finalize(event: CustomEvent<DndEvent<Block>>) {
		tried = null;
		onorder(event.detail.items);
	}
	function move(at: number, by: number) {
		const next = [...blocks];
		const [moved] = next.splice(at, 1);
		next.splice(at + by, 0, moved!);
		onorder(next);
	}
</script>

<section
	class="blocks"
	aria-label="Blocks in order"
	use:dragHandleZone={{ items: shown, flipDurationMs: 120, dropTargetStyle: {} }}
	onconsider={consider}
	onfinalize={finalize}
>
	{#each shown as block, i (block.id)}
		<div class="block" class:chosen={block.id === chosen} aria-label={nameOf(block)}>
			<span class="handle" use:dragHandle aria-label="Move {nameOf(block)}">⠿</span>
			<Button
				kind="ghost"
				size="small"
				class="name"
				aria-expanded={block.id === chosen}
				on:click={() => onchoose(block.id)}>{nameOf(block)}</Button
			>
			<Button
				kind="ghost"
				size="small"
				aria-label="Move {nameOf(block)} up"
				disabled={i === 0}
				on:click={() => move(i, -1)}>↑</Button
			>
			<Button
				kind="ghost"
				size="small"
				aria-label="Move {nameOf(block)} down"
				disabled={i === shown.length - 1}
				on:click={() => move(i, 1)}>↓</Button
			>
			<Button kind="ghost" size="small" aria-label="Remove {nameOf(block)}" on:click={() => onremove(block.id)}
				>×</Button
			>
		</div>
	{/each}
</section>

<style>
	.blocks {
		border: 1px solid var(--rule);
		background: var(--panel);
		min-height: 2rem;
	}
	.block {
		display: grid;
		grid-template-columns: 1.6rem minmax(0, 1fr) auto auto auto;
		align-items: center;
		border-bottom: 1px solid var(--rule);
		background: var(--panel);
	}
	.block:last-child {
		border-bottom: none;
	}
	.block.chosen {
		box-shadow: inset 3px 0 var(--action);
	}
	.handle {
		text-align: center;
		color: var(--muted);
		cursor: grab;
	}
	.block :global(.bx--btn) {
		padding: 0 var(--gap-3);
		min-height: 2rem;
		min-width: 1.75rem;
		justify-content: center;
	}
	.block :global(.bx--btn.name) {
		justify-content: flex-start;
		text-align: left;
		max-width: none;
		width: 100%;
		overflow: hidden;
		text-overflow: ellipsis;
		white-space: nowrap;
	}
</style>
