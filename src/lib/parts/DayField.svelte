<script lang="ts">
	/**
	 * A day from a calendar; what is sent is `2026-12-01`. The calendar clears what is no day; it is sent all the same,
	 * and stands beside what is wrong with it.
	 */
	import { DatePicker, DatePickerInput } from 'carbon-components-svelte';
	import { dayOf, dayWords, isoOfDay } from './moment';
	import Hidden from './Hidden.svelte';

	interface Props {
		label: string;
		name?: string;
		value?: string;
		/** What is wrong with it; empty when nothing is. */
		wrong?: string;
		help?: string;
		onchange?: (day: string) => void;
	}
	let { label, name, value = $bindable(''), wrong = '', help = '', onchange }: Props = $props();

	const told = $derived(wrong && value && !dayOf(value) ? `“${value}”: ${wrong}` : wrong);

	function set(words: string | number | null | undefined) {
		const day = isoOfDay(String(words ?? ''));
		if (day === value) return;
		value = day;
		onchange?.(day);
	}
</script>

<div class="day">
	<DatePicker
		datePickerType="single"
		dateFormat="j M Y"
		flatpickrProps={{ locale: { firstDayOfWeek: 1 }, parseDate: dayOf as (text: string) => Date }}
		bind:value={() => dayWords(value), set}
	>
		<DatePickerInput
			labelText={label}
			placeholder="1 Dec 2026"
			helperText={help}
			size="sm"
			invalid={wrong !== ''}
			invalidText={told}
		/>
	</DatePicker>
	{#if name}<Hidden {name} {value} />{/if}
</div>

<style>
	.day :global(.bx--date-picker__input) {
		width: 9rem;
	}
</style>
