<script lang="ts">
	/** A day and a time of that day; what is sent is local time as `2026-11-27T09:30`. */
	import { TimePicker } from 'carbon-components-svelte';
	import { joinMoment, partsOfMoment } from './moment';
	import DayField from './DayField.svelte';
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
		value = typed;
	});
</script>

<div class="moment" role="group" aria-label={label}>
	<DayField label="{label}, day" bind:value={day} {wrong} />
	<TimePicker
		labelText="Time"
		placeholder="09:30"
		size="sm"
		pattern="([01]?[0-9]|2[0-3]):[0-5][0-9]"
		bind:value={time}
	/>
	<Hidden {name} value={typed} />
</div>

<style>
	.moment {
		display: flex;
		gap: var(--gap-5);
		flex-wrap: wrap;
	}
</style>
