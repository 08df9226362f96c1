<script lang="ts">
	/** Words that a listed request has. */
	import { Search } from 'carbon-components-svelte';

	interface Props {
		value: string;
		onchange: (value: string) => void;
	}
	let { value, onchange }: Props = $props();
</script>

<Search
	size="sm"
	labelText="Find requests"
	placeholder="Address, type, status"
	bind:value={() => value, (typed) => typed !== value && onchange(String(typed ?? ''))}
/>
