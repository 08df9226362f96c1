<script lang="ts">
	import { Button } from 'carbon-components-svelte';
	import { copyText } from './chartCopies';

	/** Copies text and says so; without a clipboard it offers the text as a file. */
	interface Props {
		text: () => string | Promise<string>;
		label: string;
		file?: string;
	}
	let { text, label, file = 'zafra.csv' }: Props = $props();
	let said = $state('');

	async function copy() {
		said = await copyText(await text(), file);
		setTimeout(() => (said = ''), 2500);
	}
</script>

<span class="copy no-print"
	><Button kind="ghost" size="small" on:click={copy}>{label}</Button><span role="status">{said}</span></span
>

<style>
	.copy span {
		font-size: var(--type-3);
		color: var(--muted);
		margin-left: var(--gap-3);
	}
</style>
