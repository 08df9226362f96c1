<script lang="ts">
	/** One small menu for what can be taken from a chart: its values, and its drawing. */
	import { OverflowMenu, OverflowMenuItem } from 'carbon-components-svelte';
	import { copyText, drawnSvg, savePng } from './chartCopies';

	interface Props {
		name: string;
		csv: () => string | Promise<string>;
		/** The drawing as text, or the element that is drawn; nothing for a chart of pictures. */
		svg?: () => string | SVGSVGElement | null | undefined;
	}
	let { name, csv, svg }: Props = $props();
	let said = $state('');

	async function tell(work: () => Promise<string>) {
		said = await work();
		setTimeout(() => (said = ''), 2500);
	}
	const drawing = () => {
		const drawn = svg?.();
		return typeof drawn === 'string' ? drawn : drawnSvg(drawn);
	};
</script>

<span class="chart-menu no-print"
	><span role="status">{said}</span><OverflowMenu
		size="sm"
		flipped
		iconDescription="Copy this chart"
		aria-label="Copy this chart"
	>
		<OverflowMenuItem
			text="Copy as CSV"
			on:click={() => tell(async () => copyText(await csv(), `${name}.csv`))}
		/>
		{#if svg}
			<OverflowMenuItem text="Copy as SVG" on:click={() => tell(() => copyText(drawing(), `${name}.svg`))} />
			<OverflowMenuItem text="Save as PNG" on:click={() => tell(() => savePng(drawing(), `${name}.png`))} />
		{/if}
	</OverflowMenu></span
>

<style>
	.chart-menu {
		display: inline-flex;
		align-items: center;
		gap: var(--gap-3);
	}
	span[role='status'] {
		font-size: var(--type-3);
		color: var(--muted);
		font-weight: 400;
	}
</style>
