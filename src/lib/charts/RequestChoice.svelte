<script lang="ts">
	/** One choice of what is listed. */
	import { Select, SelectItem } from 'carbon-components-svelte';

	interface Props {
		label: string;
		options: readonly [value: string, text: string][];
		value: string;
		onchange: (value: string) => void;
	}
	let { label, options, value, onchange }: Props = $props();
</script>

<Select
	labelText={label}
	size="sm"
	selected={value}
	on:update={({ detail }) => detail !== value && onchange(String(detail))}
>
	{#each options as [key, text] (key)}<SelectItem value={key} {text} />{/each}
</Select>
