<script lang="ts" generics="Value extends string | number">
	/** One of some values. */
	import { Select, SelectItem } from 'carbon-components-svelte';

	interface Props {
		label: string;
		options: readonly { value: Value; text: string }[];
		value: Value;
		name?: string;
		size?: 'sm' | 'xl';
		inline?: boolean;
		hideLabel?: boolean;
		invalidText?: string;
		onchange?: (value: Value) => void;
	}
	let {
		label,
		options,
		value = $bindable(),
		name,
		size = 'sm',
		inline = false,
		hideLabel = false,
		invalidText = '',
		onchange
	}: Props = $props();
</script>

<Select
	labelText={label}
	{name}
	{size}
	{inline}
	{hideLabel}
	invalid={invalidText !== ''}
	{invalidText}
	selected={value}
	on:update={(event) => {
		const next = event.detail as Value;
		if (next === value) return;
		value = next;
		onchange?.(next);
	}}
>
	{#each options as option (option.value)}<SelectItem value={option.value} text={option.text} />{/each}
</Select>
