<script lang="ts">
	/** Which trials are listed. The filters live in the address, so that a filtered list can be linked. */
	import { goto } from '$app/navigation';
	import Choice from '$lib/parts/Choice.svelte';
	import FilterBar from '$lib/parts/FilterBar.svelte';
	import { KINDS, STATES } from '$lib/parts/trialNames';

	interface Props {
		filter: { words: string; status: string; kind: string; tone: string; host: string };
		hosts: readonly string[];
		/** How many are listed, of how many. */
		total: number;
		all: number;
	}
	let { filter, hosts, total, all }: Props = $props();
	/** What is typed stays while lists are brought up to date; another address changes it. */
	const askedWords = $derived(filter.words);
	let words = $derived(askedWords);
	let { status, kind, tone, host } = $derived(filter);
	const TONES: Record<string, string> = {
		better: 'Something better',
		worse: 'Something worse',
		mixed: 'Better and worse',
		slight: 'A difference whose size is open',
		same: 'No difference that matters',
		undecided: 'Undecided',
		none: 'No verdict'
	};
	const optionsOf = (names: Record<string, string>) => [
		{ value: '', text: 'All' },
		...Object.entries(names).map(([value, text]) => ({ value, text }))
	];
	const sites = $derived(optionsOf(Object.fromEntries(hosts.map((name) => [name, name]))));

	// “Show all” empties them.
	$effect(() => {
		if (Object.values(filter).every((value) => value === '')) words = status = kind = tone = host = '';
	});
	function show() {
		const values = { q: words.trim(), state: status, kind, verdict: tone, site: host };
		const query = new URLSearchParams(Object.entries(values).filter(([, value]) => value !== ''));
		void goto(`?${query}`, { keepFocus: true, noScroll: true, replaceState: true });
	}
</script>

<FilterBar placeholder="Question, client or address" bind:words onsearch={show}>
	<Choice label="State" options={optionsOf(STATES)} bind:value={status} onchange={show} />
	<Choice label="Kind" options={optionsOf(KINDS)} bind:value={kind} onchange={show} />
	<Choice label="Answer" options={optionsOf(TONES)} bind:value={tone} onchange={show} />
	<Choice label="Site" options={sites} bind:value={host} onchange={show} />
	<span class="muted figures" aria-live="polite">{total} of {all}</span>
</FilterBar>
