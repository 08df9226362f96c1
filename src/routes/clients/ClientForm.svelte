<script lang="ts">
	/** What the agency keeps of a client. */
	import { untrack } from 'svelte';
	import { Button, Checkbox } from 'carbon-components-svelte';
	import { CURRENCIES } from '$core/clients/client';
	import { keepTyped } from '$lib/keepTyped';
	import Choice from '$lib/parts/Choice.svelte';
	import Field from '$lib/parts/Field.svelte';
	import Hidden from '$lib/parts/Hidden.svelte';
	import Notice from '$lib/parts/Notice.svelte';
	import type { ClientDraft } from './clientDraft';
	import MarginRows from './MarginRows.svelte';
	import TargetRows from './TargetRows.svelte';

	interface Props {
		title: string;
		draft: ClientDraft;
		conditions: { id: string; name: string }[];
		issues: { path: string; message: string }[];
	}
	let { title, draft, conditions, issues }: Props = $props();
	let chosen = $state(untrack(() => [...draft.conditions]));
	const issue = (path: string) =>
		issues.find((found) => found.path === path || found.path.startsWith(`${path}.`))?.message ?? '';
	const LANGUAGES = [
		{ value: 'en', text: 'English' },
		{ value: 'es', text: 'Spanish' }
	];
	const currencies = CURRENCIES.map((value) => ({ value: value as string, text: value }));
</script>

<form method="POST" novalidate use:keepTyped>
	<Hidden name="revision" value={draft.revision} />
	<div class="page-top">
		<h1>{title}</h1>
		<Button type="submit" size="field" data-key="r">Save the client</Button>
	</div>
	{#if issues.length}<Notice
			kind="error"
			title="This client was not saved."
			text={issue('') || issue('revision') || 'See the fields that are marked.'}
		/>{/if}
	<div class="cells" style:--cell="24rem">
		<section class="stack">
			<h2>Who it is</h2>
			<Field label="Name" name="name" value={draft.name} wrong={issue('name')} required />
			<Field
				rows={2}
				label="Note"
				name="note"
				value={draft.note}
				wrong={issue('note')}
				placeholder="What it does, what matters to it"
			/>
			<Field
				rows={3}
				label="People to report to"
				name="people"
				value={draft.people}
				wrong={issue('people')}
				help="One a line: name, role, e-mail"
			/>
			<div class="cells" style:--cell="11rem">
				<Choice label="Language of its reports" name="language" options={LANGUAGES} value={draft.language} />
				<Choice label="Currency" name="currency" options={currencies} value={draft.currency} />
			</div>
			<div class="cells" style:--cell="11rem">
				<Field
					label="Name in reports"
					name="reportName"
					value={draft.reportName}
					wrong={issue('reportName')}
					placeholder="as above"
				/>
				<Field
					label="Accent colour in reports"
					name="reportColour"
					value={draft.reportColour}
					wrong={issue('reportColour')}
					placeholder="#1F6F54"
				/>
			</div>
			<div class="cells" style:--cell="11rem">
				<Field
					label="Visits grow by, % a month"
					name="growth"
					value={draft.growth}
					wrong={issue('growth')}
					placeholder="0"
					help="For the month in which a quota ends"
				/>
				<Field
					label="An hour of set-up costs"
					name="hourly"
					value={draft.hourly}
					wrong={issue('hourly')}
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
						bind:group={chosen}
					/>{/each}
			</fieldset>
			<TargetRows json={draft.targets} {conditions} wrong={issue('targets')} />
			<MarginRows json={draft.margins} wrong={issue('margins')} />
			<Field
				rows={2}
				label="Requests that must still leave"
				name="mustSend"
				value={draft.mustSend}
				wrong={issue('mustSend')}
				help="One a line, name: address; * stands for anything. Counting, consent, ads, orders."
				placeholder="Visit counting: *stats.example.test/hit*"
			/>
		</section>
	</div>
</form>
