<script lang="ts">
	/** What the main thread did, by owner. */
	import MainThread from '$lib/charts/MainThread.svelte';
	import type { PartProps } from './partProps';

	let { data, colours, lines, endMs }: PartProps<'thread'> = $props();
	const end = $derived(Math.max(endMs, ...data.tasks.map(({ startMs, durationMs }) => startMs + durationMs)));
</script>

<MainThread
	tasks={data.tasks}
	times={data.times}
	endMs={end}
	lines={lines.filter(({ name }) => name === 'FCP' || name === 'LCP')}
	{colours}
/>
