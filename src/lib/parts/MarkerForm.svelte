<script lang="ts">
	/** Notes what was changed on a site, and when it went live. */
	import { Button } from 'carbon-components-svelte';
	import type { Form } from '$lib/server/http/form';
	import type { MarkerFields } from '$lib/server/rooms/field/markerForm';
	import { typedForm } from '$lib/typedForm';
	import DayField from './DayField.svelte';
	import Field from './Field.svelte';
	import FileField from './FileField.svelte';

	interface Props {
		form: Form<typeof MarkerFields>;
		submit?: string;
	}
	let { form, submit = 'Note the release' }: Props = $props();
	const { form: typed, wrong, enhance } = typedForm(() => form, { isRepeated: true });
</script>

<form
	method="POST"
	action="?/mark"
	enctype="multipart/form-data"
	class="cells mark no-print"
	style:--cell="12rem"
	novalidate
	use:enhance
>
	<DayField label="Live since" name="day" bind:value={$typed.day} wrong={$wrong('day')} />
	<Field
		label="What was released"
		name="words"
		bind:value={$typed.words}
		wrong={$wrong('words')}
		help="As the client would say it"
	/>
	<Field
		label="Pages whose path begins with"
		name="path"
		bind:value={$typed.path}
		wrong={$wrong('path')}
		help="Empty for the whole site"
	/>
	<FileField label="Settings file" name="file" wrong={$wrong('file')} help="Stays with the release." />
	<Button type="submit" kind="tertiary" size="field">{submit}</Button>
</form>

<style>
	.mark :global(.bx--btn) {
		margin-top: var(--gap-7);
	}
</style>
