<script lang="ts">
	/** Copies of a chart: its values as CSV, its drawing as SVG that stands on its own. */
	import CopyButton from './CopyButton.svelte';

	interface Props {
		csv: () => string;
		/** The drawing; its colours and fonts are written into the copy. */
		svg: () => SVGSVGElement | null | undefined;
		name: string;
	}
	let { csv, svg, name }: Props = $props();
	const KEPT = [
		'fill',
		'stroke',
		'stroke-width',
		'stroke-dasharray',
		'opacity',
		'fill-opacity',
		'font-family',
		'font-size',
		'font-weight',
		'text-anchor'
	];

	function drawing(): string {
		const original = svg();
		if (!original) return '';
		const copy = original.cloneNode(true) as SVGSVGElement;
		const [from, to] = [original.querySelectorAll('*'), copy.querySelectorAll('*')];
		to.forEach((element, i) => {
			const style = getComputedStyle(from[i]!);
			element.setAttribute(
				'style',
				KEPT.map((property) => `${property}:${style.getPropertyValue(property)}`).join(';')
			);
			element.removeAttribute('class');
		});
		copy.setAttribute('xmlns', 'http://www.w3.org/2000/svg');
		const { width, height } = original.getBoundingClientRect();
		copy.setAttribute('width', String(Math.round(width)));
		copy.setAttribute('height', String(Math.round(height)));
		return copy.outerHTML;
	}
</script>

<span class="tools no-print"
	><CopyButton label="Copy as CSV" text={csv} file="{name}.csv" />
	<CopyButton label="Copy as SVG" text={drawing} file="{name}.svg" /></span
>

<style>
	.tools {
		display: inline-flex;
		gap: 0.5rem;
		flex-wrap: wrap;
	}
</style>
