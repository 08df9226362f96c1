<script lang="ts">
	/** Which pages a block is about. */
	import { Checkbox } from 'carbon-components-svelte';

	interface Props {
		pages: readonly { id: number; url: string }[];
		chosen: readonly number[];
		onchange: (chosen: number[]) => void;
	}
	let { pages, chosen, onchange }: Props = $props();
	const toggle = (id: number, isOn: boolean) =>
		onchange(pages.map((page) => page.id).filter((known) => (known === id ? isOn : chosen.includes(known))));
</script>

<fieldset>
	<legend>Pages</legend>
	{#each pages as { id, url } (id)}
		<Checkbox
			labelText={new URL(url).host + new URL(url).pathname}
			checked={chosen.includes(id)}
			on:check={(event) => toggle(id, event.detail)}
		/>
	{:else}<p class="muted">Choose pages of this client under Pages first.</p>{/each}
</fieldset>

<style>
	fieldset {
		border: none;
		padding: 0;
		margin: 0;
		overflow-wrap: anywhere;
	}
</style>
