<script lang="ts">
	/** What a site's script reports. */
	import { Button } from 'carbon-components-svelte';
	import { FIELD_METRICS } from '$core/field/histogram';
	import { metricOf } from '$core/metrics/catalogue';
	import type { Form } from '$lib/server/http/form';
	import type { SettingsFields } from '$lib/server/rooms/visits/settingsForm';
	import { typedForm } from '$lib/typedForm';
	import Field from '$lib/parts/Field.svelte';
	import Hidden from '$lib/parts/Hidden.svelte';

	interface Props {
		form: Form<typeof SettingsFields>;
	}
	let { form }: Props = $props();
	const { form: typed, wrong, enhance } = typedForm(() => form, { isNested: true });
</script>

<form method="POST" action="?/save" novalidate use:enhance>
	<Hidden name="site" value={$typed.site} />
	<div class="cells" style:--cell="13rem">
		<Field
			label="Page views that report, %"
			name="sampling"
			bind:value={$typed.sampling}
			wrong={$wrong('sampling')}
			help="Of a busy site a share is enough"
		/>
		<Field
			label="Keep histograms for, days"
			name="keepDays"
			bind:value={$typed.keepDays}
			wrong={$wrong('keepDays')}
			help="Empty: for ever. Single page views go after 7 days"
		/>
		<Field
			label="Time zone of the site"
			name="timeZone"
			bind:value={$typed.timeZone}
			wrong={$wrong('timeZone')}
			help="For example Europe/London"
		/>
		<Field
			label="Goals"
			name="goals"
			bind:value={$typed.goals}
			wrong={$wrong('goals')}
			help="Names, by comma. The page says: (window.zafraGoals ??= []).push('booked')"
		/>
	</div>
	<Field
		label="Custom timings"
		name="timings"
		rows={3}
		bind:value={$typed.timings}
		wrong={$wrong('timings')}
		help="User Timing marks and measures, one a line: name, good and poor in ms, smallest change that matters"
	/>
	<h3>Hand-over to the page’s own analytics</h3>
	<p class="muted small">
		A function of the page is called with one event a metric: whole numbers (layout shift times 1,000), marked
		as no interaction, so that bounce figures stay as they are.
	</p>
	<div class="cells" style:--cell="13rem">
		<Field
			label="Function"
			name="call"
			bind:value={$typed.call}
			wrong={$wrong('call')}
			placeholder="counter.note"
			help="Empty: nothing is handed over"
		/>
		<Field
			label="Field of the name"
			name="nameField"
			bind:value={$typed.nameField}
			wrong={$wrong('nameField')}
		/>
		<Field
			label="Field of the value"
			name="valueField"
			bind:value={$typed.valueField}
			wrong={$wrong('valueField')}
		/>
		<Field
			label="Field of “no interaction”"
			name="quietField"
			bind:value={$typed.quietField}
			wrong={$wrong('quietField')}
		/>
		{#each FIELD_METRICS as id (id)}
			<Field
				label="Event for {metricOf(id).short}"
				name="events.{id}"
				bind:value={$typed.events[id]}
				wrong={$wrong(`events.${id}`)}
			/>
		{/each}
	</div>
	<Button type="submit" size="field">Save the script’s settings</Button>
</form>

<style>
	form {
		display: grid;
		gap: var(--gap-6);
	}
	form :global(.bx--btn) {
		justify-self: start;
	}
</style>
