<script lang="ts">
	import { onMount } from 'svelte';
	import { InlineLoading } from 'carbon-components-svelte';
	import { metricOf } from '$core/metrics/catalogue';
	import type { LoadRecord } from '$core/load/record/record';
	import { requestsCsv } from '$core/formats/requestsCsv';
	import LoadTimeline from '$lib/charts/LoadTimeline.svelte';
	import { ownerColours } from '$lib/charts/ownerColour';
	import { goToSection, readSection, saveSection } from '$lib/fragment';
	import Part from '$lib/parts/Part.svelte';
	import Sheet from '$lib/parts/Sheet.svelte';
	import Head from './Head.svelte';
	import { PART_NAMES } from './partNames';

	let { data } = $props();
	/** A link to another place of the same sheet makes its parts read the address again. */
	let hashes = $state(0);
	const record = $derived(data.record);
	const device = $derived(record.conditions?.device ?? { width: 1420, height: 800 });
	const siteHost = $derived(new URL(record.finalUrl || record.url).host);
	const { shares, requests, frameNotes } = $derived(data);
	const colours = $derived(ownerColours(shares));
	const LINES = ['ttfb', 'fcp', 'lcp', 'onload', 'full'] as const;
	const lines = $derived(
		LINES.flatMap((id) =>
			record.figures[id] === null ? [] : [{ name: metricOf(id).short, atMs: record.figures[id] }]
		)
	);
	const endMs = $derived(
		Math.max(
			100,
			...requests.map((request) => request.endMs ?? request.startMs),
			...record.frames.map((frame) => frame.atMs),
			...lines.map((line) => line.atMs)
		)
	);
	const frameUrl = $derived((index: number) => `/api/loads/${data.load.id}/frames/${index + 1}`);
	const detailsUrl = $derived((number: number) => `/api/loads/${data.load.id}/requests/${number}`);
	const onchange = (values: Record<string, string>) => saveSection('timeline', values);
	const timeline = $derived({
		requests,
		frames: record.frames,
		frameUrl,
		frameRatio: device.height / device.width,
		lines,
		shares,
		colours,
		frameNotes,
		calm: record.calm,
		calmWords: data.calm,
		detailsUrl,
		csv: csvOfRequests,
		onchange
	});
	const margin = $derived(data.parts.map(({ id }) => ({ id, name: PART_NAMES[id] })));
	/** What every part may need. */
	const shared = $derived({ device, colours, frameUrl, lines, endMs, tapForm: data.tapForm });
	/** The list holds but a part of each request; a CSV wants all. */
	async function csvOfRequests(numbers: ReadonlySet<number>): Promise<string> {
		const { ownedRequests } = await import('$core/load/requests/ownedRequests');
		const whole = (await (await fetch(`/api/loads/${data.load.id}`)).json()) as LoadRecord;
		return requestsCsv(
			ownedRequests(whole.requests, siteHost, data.cdnHosts).filter(({ number }) => numbers.has(number))
		);
	}

	onMount(() => setTimeout(goToSection, 50));
</script>

<svelte:head><title>Load of {record.url} – Zafra</title></svelte:head>

<svelte:window
	onhashchange={() => {
		hashes++;
		setTimeout(goToSection, 50);
	}}
/>
<Sheet parts={margin}>
	{#snippet first()}
		<Head {data} />
		{#if requests.length}
			<section id="timeline" aria-label="Timeline">
				{#key hashes}
					<LoadTimeline {...timeline} asked={readSection('timeline')} />
				{/key}
			</section>
		{/if}
	{/snippet}

	{#each data.parts as part (part.id)}
		<Part
			id={part.id}
			title={PART_NAMES[part.id]}
			finding={part.finding}
			tone={part.isTrouble ? 'trouble' : 'plain'}
		>
			{@const Shown = data.components[part.id]}
			{#key part.id === 'picture' && hashes}
				{#if Shown}<Shown data={{ ...data, ...data.shown[part.id] }} {...shared} />{:else}<InlineLoading
						description="Fetched …"
					/>{/if}
			{/key}
		</Part>
	{/each}
</Sheet>
