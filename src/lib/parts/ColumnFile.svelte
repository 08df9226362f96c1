<script lang="ts" generics="Result">
	/** A table of any program: its columns are told apart here, before it is sent. */
	import { Button } from 'carbon-components-svelte';
	import { invalidateAll } from '$app/navigation';
	import { sendFile } from '$lib/upload';
	import Choice from './Choice.svelte';
	import FileField from './FileField.svelte';
	import Notice from './Notice.svelte';
	import { columnsQuery, firstLines, type FirstLines } from './tableColumns';

	interface Props {
		label: string;
		/** What the columns may say; the first must be there. */
		fields: readonly { key: string; name: string }[];
		/** Places of the columns that their names suggest; empty for none. */
		guess: (head: readonly string[]) => Record<string, string>;
		/** The API's call, and what its query has beside the columns. */
		url: string;
		query?: Record<string, string>;
		/** What came of it. */
		wordsOf: (result: Result) => { title: string; text: string };
	}
	let { label, fields, guess, url, query = {}, wordsOf }: Props = $props();
	let file = $state<File | null>(null);
	let lines = $state<FirstLines | null>(null);
	let places = $state<Record<string, string>>({});
	let problem = $state('');
	let words = $state<{ title: string; text: string } | null>(null);
	let isSending = $state(false);

	const head = $derived(lines?.rows[lines.header] ?? []);
	/** The first line below the heading. */
	const first = $derived(lines?.rows[lines.header + 1] ?? []);
	async function choose(chosen: File) {
		[file, problem, words] = [chosen, '', null];
		lines = await firstLines(chosen, (cells) => Boolean(guess(cells)[fields[0]!.key]));
		places = guess(head);
	}
	function setHeader(place: string) {
		lines = { ...lines!, header: Number(place) };
		places = guess(head);
	}
	async function send() {
		isSending = true;
		const { answer, problem: trouble } = await sendFile<Result>(
			`${url}?${columnsQuery({ ...query, ...places, header: String(lines!.header) })}`,
			file!
		);
		isSending = false;
		problem = trouble;
		words = answer && wordsOf(answer);
		if (!answer) return;
		[file, lines] = [null, null];
		await invalidateAll();
	}
	const options = $derived([
		{ value: '', text: 'none' },
		...head.map((name, i) => ({ value: String(i), text: name || `column ${i + 1}` }))
	]);
	const example = (key: string) => (places[key] ? (first[Number(places[key])] ?? '') : '');
	const headings = $derived(
		(lines?.rows ?? []).map((cells, i) => ({
			value: String(i),
			text: `${i + 1}: ${cells.join(' | ').slice(0, 60)}`
		}))
	);
</script>

<div class="stack">
	<FileField
		label={file ? 'Another file' : label}
		accept={['.csv', '.tsv', '.txt']}
		onfile={choose}
		help={file?.name ?? ''}
	/>
	{#if lines}
		<Choice label="Line of the heading" options={headings} value={String(lines.header)} onchange={setHeader} />
		<div class="cells columns" style:--cell="8rem">
			{#each fields as { key, name } (key)}
				<div>
					<Choice
						label={name}
						{options}
						bind:value={() => places[key] ?? '', (place) => (places[key] = place)}
					/>
					<span class="muted small">{example(key)}</span>
				</div>
			{/each}
		</div>
		<Button size="small" disabled={!places[fields[0]!.key] || isSending} on:click={send}
			>{isSending ? 'Reading' : 'Read the table'}</Button
		>
		{#if !places[fields[0]!.key]}<p class="muted small">
				Choose the line of the heading, or the column of “{fields[0]!.name}”: without it nothing can be read.
			</p>{/if}
	{/if}
	{#if problem}<Notice kind="error" title="The table was not read." text={problem} />{/if}
	{#if words}<Notice kind="success" title={words.title} text={words.text} />{/if}
</div>

<style>
	.columns {
		width: 100%;
	}
	.columns span {
		overflow-wrap: anywhere;
	}
</style>
