<script lang="ts">
	/** What each variant runs on, to be written down. */
	import { Button } from 'carbon-components-svelte';
	import type { PublicArm } from '$core/trial/design/publicArm';
	import { keepTyped } from '$lib/keepTyped';
	import Hidden from '$lib/parts/Hidden.svelte';
	import SetupEditor from '$lib/parts/SetupEditor.svelte';

	let { arms }: { arms: PublicArm[] } = $props();
</script>

{#each arms as arm (arm.id)}
	<form method="POST" action="?/setup" use:keepTyped class="edit no-print">
		<Hidden name="arm" value={arm.id} />
		<SetupEditor
			name="setup"
			setup={arm.setup ?? null}
			label="{arm.page ? `${arm.page}, ` : ''}{arm.name}"
			isOpen
		/>
		<Button type="submit" size="small" kind="tertiary">Save for “{arm.name}”</Button>
	</form>
{/each}

<style>
	.edit {
		margin: var(--gap-4) 0 var(--gap-6);
	}
</style>
