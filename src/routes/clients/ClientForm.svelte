<script lang="ts">
	/** What the agency keeps of a client. */
	import { Button, Checkbox } from 'carbon-components-svelte';
	import { CURRENCIES } from '$core/clients/client';
	import { typedForm } from '$lib/typedForm';
	import Choice from '$lib/parts/Choice.svelte';
	import Field from '$lib/parts/Field.svelte';
	import Hidden from '$lib/parts/Hidden.svelte';
	import Notice from '$lib/parts/Notice.svelte';
	import type { ClientFields } from '$lib/server/rooms/clients/form';
	import type { Form } from '$lib/server/http/form';
	import MarginRows from './MarginRows.svelte';
	import TargetRows from './TargetRows.svelte';

	interface Props {
		title: string;
		form: Form<typeof ClientFields>;
		conditions: { id: string; name: string }[];
	}
	let { title, form, conditions }: Props = $props();
	const { form: typed, wrong, atFields, enhance } = typedForm(() => form, { isNested: true });
	const LANGUAGES = [
		{ value: 'en', text: 'English' },
		{ value: 'es', text: 'Spanish' }
	];
	const currencies = CURRENCIES.map((value) => ({ value: value as string, text: value }));
</script>

<form method="POST" novalidate use:enhance>
	<Hidden name="revision" value={$typed.revision} />
	<div class="page-top">
		<h1>{title}</h1>
		<Button type="submit" size="field" data-key="r">Save the client</Button>
	</div>
	{#if $atFields}<Notice
			kind="error"
			title="This client was not saved."
			text={$wrong('revision') || 'See the fields that are marked.'}
		/>{/if}
	<div class="cells" style:--cell="24rem">
		<section class="stack">
			<h2>Who it is</h2>
			<Field label="Name" name="name" bind:value={$typed.name} wrong={$wrong('name')} required />
			<Field
				rows={2}
				label="Note"
				name="note"
				bind:value={$typed.note}
				wrong={$wrong('note')}
				placeholder="What it does, what matters to it"
			/>
			<Field
				rows={3}
				label="People to report to"
				name="people"
				bind:value={$typed.people}
				wrong={$wrong('people')}
				help="One a line: name, role, e-mail"
			/>
			<div class="cells" style:--cell="11rem">
				<Choice
					label="Language of its reports"
					name="language"
					options={LANGUAGES}
					bind:value={$typed.language}
				/>
				<Choice label="Currency" name="currency" options={currencies} bind:value={$typed.currency} />
			</div>
			<div class="cells" style:--cell="11rem">
				<Field
					label="Name in reports"
					name="reportName"
					bind:value={$typed.reportName}
					wrong={$wrong('reportName')}
					placeholder="as above"
				/>
				<Field
					label="Accent colour in reports"
					name="reportColour"
					bind:value={$typed.reportColour}
					wrong={$wrong('reportColour')}
					placeholder="#1F6F54"
				/>
			</div>
			<div class="cells" style:--cell="11rem">
				<Field
					label="Visits grow by, % a month"
					name="growth"
					bind:value={$typed.growth}
					wrong={$wrong('growth')}
					placeholder="0"
					help="For the month in which a quota ends"
				/>
				<Field
					label="An hour of set-up costs"
					name="hourly"
					bind:value={$typed.hourly}
					wrong={$wrong('hourly')}
					placeholder="0"
				/>
			</div>
		</section>
		<section class="stack">
			<h2>What its trials have</h2>
			<p class="muted small">Each trial takes a copy when it is made, and can say otherwise.</p>
			<fieldset>
				<legend>Usual conditions</legend>
				{#each conditions as { id, name } (id)}<Checkbox
						name="conditions"
						value={id}
						labelText={name}
						bind:group={$typed.conditions}
					/>{/each}
			</fieldset>
			<TargetRows form={typed} {conditions} wrong={$wrong('targets')} />
			<MarginRows form={typed} wrong={$wrong('margins')} />
			<Field
				rows={2}
				label="Requests that must still leave"
				name="mustSend"
				bind:value={$typed.mustSend}
				wrong={$wrong('mustSend')}
				help="One a line, name: address; * stands for anything. Counting, consent, ads, orders."
				placeholder="Visit counting: *stats.example.test/hit*"
			/>
		</section>
	</div>
</form>
