<script lang="ts">
	/** One report: its blocks, its preview, and what can be done with it. */
	import { Button } from 'carbon-components-svelte';
	import { onMount, untrack } from 'svelte';
	import { beforeNavigate } from '$app/navigation';
	import type { Block, BlockKind } from '$core/report/document';
	import { freeId } from '$core/report/freeId';
	import { formatMoment } from '$core/wording/format';
	import ReportDocument from '$lib/report/ReportDocument.svelte';
	import Choice from '$lib/parts/Choice.svelte';
	import Confirm from '$lib/parts/Confirm.svelte';
	import Field from '$lib/parts/Field.svelte';
	import Notice from '$lib/parts/Notice.svelte';
	import Undo from '$lib/parts/Undo.svelte';
	import type { PageProps } from './$types';
	import { Autosave } from './autosave.svelte';
	import BlockForm from './BlockForm.svelte';
	import BlockList from './BlockList.svelte';
	import { BLOCK_NAMES, isOfTrial, newBlock } from './blockNames';

	let { data }: Pick<PageProps, 'data'> = $props();
	const saving = new Autosave(untrack(() => data.report));
	const report = $derived(saving.report);
	let draft = $state(untrack(() => structuredClone(data.report.draft)));
	let chosen = $state('');
	let isDeleting = $state(false);
	let removed = $state<{ position: number; block: Block } | null>(null);
	let preview: HTMLElement;
	let deleteForm: HTMLFormElement;
	let freezeForm: HTMLFormElement;
	const block = $derived(draft.blocks.find(({ id }) => id === chosen) ?? null);
	const LANGUAGES = [
		{ value: 'en' as const, text: 'English' },
		{ value: 'es' as const, text: 'Spanish' }
	];
	const PAID = [
		{ value: '', text: 'Not said yet' },
		{ value: 'no', text: 'No, nobody pays us' },
		{ value: 'yes', text: 'Yes, somebody does' }
	];
	const paid = $derived(draft.disclosure.isPaid === null ? '' : draft.disclosure.isPaid ? 'yes' : 'no');
	/** New blocks of trials show the one that the report already has. */
	const trial = $derived(
		draft.blocks.flatMap((own) => ('trial' in own && own.trial !== null ? [own.trial] : []))[0] ??
			report.trials[0]?.id ??
			null
	);
	/** What a new block of these kinds shows at first. */
	const known = $derived<Partial<Record<'watch' | 'standing' | 'audit' | 'load', number>>>({
		...Object.fromEntries([...report.watches].reverse().map(({ kind, id }) => [kind, id])),
		...(report.audits[0] ? { audit: report.audits[0].id } : {}),
		...(report.loads[0] ? { load: report.loads[0].id } : {})
	});
	/** Blocks that have something to show here. */
	const isOffered = (kind: BlockKind) =>
		kind === 'watch' || kind === 'standing' || kind === 'load'
			? known[kind] !== undefined
			: kind === 'audit' || kind === 'side'
				? known.audit !== undefined
				: kind !== 'worklist' || report.clientId !== null;
	const kinds = $derived([
		{ value: '', text: 'Add a block …' },
		...(Object.keys(BLOCK_NAMES) as BlockKind[])
			.filter((kind) => trial !== null || !isOfTrial(kind))
			.filter(isOffered)
			.map((kind) => ({ value: kind, text: BLOCK_NAMES[kind] }))
	]);
	const STATES = { saved: 'Saved', changed: 'Not saved yet', saving: 'Saving …', failed: 'Not saved' };

	/** After each change of the draft. */
	function changed() {
		saving.change($state.snapshot(draft));
	}
	function replace(next: Block) {
		draft.blocks = draft.blocks.map((known) => (known.id === next.id ? next : known));
		changed();
	}
	function order(blocks: Block[]) {
		draft.blocks = blocks;
		changed();
	}
	function add(kind: string) {
		if (!kind) return;
		const next = newBlock(kind as BlockKind, freeId(kind as BlockKind, draft.blocks), trial, known);
		if (!next) return;
		draft.blocks = [...draft.blocks, next];
		chosen = next.id;
		changed();
	}
	/** Its settings and its place in the preview come into view. */
	function choose(id: string) {
		chosen = chosen === id ? '' : id;
		if (!chosen) return;
		const section = preview.querySelector<HTMLElement>(`#${CSS.escape(id)}`);
		if (section) preview.scrollTop = section.offsetTop - preview.offsetTop;
	}
	function remove(id: string) {
		const position = draft.blocks.findIndex((known) => known.id === id);
		removed = { position, block: $state.snapshot(draft.blocks[position]!) as Block };
		draft.blocks = draft.blocks.filter((known) => known.id !== id);
		if (chosen === id) chosen = '';
		changed();
	}
	function putBack() {
		if (removed) draft.blocks = draft.blocks.toSpliced(removed.position, 0, removed.block);
		removed = null;
		changed();
	}
	async function freeze() {
		if (await saving.save()) freezeForm.requestSubmit();
	}
	beforeNavigate(() => void saving.save());
	onMount(() => {
		const warn = (event: BeforeUnloadEvent) => saving.state !== 'saved' && event.preventDefault();
		addEventListener('beforeunload', warn);
		return () => removeEventListener('beforeunload', warn);
	});
