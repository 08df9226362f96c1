<script lang="ts">
	/** What is watched, under which conditions, when, and who hears of it. */
	import { untrack } from 'svelte';
	import { Accordion, AccordionItem, Button, Checkbox, NumberInput, TextArea } from 'carbon-components-svelte';
	import { typedForm } from '$lib/typedForm';
	import { live } from '$lib/live.svelte';
	import type { PageOffer } from '$lib/server/rooms/watch/pageChoice';
	import Choice from './Choice.svelte';
	import Field from './Field.svelte';
	import Hidden from './Hidden.svelte';
	import PagePicker from './PagePicker.svelte';
	import { metricOf } from '$core/metrics/catalogue';
	import { counted } from '$core/wording/format';
	import type { watchChoices, WatchFields } from '$lib/server/rooms/watch/form';
	import type { Form } from '$lib/server/http/form';

	interface Props {
		kind: 'watch' | 'standing';
		data: { choices: ReturnType<typeof watchChoices>; form: Form<typeof WatchFields> };
		submit: string;
		/** An existing one stays with its client. */
		isNew?: boolean;
	}
	let { kind, data, submit, isNew = true }: Props = $props();
	const choices = $derived(data.choices);
	const { form: typed, wrong, enhance } = typedForm(() => data.form);
	let offer = $state.raw(untrack(() => data.choices.offer));
	let pages = $state.raw(untrack(() => data.choices.taken));
	/** Pages of another client, and those that its work looks at. */
	async function offerOf(id: string) {
		const answer = await fetch(`/api/clients/${id}/pages?for=${kind}&offer=1`).catch(() => null);
		if (!answer?.ok) return live.noteUnreachable();
		offer = (await answer.json()) as PageOffer;
		pages = offer.usual;
	}
	const EVERY = [
		{ value: 'week', text: 'Each week, at another weekday and hour' },
		{ value: 'day', text: 'Each day, at another hour' },
		{ value: 'pattern', text: 'By a cron pattern' },
		{ value: 'demand', text: 'On demand' }
	];
	const METRICS: readonly string[] = ['score', 'lcp', 'cls', 'tbt', 'wire', 'fcp', 'ttfb', 'si', 'requests'];
	/** Fields of the part that is closed at first. */
	const HIDDEN = ['notices', 'control', 'schedule.timeZone', 'metrics', 'shown', 'states'];
	/** After its rounds a standing looks at each page twice more for what comes late. */
	const perPage = $derived(($typed.loads ?? 0) + (kind === 'standing' ? 2 : 0));
	const perReading = $derived(pages.length * $typed.conditions.length * perPage);
	/** Measured: a load takes some seconds and its waits. */
	const SECONDS_A_LOAD = 8;
	const minutes = $derived(Math.max(1, Math.round((perReading * SECONDS_A_LOAD) / 60)));
</script>

