<script lang="ts">
	/** Some lines of text with their error beside them. */
	import { TextArea } from 'carbon-components-svelte';

	interface Props {
		label: string;
		name?: string;
		value?: string;
		placeholder?: string;
		help?: string;
		wrong?: string;
		rows?: number;
	}
	let {
		label,
		name,
		value = $bindable(''),
		placeholder = '',
		help = '',
		wrong = '',
		rows = 3
	}: Props = $props();
</script>

<TextArea
	labelText={label}
	{name}
	bind:value
	{placeholder}
	helperText={help}
	invalid={wrong !== ''}
	invalidText={wrong}
	{rows}
	spellcheck="false"
/>
