<script lang="ts">
	import { Button, InlineLoading } from 'carbon-components-svelte';
	import { invalidateAll } from '$app/navigation';
	import { formatDay, formatMoment } from '$core/wording/format';
	import { keepTyped } from '$lib/keepTyped';
	import Action from '$lib/parts/Action.svelte';
	import DayField from '$lib/parts/DayField.svelte';
	import Field from '$lib/parts/Field.svelte';
	import Notice from '$lib/parts/Notice.svelte';
	import Table from '$lib/parts/Table.svelte';
	import type { Column } from '$lib/parts/tableRows';

	let { data, form } = $props();
	const version = $derived(data.version);
	const base = $derived(`/reports/${version.reportId}/versions/${version.number}`);
	type Share = (typeof data.version.shares)[number];
	let expires = $state('');
	let phrase = $state('');
	let isCopied = $state(false);
	async function copy() {
		await navigator.clipboard.writeText(form && 'link' in form ? String(form.link) : '');
		isCopied = true;
	}
	const stateOf = ({ revokedAt, expiresAt }: Share) =>
		revokedAt
			? 'revoked'
			: expiresAt && expiresAt < new Date().toISOString()
				? 'expired'
				: expiresAt
					? `until ${formatDay(expiresAt.slice(0, 10))}`
					: 'open';
	const columns: Column<Share>[] = [
		{ key: 'made', name: 'Link of', text: ({ createdAt }) => formatMoment(createdAt) },
		{ key: 'state', name: 'State', text: stateOf },
		{ key: 'phrase', name: 'Pass phrase', text: ({ hasPhrase }) => (hasPhrase ? 'yes' : 'no') },
		{ key: 'views', name: 'Views', number: true, text: ({ views }) => views },
		{ key: 'seen', name: 'Last opened', text: ({ viewedAt }) => (viewedAt ? formatMoment(viewedAt) : 'never') },
		{ key: 'act', name: 'Revoke', isUnnamed: true }
	];
	const waits = $derived(version.pdfs.some(({ state }) => state === 'waiting'));
	const POLL_MS = 1000;
	$effect(() => {
		if (!waits) return;
		const timer = setInterval(() => void invalidateAll(), POLL_MS);
		return () => clearInterval(timer);
	});
</script>

<svelte:head><title>{version.title}, version {version.number} – Zafra</title></svelte:head>

<div class="page">
	<div class="page-top">
		<div>
			<h1>{version.title}</h1>
			<p class="muted small">
				Version {version.number} · frozen {formatMoment(version.frozenAt)} ·
				<a href="/reports/{version.reportId}">the draft goes on</a>
			</p>
		</div>
	</div>
	<div class="cells columns">
		<section>
			<h2>Share</h2>
			{#if form && 'link' in form && form.link}
				<Notice kind="success" title="The link is shown this once: copy it now." />
				<p class="link">
					<code>{form.link}</code>
					<Button kind="tertiary" size="small" on:click={() => void copy()}
						>{isCopied ? 'Copied' : 'Copy'}</Button
					>
				</p>
			{/if}
			<form method="POST" action="?/share" use:keepTyped>
				<DayField label="Last day" name="expires" bind:value={expires} help="Empty: without an end." />
				<Field
					label="Pass phrase"
					name="phrase"
					bind:value={phrase}
					help="Empty: whoever has the link may read."
				/>
				<Button type="submit" size="field">Make a link</Button>
			</form>
		</section>
		<section>
			<h2>Download</h2>
			<ul class="plain">
				{#each version.pdfs as pdf (pdf.paper)}
					<li>
						{#if pdf.state === 'ready'}<a href="{base}/download/report-{pdf.paper}.pdf">PDF, {pdf.paper}</a>
						{:else if pdf.state === 'waiting'}<InlineLoading
								description="PDF, {pdf.paper}: the lab prints it"
							/>
						{:else}<Action
								action="?/pdf"
								text="Print a PDF, {pdf.paper}"
								kind="tertiary"
								values={{ paper: pdf.paper }}
							/>
							{#if pdf.state === 'failed'}<p class="wrong">{pdf.problem}</p>{/if}{/if}
					</li>
				{/each}
				<li><a href="{base}/page" target="_blank">Open as the client sees it</a></li>
				<li><a href="{base}/download/report.html">One HTML file</a></li>
				<li><a href="{base}/download/figures.csv">Figures as CSV</a></li>
				{#if version.view.blocks.some(({ from }) => from === 'worksheet')}<li>
						<a href="{base}/download/worksheet.csv">Worksheet as CSV</a>
					</li>{/if}
				<li><a href="{base}/download/bundle.zip">Evidence bundle (zip)</a></li>
			</ul>
			<p class="muted small">
				The bundle holds the {version.trials.reduce((sum, { loads }) => sum + loads, 0)} loads behind the figures;
				<code>npm run verify -- bundle.zip</code> computes every figure anew.
			</p>
		</section>
	</div>
	{#if version.shares.length}
		<section>
			<h2>Links</h2>
			<Table label="Links to this version" {columns} rows={version.shares} key={({ id }) => id}>
				{#snippet cell(share, column)}
					{#if column.key === 'act' && !share.revokedAt}<Action
							action="?/revoke"
							text="Revoke"
							about="the link of {formatMoment(share.createdAt)}"
							kind="danger-ghost"
							values={{ id: share.id }}
						/>{/if}
				{/snippet}
			</Table>
		</section>
	{/if}
	{#if version.changes}
		<section>
			<h2>Since version {version.number - 1}</h2>
			{#if version.changes.isLanguageChanged}<p>
					The language is another: words are not compared, figures are.
				</p>{/if}
			{#if version.changes.figures.length || version.changes.added.length || version.changes.removed.length}
				<ul>
					{#each version.changes.added as heading, i (i)}<li>New: {heading}</li>{/each}
					{#each version.changes.removed as heading, i (i)}<li>Gone: {heading}</li>{/each}
					{#each version.changes.figures as { ref, before, after } (ref)}<li>{before} is now {after}</li>{/each}
				</ul>
			{:else}<p class="muted">No figure and no block changed.</p>{/if}
		</section>
	{/if}
</div>

<style>
	.columns {
		max-width: 60rem;
	}
	form {
		justify-items: start;
		display: grid;
		gap: var(--gap-5);
		max-width: 22rem;
	}
	li {
		margin-bottom: var(--gap-3);
	}
	section {
		margin-bottom: var(--gap-7);
	}
	.link code {
		overflow-wrap: anywhere;
	}
</style>
