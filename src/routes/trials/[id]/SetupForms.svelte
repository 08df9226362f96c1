<script lang="ts">
	/** What each variant runs on, to be written down. */
	import { untrack } from 'svelte';
	import { Button } from 'carbon-components-svelte';
	import type { PublicArm } from '$core/trial/design/publicArm';
	import { keepTyped } from '$lib/keepTyped';
	import Hidden from '$lib/parts/Hidden.svelte';
	import { typedSetup } from '$lib/parts/setupDraft';
	import SetupEditor from '$lib/parts/SetupEditor.svelte';

	let { arms }: { arms: PublicArm[] } = $props();
	let setups = $state(untrack(() => arms.map(({ setup }) => typedSetup(setup ?? null))));
</script>

{#each arms as arm, i (arm.id)}
	<form method="POST" action="?/setup" use:keepTyped class="edit no-print">
		<Hidden name="arm" value={arm.id} />
		<SetupEditor
			name="setup"
			setup={setups[i]!}
			change={(setup) => (setups[i] = setup)}
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
