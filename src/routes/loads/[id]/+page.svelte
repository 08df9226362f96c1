<script lang="ts">
	import { onMount } from 'svelte';
	import { metricOf } from '$core/metrics/catalogue';
	import type { LoadRecord } from '$core/load/record/record';
	import { frameShowing } from '$core/load/vitals/visual';
	import { requestsCsv } from '$core/formats/requestsCsv';
	import LoadTimeline from '$lib/charts/LoadTimeline.svelte';
	import { ownerColours } from '$lib/charts/ownerColour';
	import { asked, goToSection, keep } from '$lib/fragment';
	import Lazy from '$lib/parts/Lazy.svelte';
	import Part from '$lib/parts/Part.svelte';
	import Sheet from '$lib/parts/Sheet.svelte';
	import Circumstances from './Circumstances.svelte';
	import Figures from './Figures.svelte';
	import Head from './Head.svelte';
	import { fetchPart, isFetched } from './lazyParts';
	import { PART_NAMES } from './partNames';

	let { data, form } = $props();
	/** A link to another place of the same sheet makes its parts read the address again. */
	let hashes = $state(0);
	const record = $derived(data.record);
	const device = $derived(record.conditions?.device ?? { width: 1420, height: 800 });
	const siteHost = $derived(new URL(record.finalUrl || record.url).host);
	const { shares, tasks, times } = $derived(data);
	const { requests } = $derived(data);
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
			...tasks.map((task) => task.startMs + task.durationMs),
			...lines.map((line) => line.atMs)
		)
	);
	const frameUrl = $derived((index: number) => `/api/loads/${data.load.id}/frames/${index + 1}`);
	/** Which frame holds LCP, and which each shift. */
	const frameNotes = $derived(
		[
			...(record.lcp ? [{ frame: frameShowing(record.frames, record.lcp.atMs), words: 'LCP' }] : []),
			...record.shifts
				.filter((shift) => shift.value >= 0.0005)
				.map((shift) => ({ frame: frameShowing(record.frames, shift.atMs), words: 'shift' }))
		].filter((note) => note.frame >= 0)
	);
	const detailsUrl = $derived((number: number) => `/api/loads/${data.load.id}/requests/${number}`);
	const onchange = (values: Record<string, string>) => keep('timeline', values);
	const timeline = $derived({
		requests,
		frames: record.frames,
		frameUrl,
		frameRatio: device.height / device.width,
		lines,
		shares,
		colours,
		frameNotes,
		calm: record.environment.calm,
		calmWords: data.calm,
		detailsUrl,
		csv: csvOfRequests,
		onchange
	});
	const margin = $derived(data.parts.map(({ id }) => ({ id, name: PART_NAMES[id] })));
	/** What each part takes that is fetched when it is opened. */
	const propsOf = {
		steps: () => ({ steps: record.steps, picture: `/api/loads/${data.load.id}/step-picture` }),
		picture: () => ({
			picture: `/api/loads/${data.load.id}/picture`,
			width: device.width,
			height: device.height,
			lcp: record.lcp,
			shifts: record.shifts,
			asked: asked('picture'),
			onchange: (values: Record<string, string>) => keep('picture', values)
		}),
		frames: () => ({ data, device, frameUrl, frameNotes }),
		weight: () => ({ requests: requests.filter((request) => request.during === 'load'), shares, colours }),
		thread: () => ({
			tasks,
			times,
			endMs,
			lines: lines.filter((line) => line.name === 'FCP' || line.name === 'LCP'),
			colours
		}),
		held: () => ({ data }),
		outages: () => ({ outages: data.outages, figures: record.figures }),
		taps: () => ({ taps: data.taps, form }),
		identity: () => ({ identity: data.identity }),
		checks: () => ({ view: data, figures: record.figures, form }),
		facts: () => ({
			page: record.page,
			requests,
			marks: record.marks,
			pixelRatio: record.conditions?.device.pixelRatio ?? 1
		})
	};
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
					<LoadTimeline {...timeline} asked={asked('timeline')} />
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
			printed={part.id === 'figures' || part.id === 'circumstances'}
			prefetch={() => void (isFetched(part.id) && fetchPart(part.id))}
		>
			{#if isFetched(part.id)}
				{@const Shown = data.opened[part.id]}
				{@const id = part.id}
				{#key id === 'picture' && hashes}
					{#if Shown}<Shown {...propsOf[id]()} />{:else}<Lazy
							load={() => fetchPart(id)}
							props={propsOf[id]()}
						/>{/if}
				{/key}
			{:else}
				{@const Shown = part.id === 'figures' ? Figures : Circumstances}
				<Shown {data} />
			{/if}
		</Part>
	{/each}
</Sheet>
