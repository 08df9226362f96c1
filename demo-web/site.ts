/** A site as it is switched: which files it serves and what its pages are made of. */
import { START } from './builders/behaviour';
import { ALL_BUILDERS, CART_SCRIPT, PLATFORM, TITLE_FONT } from './builders/builders';
import { lookOf } from './builders/look';
import { bodyHtml, escapeHtml, type Asset } from './builders/render';
import { picturesOf, type PageModel, type SiteModel } from './content/model';
import type { PictureMaker } from './make/pictures';
import { answerOwn, isMember, MEMBER_NOTE, ownTags } from './parties/own';
import { islandPart } from './parties/islands';
import { countingScript, partyTags } from './parties/parties';
import { visitTags } from './parties/zafra';
import { hush } from './plugins/hushbox';
import { combine, PageCache, squeeze, squeezeHtml } from './plugins/larder';
import { SHARE_PLUGINS } from './plugins/share';
import { imageFile, imageTagOf, parseImagePath } from './plugins/shrinkery';
import type { ShrinkeryLevel, SiteState } from './state/switches';
import { DEVICE, type Answer, type Ask } from './world';

/** Middle time of a page and of a file by class of hosting, ms. House numbers of the world. */
const SERVER_MS = {
	shared: { page: 420, file: 30 },
	virtual: { page: 140, file: 10 },
	dedicated: { page: 70, file: 5 }
};
const COLD_MS = 1500;
const CACHED_PAGE_MS = 12;
const CDN_MS = 4;

/** Evenings are busy, above all on shared machines. */
export function busyness(hour: number, hosting: SiteState['hosting']): number {
	const peak = Math.exp(-(((hour - 20) / 2.5) ** 2));
	return 1 + peak * { shared: 1.4, virtual: 0.4, dedicated: 0.1 }[hosting];
}

/** What a site that wants to look good serves to tests. */
const FOR_TESTS = {
	sniffing: false,
	chat: 'absent',
	ads: 'absent',
	counting: 'absent',
	shareCounts: 'absent'
} as const;

function isTest({ headers }: Ask): boolean {
	return /Headless|ZafraPhone/.test(String(headers['user-agent'] ?? ''));
}

/** Larder's option, which does nothing without Larder. */
const joinsScripts = ({ larder, larderJoins }: SiteState) => larderJoins && larder !== 'off';

/** The site of which a host is a variant. */
const siteOf = (host: string) => host.replace(/^www\./, '');

export class Site {
	readonly cache = new PageCache();
	#warm = false;
	#pages: Map<string, PageModel>;

	constructor(
		readonly model: SiteModel,
		private readonly pictures: PictureMaker,
		private readonly jitter: (host: string, middleMs: number) => number
	) {
		this.#pages = new Map(model.pages.map((page) => [page.path, page]));
	}

	/** Draw every picture as these levels serve it. */
	async drawPictures(level: ShrinkeryLevel): Promise<void> {
		const roles = { hero: 'hero', picture: 'wide', cards: 'card', gallery: 'gallery' } as const;
		for (const page of this.model.pages)
			for (const block of page.blocks) {
				if (!(block.kind in roles)) continue;
				const pictures =
					block.kind === 'cards'
						? block.cards.map((card) => card.picture)
						: block.kind === 'gallery'
							? block.pictures
							: 'picture' in block
								? [block.picture]
								: [];
				for (const shown of pictures) {
					const file = imageFile(shown, roles[block.kind as keyof typeof roles], level);
					await this.pictures.get(shown.name, {
						...file,
						palette: this.model.look.palette,
						scene: shown.scene
					});
				}
			}
	}

	/** The server falls asleep, caches are empty: after a switch or a reset. */
	forget(): void {
		this.cache.clear();
		this.#warm = false;
	}