<form method="POST" class="stack form" novalidate use:enhance>
	{#if isNew}<Choice
			label="Client"
			name="clientId"
			options={choices.clients.map(({ id, name }) => ({ value: String(id), text: name }))}
			bind:value={$typed.clientId}
			onchange={(id) => void offerOf(id)}
		/>{:else}<Hidden name="clientId" value={$typed.clientId} />{/if}
	<Field
		label="Name"
		name="name"
		bind:value={$typed.name}
		wrong={$wrong('name')}
		placeholder={kind === 'watch' ? 'Pages that bring bookings' : 'Booking pages of ferry companies'}
	/>
	<div role="group" aria-label={kind === 'watch' ? 'Pages' : 'Your page, then those of competitors'}>
		<p class="bx--label">{kind === 'watch' ? 'Pages' : 'Your page, then those of competitors'}</p>
		<PagePicker {kind} clientId={$typed.clientId} {offer} bind:pages />
		{#if $wrong('pages')}<p class="wrong" role="alert">{$wrong('pages')}</p>{/if}
	</div>
	{#each pages as { id } (id)}<Hidden name="pages" value={id} />{/each}
	<div role="group" aria-label="Conditions">
		<p class="bx--label">Conditions</p>
		<div class="cells choices" style:--cell="17rem">
			{#each choices.conditions as item (item.id)}<Checkbox
					name="conditions"
					labelText={item.name}
					value={item.id}
					bind:group={$typed.conditions}
				/>{/each}
		</div>
		{#if $wrong('conditions')}<p class="wrong" role="alert">{$wrong('conditions')}</p>{/if}
	</div>
	<Choice label="When" name="every" options={EVERY} bind:value={$typed.every} />
	{#if $typed.every === 'pattern'}<Field
			label="Pattern: minute, hour, day, month, weekday"
			name="pattern"
			bind:value={$typed.pattern}
			wrong={$wrong('schedule.pattern')}
			placeholder="30 6 * * 1,4"
		/>{:else}<Hidden name="pattern" value={$typed.pattern} />{/if}
	<NumberInput
		labelText={kind === 'watch' ? 'Loads of each page in a reading' : 'Rounds of a run'}
		name="loads"
		bind:value={$typed.loads}
		min={kind === 'watch' ? 3 : 8}
		max={20}
		invalid={$wrong('loads') !== ''}
		invalidText={$wrong('loads')}
		helperText={perReading
			? `${counted(perReading, 'load')}, about ${counted(minutes, 'minute')}${kind === 'watch' ? ', and those of the control page; a page that may have moved is loaded 15 times more' : ', two of each page after the rounds to see what comes late'}`
			: ''}
	/>
	<Accordion align="start" size="sm">
		<AccordionItem
			title="Metrics, visitors, notices, {kind === 'watch' ? 'control page' : 'elements'}, time zone"
			open={HIDDEN.some((path) => $wrong(path) !== '')}
		>
			<div class="stack more">
				<div role="group" aria-label="Metrics that are called">
					<p class="bx--label">Metrics that are called</p>
					<div class="cells choices" style:--cell="17rem">
						{#each METRICS as id (id)}<Checkbox
								name="metrics"
								labelText={metricOf(id).name}
								value={id}
								bind:group={$typed.metrics}
							/>{/each}
					</div>
				</div>
				{#if kind === 'standing'}<TextArea
						labelText="Elements whose appearing is timed and ranked"
						name="shown"
						rows={3}
						bind:value={$typed.shown}
						invalid={$wrong('shown') !== ''}
						invalidText={$wrong('shown')}
						helperText="A line each: a name, =, a selector that fits on all pages. Timed when first seen
							in the first screen."
						placeholder="Search form = form.search, #finder"
					/>{/if}
				{#if kind === 'watch'}<Field
						label="Control page"
						name="control"
						bind:value={$typed.control}
						wrong={$wrong('control')}
						help="A page at the same place that nobody changes. Empty: the one that ships with Zafra."
						type="url"
					/>{/if}
				{#each offer.sites.filter(({ states }) => states.length) as site (site.id)}<Choice
						label="Visitor of {site.name}"
						name="states"
						options={[
							{ value: 0, text: 'Anonymous' },
							...site.states.map(({ id, name }) => ({ value: id, text: name }))
						]}
						value={site.states.find(({ id }) => $typed.states.includes(String(id)))?.id ?? 0}
					/>{/each}
				{#if $wrong('states')}<p class="wrong" role="alert">{$wrong('states')}</p>{/if}
				<Field
					label="Mail to"
					name="mail"
					bind:value={$typed.mail}
					wrong={$wrong('notices.mail')}
					help="Addresses, with commas between them"
				/>
				<Field
					label="Webhook"
					name="hook"
					bind:value={$typed.hook}
					wrong={$wrong('notices.hook')}
					help="Each notice is posted here as JSON, signed"
					type="url"
				/>
				<Field
					label="Time zone"
					name="timeZone"
					bind:value={$typed.timeZone}
					wrong={$wrong('schedule.timeZone')}
					help="For example Europe/London"
				/>
			</div>
		</AccordionItem>
	</Accordion>
	<div><Button type="submit">{submit}</Button></div>
</form>

<style>
	.form {
		margin-top: var(--gap-5);
		max-width: 40rem;
	}
	.choices {
		max-height: 15rem;
		overflow-y: auto;
	}
	.wrong {
		color: var(--worse);
		font-size: var(--type-3);
		margin: var(--gap-2) 0 0;
	}
</style>
