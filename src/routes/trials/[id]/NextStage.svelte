<script lang="ts">
	/** What was changed, before the next stage is started. */
	import { Button } from 'carbon-components-svelte';
	import { enhance } from '$app/forms';

	interface Props {
		/** Name of the next stage. */
		stage: string;
	}
	let { stage }: Props = $props();
</script>

<form method="POST" action="?/start" enctype="multipart/form-data" class="stage panel no-print" use:enhance>
	<h2>Next stage: {stage}</h2>
	<label
		>What was changed? <textarea
			name="change"
			rows="2"
			placeholder="Larder 3.2 switched on, all settings as they ship"></textarea></label
	>
	<label>Settings file, kept with the trial <input type="file" name="file" /></label>
	<Button type="submit" data-key="r">Start “{stage}”</Button>
</form>

<style>
	.stage {
		margin-bottom: 1.4rem;
		display: grid;
		gap: 0.6rem;
		justify-items: start;
	}
	label {
		font-size: 0.9rem;
		color: var(--muted);
	}
	.stage label,
	.stage textarea {
		width: 100%;
		display: block;
	}
</style>
