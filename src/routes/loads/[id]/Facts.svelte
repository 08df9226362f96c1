<script lang="ts">
	/** What the page is made of, as the lab found it once it had settled. */
	import Table from '$lib/parts/Table.svelte';
	import type { Column } from '$lib/parts/tableRows';
	import { cacheLifetimeOf, compressionOf, wordLifetime } from '$core/load/requests/delivery';
	import type { PageRecord } from '$core/load/record/record';
	import { pixelExcess } from '$core/load/requests/pictures';
	import { kindOf } from '$core/load/requests/requestList';
	import { formatBytes, formatDuration } from '$core/wording/format';

	import type { PartProps } from './partProps';

	let { data }: PartProps<'facts'> = $props();
	const { requests, marks } = $derived(data);
	const page = $derived(data.page!);
	const pixelRatio = $derived(data.record.conditions?.device.pixelRatio ?? 1);
	const fileOf = (url: string) => url.split('?')[0]!.split('/').filter(Boolean).pop() ?? url;
	const MOST_IMAGES = 25;
	const byUrl = $derived(new Map(requests.map((one) => [one.url, one])));
	const elements = $derived(
		page.images.map((image, number) => ({
			url: image.url,
			image,
			number,
			request: byUrl.get(image.url),
			excess: pixelExcess(image, pixelRatio)
		}))
	);
	/** What was fetched as a picture and stands in no element of its own. */
	const others = $derived(
		requests
			.filter(
				(one) =>
					kindOf(one) === 'img' && one.during === 'load' && !page.images.some(({ url }) => url === one.url)
			)
			.map((request, i) => ({
				url: request.url,
				image: null,
				number: elements.length + i,
				request,
				excess: null
			}))
	);
	type ImageRow = Omit<(typeof elements)[number], 'image'> & { image: PageRecord['images'][number] | null };
	const images = $derived<ImageRow[]>([...elements, ...others]);
	const [MUCH, LITTLE] = [2, 0.5];
	function noteOf({ image, excess }: ImageRow): string {
		if (!image) return 'a background, an icon, or fetched by a script';
		if (image.naturalWidth === 0) return 'not loaded';
		if (excess === null) return 'not shown';
		if (image.lazy && image.inView) return 'lazy, though in view';
		return excess > MUCH || excess < LITTLE ? `${excess.toFixed(1)} times the pixels of the screen` : '';
	}
	const yesNo = (is: boolean | undefined) => (is === undefined ? '–' : is ? 'yes' : 'no');
	const columns: Column<ImageRow>[] = [
		{ key: 'file', name: 'File', kind: 'file', text: ({ url }) => fileOf(url) },
		{ key: 'format', name: 'Format', text: (image) => image.request?.mimeType?.replace('image/', '') ?? '–' },
		{
			key: 'wire',
			name: 'Transferred',
			number: true,
			text: (image) => (image.request?.wireBytes == null ? '–' : formatBytes(image.request.wireBytes)),
			sort: (image) => image.request?.wireBytes ?? null
		},
		{
			key: 'pixels',
			name: 'Pixels',
			number: true,
			text: ({ image }) => (image ? `${image.naturalWidth} × ${image.naturalHeight}` : '–')
		},
		{
			key: 'shown',
			name: 'Shown at',
			number: true,
			text: ({ image }) => (image ? `${image.shownWidth} × ${image.shownHeight}` : '–')
		},
		{ key: 'view', name: 'In view', text: ({ image }) => yesNo(image?.inView) },
		{ key: 'lazy', name: 'Lazy', text: ({ image }) => yesNo(image?.lazy) },
		{ key: 'room', name: 'Space reserved', text: ({ image }) => yesNo(image?.roomReserved) },
		{ key: 'note', name: 'Note', text: noteOf }
	];
	const delivered = $derived(
		requests.filter(
			(one) => one.status !== null && one.status < 400 && !one.redirectTo && one.during === 'load'
		)
	);
	const plain = $derived(
		delivered.filter((one) => compressionOf(one).expected && !compressionOf(one).encoding)
	);
	const brief = $derived(
		delivered.filter(
			(one) =>
				['img', 'css', 'js', 'font'].includes(kindOf(one)) &&
				['none', 'revalidate', 'unsaid'].includes(cacheLifetimeOf(one).kind)
		)
	);
