<script lang="ts">
	/** Copies text and says so; without a clipboard it offers the text as a file. */
	interface Props {
		text: () => string | Promise<string>;
		label: string;
		file?: string;
	}
	let { text, label, file = 'zafra.csv' }: Props = $props();
	let said = $state('');

	async function copy() {
		const content = await text();
		try {
			await navigator.clipboard.writeText(content);
			said = 'Copied';
		} catch {
			const link = document.createElement('a');
			link.href = URL.createObjectURL(new Blob([content], { type: 'text/plain' }));
			link.download = file;
			link.click();
			URL.revokeObjectURL(link.href);
			said = 'Saved as a file';
		}
		setTimeout(() => (said = ''), 2500);
	}
</script>

<span class="copy no-print"
	><button type="button" onclick={copy}>{label}</button><span role="status">{said}</span></span
>

<style>
	.copy span {
		font-size: 0.86rem;
		color: var(--muted);
		margin-left: 0.4rem;
	}
</style>
