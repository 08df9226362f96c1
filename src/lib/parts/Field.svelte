<script lang="ts">
	/** A line of text with its error beside it. */
	import { TextInput } from 'carbon-components-svelte';

	interface Props {
		label: string;
		name?: string;
		value?: string;
		placeholder?: string;
		help?: string;
		/** What is wrong with it; empty when nothing is. */
		wrong?: string;
		hideLabel?: boolean;
		type?: 'text' | 'url' | 'datetime-local' | 'password';
		size?: 'sm' | 'xl';
		required?: boolean;
		onchange?: () => void;
		onpaste?: (event: ClipboardEvent) => void;
		list?: string;
		/** The main action of the screen is reached by this key. */
		shortcut?: string;
	}
	let {
		label,
		name,
		value = $bindable(''),
		placeholder = '',
		help = '',
		wrong = '',
		hideLabel = false,
		type = 'text',
		size,
		required = false,
		onchange,
		onpaste,
		list,
		shortcut
	}: Props = $props();
</script>

<TextInput
	labelText={label}
	{name}
	bind:value
	{placeholder}
	helperText={help}
	invalid={wrong !== ''}
	invalidText={wrong}
	{hideLabel}
	{type}
	{size}
	{required}
	{list}
	autocomplete="off"
	data-key={shortcut}
	on:change={() => onchange?.()}
	on:paste={(event: ClipboardEvent) => onpaste?.(event)}
/>
