<script lang="ts">
	/** Asks before something is lost, and says what goes with it. */
	import { Modal } from 'carbon-components-svelte';
	import type { Snippet } from 'svelte';

	interface Props {
		open: boolean;
		heading: string;
		/** The word on the button that does it. */
		action: string;
		danger?: boolean;
		children: Snippet;
		onconfirm: () => void;
		oncancel?: () => void;
	}
	let { open = $bindable(), heading, action, danger = true, children, onconfirm, oncancel }: Props = $props();
</script>

<Modal
	bind:open
	{danger}
	size="sm"
	modalHeading={heading}
	primaryButtonText={action}
	secondaryButtonText="Cancel"
	on:click:button--secondary={() => (open = false)}
	on:close={() => oncancel?.()}
	on:submit={() => {
		open = false;
		onconfirm();
	}}
>
	{@render children()}
</Modal>
