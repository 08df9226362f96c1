<script lang="ts">
	/** Requests under the headings of their owners, or in one list. */
	import { Checkbox } from 'carbon-components-svelte';

	interface Props {
		checked: boolean;
		onchange: (checked: boolean) => void;
	}
	let { checked, onchange }: Props = $props();
</script>

<Checkbox labelText="By owner" bind:checked={() => checked, (next) => next !== checked && onchange(next)} />