</script>

<svelte:head><title>{draft.title} – Zafra</title></svelte:head>

<div class="composer">
	<div class="stack tools">
		<div class="page-top">
			<h1>Report</h1>
			<Button size="field" data-key="r" on:click={() => void freeze()}>Freeze a version</Button>
		</div>
		<p class="muted small" aria-live="polite">
			{report.clientName ? `${report.clientName} · ` : ''}{STATES[saving.state]}
		</p>
		{#if saving.problem}<Notice kind="error" title="Not saved." text={saving.problem} />{/if}
		<Field label="Title" bind:value={draft.title} onchange={changed} />
		<div class="pair">
			<Choice label="Language" options={LANGUAGES} bind:value={draft.language} onchange={changed} />
			<Choice
				label="Paid for recommending?"
				options={PAID}
				value={paid}
				onchange={(value) => {
					draft.disclosure.isPaid = value === '' ? null : value === 'yes';
					changed();
				}}
			/>
		</div>
		<BlockList blocks={draft.blocks} {chosen} onorder={order} onremove={remove} onchoose={choose} />
		<Choice label="Add a block" hideLabel options={kinds} value="" onchange={add} />
		{#if block}
			{#key block.id}
				<BlockForm
					report={report.id}
					{block}
					choices={report.choices}
					trials={report.trials}
					pages={report.pages}
					watches={report.watches}
					audits={report.audits}
					loads={report.loads}
					onchange={replace}
				/>
			{/key}
		{/if}
		{#if report.versions.length}
			<section>
				<h2>Frozen</h2>
				<ul class="plain">
					{#each report.versions as version (version.id)}
						<li>
							<a href="/reports/{report.id}/versions/{version.number}">Version {version.number}</a>
							<span class="muted">{formatMoment(version.frozenAt)}</span>
						</li>
					{/each}
				</ul>
			</section>
		{/if}
		<p>
			<Button kind="danger-ghost" size="small" on:click={() => (isDeleting = true)}>Delete this report</Button>
		</p>
	</div>
	<!-- A report is longer than the screen: it scrolls in a box of its own, which the keyboard can reach. -->
	<!-- svelte-ignore a11y_no_noninteractive_tabindex -->
	<div class="preview" aria-label="Preview" role="region" tabindex="0" bind:this={preview}>
		<ReportDocument report={report.view} pictureOf={(key) => `/reports/${report.id}/pictures/${key}`} />
	</div>
</div>
<form method="POST" action="?/freeze" bind:this={freezeForm} hidden></form>
<form method="POST" action="?/delete" bind:this={deleteForm} hidden></form>
{#if removed}<Undo name={BLOCK_NAMES[removed.block.kind]} onundo={putBack} />{/if}
{#if isDeleting}
	<Confirm
		bind:open={isDeleting}
		heading="Delete this report?"
		action="Delete"
		onconfirm={() => deleteForm.requestSubmit()}
	>
		<p>
			Its {report.versions.length} frozen {report.versions.length === 1 ? 'version goes' : 'versions go'} with it,
			and links to them end. Trials and loads stay.
		</p>
	</Confirm>
{/if}

<style>
	.composer {
		display: grid;
		grid-template-columns: 21rem minmax(0, 1fr);
		gap: var(--gap-7);
		align-items: start;
	}
	.tools {
		min-width: 0;
	}
	.tools > p {
		margin: 0;
	}
	.pair {
		display: grid;
		grid-template-columns: 7.5rem minmax(0, 1fr);
		gap: var(--gap-5);
	}
	.preview {
		border: 1px solid var(--rule);
		min-width: 0;
		position: sticky;
		top: 3.2rem;
		max-height: calc(100vh - 4.4rem);
		overflow: auto;
	}
	@media (max-width: 900px) {
		.composer {
			grid-template-columns: minmax(0, 1fr);
		}
		.preview {
			position: relative;
			top: 0;
			max-height: none;
		}
	}
</style>
