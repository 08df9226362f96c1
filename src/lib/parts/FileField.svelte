<script lang="ts">
	/** A file of a form. */
	import { FileUploaderButton } from 'carbon-components-svelte';

	interface Props {
		label: string;
		name?: string;
		accept?: readonly string[];
		help?: string;
		wrong?: string;
		onfile?: (file: File) => void;
	}
	let { label, name, accept = [], help = '', wrong = '', onfile }: Props = $props();
</script>

<div class="file-field">
	<FileUploaderButton
		kind="tertiary"
		size="small"
		labelText={label}
		{name}
		{accept}
		on:change={(event) => event.detail[0] && onfile?.(event.detail[0])}
	/>
	{#if wrong}<p class="wrong" role="alert">{wrong}</p>{:else if help}<p class="help">{help}</p>{/if}
</div>