	async answer(ask: Ask, state: SiteState, origin: string): Promise<Answer | null> {
		if (state.sniffing && isTest(ask)) return this.answer(ask, { ...state, ...FOR_TESTS }, origin);
		const isCdn = ask.host.startsWith('cdn.');
		const page = isCdn ? undefined : this.#pages.get(ask.path);
		if (page) return this.#page(ask, page, state, origin);
		const own = isCdn ? null : answerOwn(ask, state);
		if (own) return { ...own, waitMs: this.jitter(ask.host, SERVER_MS[state.hosting].file) };
		if (ask.path === '/sitemap.xml' && !isCdn) return this.#sitemap(origin);
		if (ask.path === '/larder/purge' && !isCdn) return this.#purge(ask, state);
		if (ask.path === '/robots.txt' && !isCdn)
			return { type: 'text/plain', body: `User-agent: *\nSitemap: ${origin}/sitemap.xml\n` };
		if (ask.path === '/favicon.ico') return { status: 204, type: 'image/x-icon', body: '' };
		const file = await this.#file(ask.path, state);
		if (!file) return null;
		const middle = isCdn ? CDN_MS : SERVER_MS[state.hosting].file * busyness(state.hour, state.hosting);
		const caching = isCdn || state.larder !== 'off' || state.httpCaching;
		return {
			...file,
			waitMs: this.jitter(ask.host, middle),
			compress: isCdn || state.compression || state.larder !== 'off',
			headers: {
				'cache-control': caching ? 'public, max-age=31536000' : 'no-store',
				...(isCdn ? { 'access-control-allow-origin': '*', 'x-served-by': 'cdn' } : {})
			}
		};
	}

