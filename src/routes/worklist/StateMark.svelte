<script lang="ts">
	/** What became of a line, and whose it is. */
	import { Tag } from 'carbon-components-svelte';
	import type { FindingState } from '$core/findings/worklist';

	interface Props {
		state: FindingState;
		name: string;
		owner: string;
	}
	let { state, name, owner }: Props = $props();
	const COLOURS = {
		open: 'gray',
		accepted: 'gray',
		planned: 'gray',
		done: 'outline',
		'seen-done': 'teal',
		'not-worth': 'gray',
		'came-back': 'magenta'
	} as const;
</script>

<Tag size="sm" type={COLOURS[state]}>{name}</Tag>
{#if owner}<br /><span class="muted small">{owner}</span>{/if}
