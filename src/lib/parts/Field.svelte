<script lang="ts">
	/** A line of text, or some lines, with its error beside it. */
	import { TextArea, TextInput } from 'carbon-components-svelte';

	interface Props {
		label: string;
		name?: string;
		value?: string;
		placeholder?: string;
		help?: string;
		/** What is wrong with it; empty when nothing is. */
		wrong?: string;
		hideLabel?: boolean;
		type?: 'text' | 'url' | 'password';
		size?: 'sm' | 'xl';
		/** Lines that it shows; one without. */
		rows?: number;
		required?: boolean;
		onchange?: () => void;
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
		rows,
		required = false,
		onchange
	}: Props = $props();
	const shared = $derived({
		labelText: label,
		name,
		placeholder,
		helperText: help,
		invalid: wrong !== '',
		invalidText: wrong,
		hideLabel,
		required
	});
</script>

{#if rows}
	<TextArea {...shared} {rows} bind:value spellcheck="false" />
{:else}
	<TextInput {...shared} bind:value {type} {size} autocomplete="off" on:change={() => onchange?.()} />
{/if}