	/** Larder's call that empties its cache. */
	#purge({ method }: Ask, { larder }: SiteState): Answer | null {
		if (larder === 'off') return null;
		if (method !== 'POST') return { status: 405, type: 'text/plain', body: 'Send a POST.\n' };
		this.cache.clear();
		return { type: 'text/plain', body: 'The cache is empty.\n' };
	}

	async #page(ask: Ask, page: PageModel, state: SiteState, origin: string): Promise<Answer> {
		const { page: pageMs } = SERVER_MS[state.hosting];
		const asleep = state.coldStart && !this.#warm;
		this.#warm = true;
		const slowMs = this.jitter(ask.host, pageMs * busyness(state.hour, state.hosting)) + (asleep ? COLD_MS : 0);
		const base: Answer = {
			type: 'text/html',
			body: '',
			compress: state.compression || state.larder !== 'off',
			headers: { 'cache-control': 'no-cache' }
		};
		if (state.accounts && isMember(ask)) {
			const html = (await this.#html(page, state, origin)).replace(/(<body[^>]*>)/, `$1${MEMBER_NOTE}`);
			const headers = {
				'cache-control': 'private, no-store',
				...(state.larder === 'off' ? {} : { 'x-cache': 'BYPASS' })
			};
			return { ...base, body: html, waitMs: slowMs, headers };
		}
		if (state.byIsland && page.path === '/timetable') {
			const html = (await this.#html(page, state, origin)).replace('</main>', `${islandPart(ask)}</main>`);
			return { ...base, body: html, waitMs: slowMs };
		}
		if (state.larder === 'off') return { ...base, body: await this.#html(page, state, origin), waitMs: slowMs };
		const key = `${ask.host}${ask.path} ${DEVICE(ask.headers)}`;
		const kept = this.cache.get(key, state.secondCache);
		const entry = kept ?? this.cache.put(key, await this.#html(page, state, origin));
		return {
			...base,
			body: entry.body,
			// Filling the cache is slower than having none; two caches wait for each other.
			waitMs: kept ? this.jitter(ask.host, CACHED_PAGE_MS) : slowMs * (state.secondCache ? 2 : 1.3),
			headers: {
				...base.headers,
				'x-cache': kept ? 'HIT' : 'MISS',
				age: String(kept ? Math.floor((Date.now() - kept.at) / 1000) : 0),
				etag: entry.etag
			}
		};
	}

	/** Files that the pages of this state name, by path. */
	async #assets(state: SiteState): Promise<{ styles: Asset[]; scripts: Asset[]; others: Asset[] }> {
		const builder = ALL_BUILDERS[state.builder];
		const share = state.share === 'none' ? null : SHARE_PLUGINS[state.share];
		const shareOf = (type: string) => share?.assets.filter((asset) => asset.type === type) ?? [];
		let styles: Asset[] = [
			{ path: '/look.css', type: 'text/css', body: this.#look(state) },
			...builder.styles,
			...shareOf('text/css')
		];
		const isShop = this.model.pages.some((page) => page.blocks.some((block) => block.kind === 'buy'));
		let scripts: Asset[] = [
			...PLATFORM,
			...builder.scripts,
			...(isShop ? [CART_SCRIPT] : []),
			...shareOf('text/javascript')
		];
		styles = await Promise.all(styles.map((asset) => squeeze(asset, state.larder)));
		scripts = await Promise.all(scripts.map((asset) => squeeze(asset, state.larder)));
		if (joinsScripts(state)) scripts = [combine('/larder/joined.js', scripts)];
		const others: Asset[] = [...builder.files, { path: '/fonts/harbour.woff2', type: 'font/woff2', body: TITLE_FONT }];
		if (share?.font) others.push({ path: share.font, type: 'font/woff', body: TITLE_FONT });
		return { styles, scripts, others };
	}

	/** Sites whose titles need the font bring it themselves, unless Serifhouse does. */
	#look(state: SiteState): string {
		const own = this.model.look.titleFont === 'Harbour' && state.fonts === 'absent';
		const face = own
			? '@font-face{font-family:"Harbour";src:url(/fonts/harbour.woff2) format("woff2");font-weight:200 900;font-display:swap}\n'
			: '';
		return face + lookOf(this.model);
	}

	async #file(path: string, state: SiteState): Promise<Answer | null> {
		const image = parseImagePath(path);
		if (image) {
			const original = picturesOf(this.model).get(image.name);
			if (!original || image.width > original.width || image.width < 40 || image.quality > 95) return null;
			const { width, height, format, quality } = image;
			const options = { width, height, format, quality, palette: this.model.look.palette, scene: original.scene };
			return { type: `image/${format}`, body: await this.pictures.get(image.name, options) };
		}
		const { styles, scripts, others } = await this.#assets(state);
		const found = [...styles, ...scripts, ...others].find((asset) => asset.path === path);
		return found ? { type: found.type, body: found.body } : null;
	}

	async #html(page: PageModel, state: SiteState, origin: string): Promise<string> {
		const builder = ALL_BUILDERS[state.builder];
		const base = state.cdn ? origin.replace('//', '//cdn.') : '';
		const { styles, scripts } = await this.#assets(state);
		const tags = partyTags(state);
		const shared = state.share === 'none' ? '' : SHARE_PLUGINS[state.share].markup;
		const start = joinsScripts(state) ? '' : `<script>${START}</script>`;
		const body = bodyHtml(this.model, {
			page,
			builder,
			image: imageTagOf(state.shrinkery, base),
			extras: {
				middle: tags.middle + shared,
				end: `${scripts.map(({ path }) => `<script src="${base}${path}"></script>`).join('\n')}\n${start}${tags.end}`
			}
		});
		const html = `<!doctype html>
<html lang="en"><head><meta charset="utf-8"><meta name="viewport" content="width=device-width,initial-scale=1">
<title>${escapeHtml(page.title)} – ${escapeHtml(this.model.name)}</title><meta name="description" content="${escapeHtml(this.model.slogan)}"><link rel="icon" href="data:,">
${styles.map(({ path }) => `<link rel="stylesheet" href="${base}${path}">`).join('\n')}
${builder.head}${tags.head}${ownTags(state, countingScript(state))}${state.visits ? visitTags(siteOf(this.model.host)) : ''}</head>
<body>${body}</body></html>`;
		const hushed = hush(html, state.hushbox, this.model.host);
		return state.larder === 'pages-and-files' ? squeezeHtml(hushed) : hushed;
	}

	#sitemap(origin: string): Answer {
		const rows = this.model.pages.map(
			(page) => `\t<url><loc>${origin}${page.path}</loc><changefreq>weekly</changefreq></url>`
		);
		return {
			type: 'application/xml',
			body: `<?xml version="1.0" encoding="UTF-8"?>\n<urlset xmlns="http://www.sitemaps.org/schemas/sitemap/0.9">\n${rows.join('\n')}\n</urlset>\n`
		};
	}
}
