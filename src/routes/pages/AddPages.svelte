<script lang="ts">
	/** Where pages come from: a sitemap, a traffic table, pasted addresses, the links of the site. */
	import { untrack } from 'svelte';
	import { Accordion, AccordionItem, Button, InlineLoading } from 'carbon-components-svelte';
	import { invalidateAll } from '$app/navigation';
	import { formatMoment } from '$core/wording/format';
	import { keepTyped } from '$lib/keepTyped';
	import { typedForm } from '$lib/typedForm';
	import type { Form } from '$lib/server/http/form';
	import type { GatherFields, PasteFields } from '$lib/server/rooms/pages/form';
	import Field from '$lib/parts/Field.svelte';
	import FileField from '$lib/parts/FileField.svelte';
	import Hidden from '$lib/parts/Hidden.svelte';
	import Notice from '$lib/parts/Notice.svelte';
	import { sendFile } from '$lib/upload';
	import TrafficFile from './TrafficFile.svelte';

	interface Pasted {
		added: number;
		known: number;
		over: number;
		bad: string[];
		foreign: string[];
	}
	interface Props {
		siteId: number;
		/** Where its addresses begin. */
		origin: string;
		gathering: { words: string; at: string; isOpen: boolean; problems: string[] } | null;
		isEmpty: boolean;
		pasteAction: string;
		gatherAction: string;
		pasteForm: Form<typeof PasteFields>;
		gatherForm: Form<typeof GatherFields>;
		/** What became of pasted addresses. */
		pasted: Pasted | null;
	}
	let { siteId, origin, gathering, isEmpty, pasteAction, gatherAction, pasteForm, gatherForm, pasted }: Props =
		$props();
	const paste = typedForm(() => pasteForm, { about: () => siteId, isRepeated: true });
	const gather = typedForm(() => gatherForm, { about: () => siteId });
	const { form: addresses, wrong: wrongPaste } = paste;
	const { form: sitemap, wrong: wrongGather } = gather;
	let sitemapProblem = $state('');
	let isOpen = $state(untrack(() => isEmpty));

	async function readSitemap(file: File) {
		const sent = await sendFile(`/api/sites/${siteId}/sitemap?name=${encodeURIComponent(file.name)}`, file);
		sitemapProblem = sent.problem;
		await invalidateAll();
	}
	const pastedTitle = ({ added, known }: Pasted) =>
		added ? 'Pages were added.' : known ? 'No new page: all were known.' : 'No page was added.';
	const pastedWords = ({ added, known, over, bad, foreign }: Pasted) =>
		[
			`${added} new, ${known} known`,
			over ? `${over} more than a site keeps` : '',
			bad.length ? `no addresses: ${bad.slice(0, 5).join(', ')}` : '',
			foreign.length ? `of other hosts: ${foreign.slice(0, 5).join(', ')}` : ''
		]
			.filter(Boolean)
			.join('; ');
</script>

{#if gathering}
	<div class="news" aria-live="polite">
		{#if gathering.isOpen}<InlineLoading description={gathering.words || 'Waiting for the lab'} />
		{:else if gathering.words}<p class="muted small">{formatMoment(gathering.at)}: {gathering.words}</p>{/if}
	</div>
	{#if gathering.problems.length}<Notice
			kind="warning"
			title="Not all could be read."
			text={gathering.problems.slice(0, 3).join(' ') +
				(gathering.problems.length > 3 ? ` And ${gathering.problems.length - 3} more.` : '')}
		/>{/if}
{/if}
{#if pasted}<Notice
		kind={pasted.bad.length + pasted.foreign.length || !pasted.added ? 'warning' : 'success'}
		title={pastedTitle(pasted)}
		text={pastedWords(pasted)}
	/>{/if}
<Accordion align="start" size="sm">
	<AccordionItem
		title={isEmpty ? 'Add the pages of this site' : 'Add pages or a traffic table'}
		bind:open={isOpen}
	>
		<div class="cells ways" style:--cell="19rem">
			<form method="POST" action={gatherAction} novalidate use:gather.enhance>
				<h3>Its sitemap</h3>
				<Hidden name="what" value="sitemap" />
				<Field
					label="Address of the sitemap"
					name="url"
					size="sm"
					bind:value={$sitemap.url}
					wrong={$wrongGather('url')}
					help="Index files and gzip are followed, robots.txt is asked where there is none; up to 50,000 pages"
				/>
				<div class="buttons">
					<Button type="submit" size="small" disabled={gathering?.isOpen}>Read the sitemap</Button>
					<FileField
						label="From a file"
						accept={['.xml', '.gz', '.txt']}
						wrong={sitemapProblem}
						onfile={readSitemap}
					/>
				</div>
			</form>
			<TrafficFile {siteId} />
			<form method="POST" action={pasteAction} novalidate use:paste.enhance>
				<h3>Addresses</h3>
				<Field
					rows={3}
					label="Addresses or paths, one a line"
					name="addresses"
					bind:value={$addresses.addresses}
					placeholder="/timetable"
					wrong={$wrongPaste('addresses')}
				/>
				<Button type="submit" kind="tertiary" size="small">Add them</Button>
			</form>
			<form method="POST" action={gatherAction} novalidate use:keepTyped>
				<h3>Links of the site</h3>
				<p class="muted small">
					From its front page, at most 100 pages, two a second; robots.txt is obeyed. Between loads of the lab.
				</p>
				<Hidden name="what" value="crawl" />
				<Hidden name="url" value="{origin}/" />
				<Button type="submit" kind="tertiary" size="small" disabled={gathering?.isOpen}>Follow its links</Button
				>
			</form>
		</div>
	</AccordionItem>
</Accordion>

<style>
	.ways form {
		display: grid;
		gap: var(--gap-5);
		align-content: start;
		justify-items: start;
	}
	.ways h3 {
		margin: 0;
	}
	.news {
		margin: var(--gap-3) 0;
	}
</style>
