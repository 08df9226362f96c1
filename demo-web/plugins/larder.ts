/**
 * Larder: page cache and file squeezing. First level: caches pages, compresses, lets browsers keep files. Second: also
 * minifies. An option joins all scripts into one file and drops inline scripts, and with them what starts the menu.
 */
import { createHash } from 'node:crypto';
import { transform } from 'esbuild';
import type { Asset } from '../builders/render';
import type { LarderLevel } from '../state/switches';

const minified = new Map<string, Promise<string>>();

/** Minified script or style; worked out once per text. */
export function minify(body: string, kind: 'js' | 'css'): Promise<string> {
	const key = kind + createHash('sha1').update(body).digest('base64');
	let made = minified.get(key);
	if (!made) {
		made = transform(body, { loader: kind, minify: true, legalComments: 'none' }).then(({ code }) => code);
		minified.set(key, made);
	}
	return made;
}

export async function squeeze(asset: Asset, level: LarderLevel): Promise<Asset> {
	if (level !== 'pages-and-files') return asset;
	const kind = asset.type === 'text/css' ? 'css' : asset.type === 'text/javascript' ? 'js' : null;
	return kind ? { ...asset, body: await minify(String(asset.body), kind) } : asset;
}

export function combine(path: string, assets: readonly Asset[]): Asset {
	return { path, type: assets[0]!.type, body: assets.map((asset) => String(asset.body)).join('\n') };
}

/** White space between tags and comments. */
export function squeezeHtml(html: string): string {
	return html.replace(/<!--[\s\S]*?-->/g, '').replace(/>\s+</g, '><');
}

interface Entry {
	body: string;
	etag: string;
	at: number;
}

/** Pages as Larder keeps them: for each address and device class. */
export class PageCache {
	#kept = new Map<string, Entry>();
	#turn = 0;

	get(key: string, contended: boolean): Entry | null {
		// Two caches purge each other: every other visitor finds nothing.
		if (contended && this.#turn++ % 2 === 0) this.#kept.delete(key);
		return this.#kept.get(key) ?? null;
	}

	put(key: string, body: string): Entry {
		const entry = { body, etag: `"${createHash('sha1').update(body).digest('hex').slice(0, 16)}"`, at: Date.now() };
		this.#kept.set(key, entry);
		return entry;
	}

	clear(): void {
		this.#kept.clear();
		this.#turn = 0;
	}
}
