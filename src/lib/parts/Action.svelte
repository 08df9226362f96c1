<script lang="ts">
	/** A form that is one button. */
	import { Button } from 'carbon-components-svelte';
	import { keepTyped } from '$lib/keepTyped';
	import Hidden from './Hidden.svelte';

	interface Props {
		action: string;
		text: string;
		/** Read, not seen: tells this button from its like. */
		about?: string;
		kind?: 'primary' | 'tertiary' | 'ghost' | 'danger' | 'danger-tertiary' | 'danger-ghost';
		size?: 'small' | 'field';
		values?: Record<string, string | number>;
		shortcut?: string;
		pressed?: boolean;
	}
	let {
		action,
		text,
		about = '',
		kind = 'ghost',
		size = 'small',
		values = {},
		shortcut,
		pressed
	}: Props = $props();
</script>

<form method="POST" {action} use:keepTyped>
	{#each Object.entries(values) as [name, value] (name)}<Hidden {name} {value} />{/each}
	<Button type="submit" {kind} {size} data-key={shortcut} aria-pressed={pressed}
		>{text}{about && ' '}{#if about}<span class="visually-hidden">{about}</span>{/if}</Button
	>
</form>
