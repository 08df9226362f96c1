<script lang="ts">
	/** The next step of a log: only what was changed is asked. */
	import { Button } from 'carbon-components-svelte';
	import { keepTyped } from '$lib/keepTyped';
	import Field from '$lib/parts/Field.svelte';
	import FileField from '$lib/parts/FileField.svelte';
	import Hidden from '$lib/parts/Hidden.svelte';

	interface Props {
		/** The step that was taken back. */
		undone: string | null;
		done: () => void;
	}
	let { undone, done }: Props = $props();
</script>

<form
	method="POST"
	action="?/step"
	enctype="multipart/form-data"
	class="stack no-print"
	use:keepTyped={{ done }}
>
	{#if undone}
		<Hidden name="takesBack" value="on" />
		<p>
			“{undone}” is taken back on the site? The page is measured without it, so that the next step is compared
			with what is there.
		</p>
	{/if}
	<Field
		label="What was changed?"
		name="words"
		placeholder={undone ? `“${undone}” taken back` : 'Larder joins all scripts'}
		help="A few words: they name the step."
	/>
	<Field
		label="What must be there, or gone"
		name="checks"
		rows={2}
		placeholder="header x-cache: hit"
		help="One check a line. A step whose change did not take effect is held, not judged."
	/>
	<FileField label="Settings file" name="file" help="Stays with the step." />
	<div class="buttons"><Button type="submit" size="field">Measure this step</Button></div>
</form>
