<script lang="ts">
	/** A day and a time of that day; what is sent is local time as `2026-11-27T09:30`. */
	import { joinMoment, partsOfMoment } from './moment';
	import DayField from './DayField.svelte';
	import Field from './Field.svelte';
	import Hidden from './Hidden.svelte';

	interface Props {
		label: string;
		name: string;
		value?: string;
		/** What is wrong with it; empty when nothing is. */
		wrong?: string;
	}
	let { label, name, value = $bindable(''), wrong = '' }: Props = $props();
	let { day, time } = $state(partsOfMoment(value));
	const typed = $derived(joinMoment(day, time));

	$effect(() => {
		if (value !== typed) value = typed;
	});
</script>

<div class="row" role="group" aria-label={label}>
	<DayField label="{label}, day" bind:value={day} {wrong} />
	<Field label="Time" placeholder="09:30" size="sm" bind:value={time} />
	<Hidden {name} value={typed} />
</div>
