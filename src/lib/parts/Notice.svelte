<script lang="ts">
	/** A message at its place: what happened, why, and what to do. */
	import { InlineNotification } from 'carbon-components-svelte';

	interface Props {
		kind?: 'info' | 'warning' | 'error' | 'success';
		title: string;
		text?: string;
	}
	let { kind = 'info', title, text = '' }: Props = $props();
</script>

<InlineNotification
	{kind}
	{title}
	subtitle={text}
	lowContrast
	hideCloseButton
	role={kind === 'error' ? 'alert' : 'status'}
/>
