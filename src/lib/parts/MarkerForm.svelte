<script lang="ts">
	/** Notes what was changed on a site, and when it went live. */
	import { Button } from 'carbon-components-svelte';
	import { keepTyped } from '$lib/keepTyped';
	import DayField from './DayField.svelte';
	import Field from './Field.svelte';
	import FileField from './FileField.svelte';

	interface Props {
		/** Of the page that is looked at: what is offered for the pages it concerns. */
		path: string;
		form: {
			typed?: { day: string; words: string; path: string };
			issues?: { path: string; message: string }[];
		} | null;
		submit?: string;
	}
	let { path, form, submit = 'Note the release' }: Props = $props();
	const wrong = (field: string) => form?.issues?.find((issue) => issue.path === field)?.message ?? '';
</script>

<form
	method="POST"
	action="?/mark"
	enctype="multipart/form-data"
	class="cells mark no-print"
	style:--cell="12rem"
	novalidate
	use:keepTyped
>
	<DayField label="Live since" name="day" value={form?.typed?.day ?? ''} wrong={wrong('day')} />
	<Field
		label="What was released"
		name="words"
		value={form?.typed?.words ?? ''}
		wrong={wrong('words')}
		help="As the client would say it"
	/>
	<Field
		label="Pages whose path begins with"
		name="path"
		value={form?.typed?.path ?? path}
		wrong={wrong('path')}
		help="Empty for the whole site"
	/>
	<FileField label="Settings file" name="file" help="Stays with the release." />
	<Button type="submit" kind="tertiary" size="field">{submit}</Button>
</form>

<style>
	.mark :global(.bx--btn) {
		margin-top: var(--gap-7);
	}
</style>
