<script lang="ts">
	/** The finished page, with what its figures are about drawn on it. */
	import PagePicture from '$lib/charts/PagePicture.svelte';
	import { asked, keep } from '$lib/fragment';
	import type { PartProps } from './partProps';

	let { data, device }: PartProps<'picture'> = $props();
</script>

<PagePicture
	picture="/api/loads/{data.load.id}/picture"
	width={device.width}
	height={device.height}
	lcp={data.lcp}
	shifts={data.shifts}
	asked={asked('picture')}
	onchange={(values) => keep('picture', values)}
/>
