<script lang="ts">
	/** What a site's script reports. */
	import { Button } from 'carbon-components-svelte';
	import { FIELD_METRICS } from '$core/field/histogram';
	import { metricOf } from '$core/metrics/catalogue';
	import type { VisitSettings } from '$core/field/visitSettings';
	import { keepTyped } from '$lib/keepTyped';
	import Field from '$lib/parts/Field.svelte';
	import Hidden from '$lib/parts/Hidden.svelte';

	interface Typed {
		sampling: string;
		timings: string;
		goals: string;
		keepDays: string;
		timeZone: string;
		call: string;
		nameField: string;
		valueField: string;
		quietField: string;
		events: Record<string, string>;
	}
	interface Props {
		siteId: number;
		settings: VisitSettings;
		timings: string;
		form: { typed?: Typed; issues?: { path: string; message: string }[] } | null;
	}
	let { siteId, settings, timings, form }: Props = $props();
	const wrong = (field: string) =>
		form?.issues?.find(({ path }) => path === field || path.startsWith(`${field}.`))?.message ?? '';
	const saved = $derived<Typed>({
		sampling: String(Number((settings.sampling * 100).toFixed(2))),
		timings,
		goals: settings.goals.join(', '),
		keepDays: settings.keepDays === null ? '' : String(settings.keepDays),
		timeZone: settings.timeZone,
		call: settings.handOver?.call ?? '',
		nameField: settings.handOver?.nameField ?? 'event',
		valueField: settings.handOver?.valueField ?? 'value',
		quietField: settings.handOver?.quietField ?? 'nonInteraction',
		events: (settings.handOver?.events as Record<string, string> | undefined) ?? {}
	});
	const shown = $derived(form?.typed ?? saved);
</script>

<form method="POST" action="?/save" novalidate use:keepTyped>
	<Hidden name="site" value={siteId} />
	<div class="cells" style:--cell="13rem">
		<Field
			label="Page views that report, %"
			name="sampling"
			value={shown.sampling}
			wrong={wrong('sampling')}
			help="Of a busy site a share is enough"
		/>
		<Field
			label="Keep histograms for, days"
			name="keepDays"
			value={shown.keepDays}
			wrong={wrong('keepDays')}
			help="Empty: for ever. Single page views go after 7 days"
		/>
		<Field
			label="Time zone of the site"
			name="timeZone"
			value={shown.timeZone}
			wrong={wrong('timeZone')}
			help="For example Europe/London"
		/>
		<Field
			label="Goals"
			name="goals"
			value={shown.goals}
			wrong={wrong('goals')}
			help="Names, by comma. The page says: (window.zafraGoals ??= []).push('booked')"
		/>
	</div>
	<Field
		label="Custom timings"
		name="timings"
		rows={3}
		value={shown.timings}
		wrong={wrong('timings')}
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
			value={shown.call}
			wrong={wrong('call')}
			placeholder="counter.note"
			help="Empty: nothing is handed over"
		/>
		<Field label="Field of the name" name="nameField" value={shown.nameField} wrong={wrong('nameField')} />
		<Field label="Field of the value" name="valueField" value={shown.valueField} wrong={wrong('valueField')} />
		<Field
			label="Field of “no interaction”"
			name="quietField"
			value={shown.quietField}
			wrong={wrong('quietField')}
		/>
		{#each FIELD_METRICS as id (id)}
			<Field
				label="Event for {metricOf(id).short}"
				name="event-{id}"
				value={shown.events[id] ?? ''}
				wrong={wrong(`events.${id}`)}
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
