<script lang="ts">
	/** The finished page, with what its figures are about drawn on it. */
	import PagePicture from '$lib/charts/PagePicture.svelte';
	import { readSection, saveSection } from '$lib/fragment';
	import type { PartProps } from './partProps';

	let { data, device }: PartProps<'picture'> = $props();
</script>

<PagePicture
	picture="/api/loads/{data.load.id}/picture"
	width={device.width}
	height={device.height}
	lcp={data.lcp}
	shifts={data.shifts}
	asked={readSection('picture')}
	onchange={(values) => saveSection('picture', values)}
/>