</script>

<dl>
	<dt>Title</dt>
	<dd>{page.title || 'none'}</dd>
	<dt>Language</dt>
	<dd>{page.language ?? 'not said'}</dd>
	<dt>Viewport</dt>
	<dd>{page.viewport ?? 'no viewport meta'}</dd>
	<dt>DOM</dt>
	<dd class="figures">
		{page.elements ?? '–'} elements, {page.depth ?? '–'} deep{page.widestParent
			? `; the widest parent, ${page.widestParent.selector}, has ${page.widestParent.children} children`
			: ''}
	</dd>
	{#if page.deepestPath}<dt>Deepest</dt>
		<dd class="path">{page.deepestPath}</dd>{/if}
	<dt>Over the page</dt>
	<dd>
		{page.overlay
			? `“${page.overlay.text}” (${page.overlay.selector})`
			: 'nothing: no consent layer and no dialog'}
	</dd>
	<dt>Empty space</dt>
	<dd>
		{#each page.emptySlots as slot, i (i)}<div>
				<code>{slot.selector}</code>, {Math.round(slot.box.width)} × {Math.round(slot.box.height)} px, shows nothing
			</div>{:else}none: no space is reserved for what never came{/each}
	</dd>
	<dt>Fonts</dt>
	<dd>
		{#each page.fonts as font, i (i)}<div>
				{font.family}
				{font.weight}: {font.status}, font-display {font.display}
			</div>{:else}no web fonts{/each}
	</dd>
	<dt>Not compressed</dt>
	<dd>
		{#each plain as one (one.number)}<div>
				{fileOf(one.url)}, {formatBytes(one.decodedBytes ?? 0)}{compressionOf(one).wouldSave
					? `: gzip would save ${formatBytes(compressionOf(one).wouldSave!)}`
					: ''}
			</div>{:else}none: every text of 1 kB and more came compressed{/each}
	</dd>
	<dt>Not cached long</dt>
	<dd>
		{#each brief.slice(0, 12) as one (one.number)}<div>
				{fileOf(one.url)} of {one.owner.name}: {wordLifetime(cacheLifetimeOf(one))}
			</div>{:else}none{/each}{#if brief.length > 12}<div class="muted">and {brief.length - 12} more</div>{/if}
	</dd>
	<dt>Console errors</dt>
	<dd>
		{#each page.consoleErrors as message, i (i)}<div>{message}</div>{:else}none{/each}
	</dd>
	{#if marks.length}<dt>User timing</dt>
		<dd>
			{#each marks as mark, i (i)}<div class="figures">
					{mark.name}: {formatDuration(mark.atMs)}{mark.durationMs === null
						? ''
						: `, ${formatDuration(mark.durationMs)} long`}
				</div>{/each}
		</dd>{/if}
</dl>
{#if images.length}
	<h3>Images</h3>
	<Table
		label="Table of images"
		{columns}
		rows={images}
		key={(image) => image.number}
		pageSize={MOST_IMAGES}
		size="compact"
	/>
{/if}

<style>
	dl {
		display: grid;
		grid-template-columns: 8rem 1fr;
		gap: var(--gap-3) var(--gap-6);
		margin: 0 0 var(--gap-6);
	}
	dd {
		margin: 0;
		overflow-wrap: anywhere;
	}
	.path {
		font-size: var(--type-3);
	}
	@media (max-width: 560px) {
		dl {
			grid-template-columns: 1fr;
		}
		dt {
			margin-top: var(--gap-3);
		}
	}
</style>
