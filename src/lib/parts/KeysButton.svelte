<script lang="ts">
	/** Shows which keys do what. */
	import { Button } from 'carbon-components-svelte';

	interface Props {
		onpress: () => void;
	}
	let { onpress }: Props = $props();
</script>

<Button kind="ghost" size="small" on:click={onpress}>Keys</Button>
