<script lang="ts">
	/** What was changed, before the next stage is started. */
	import { Button } from 'carbon-components-svelte';
	import { keepTyped } from '$lib/keepTyped';
	import Field from '$lib/parts/Field.svelte';
	import FileField from '$lib/parts/FileField.svelte';

	interface Props {
		/** Name of the next stage. */
		stage: string;
	}
	let { stage }: Props = $props();
</script>

<form
	method="POST"
	action="?/start"
	enctype="multipart/form-data"
	class="stack stage panel no-print"
	use:keepTyped
>
	<h2>Next stage: {stage}</h2>
	<Field
		label="What was changed?"
		name="change"
		rows={2}
		placeholder="Larder 3.2 switched on, all settings as they ship"
	/>
	<FileField label="Settings file" name="file" help="Stays with the trial." />
	<Button type="submit" data-key="r">Start “{stage}”</Button>
</form>

<style>
	.stage {
		margin-bottom: var(--gap-7);
	}
</style>
