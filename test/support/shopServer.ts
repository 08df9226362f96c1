/** A seed shop for a day's work: plain http, whose truth a test knows and changes. */
import type { IncomingMessage, ServerResponse } from 'node:http';
import { setTimeout as wait } from 'node:timers/promises';
import { serve, type RunningServer } from './world';

export const SHOP = 'shop.pellows-seed-house.test';

export interface Shop extends RunningServer {
	/** What the home page does now. */
	home: 'usual' | 'broken' | 'moved' | 'rebuilt';
	/** The article page brings a late image and so much script more. */
	hasRelease: boolean;
}

export const RELEASE_BYTES = 150_000;
export const SLOW_MS = 600;

/** Bytes that no coding makes smaller: a page's weight is then what it says. */
const noise = (bytes: number) =>
	`/*${Array.from({ length: bytes }, (_, i) => ((i * 7919) % 36).toString(36)).join('')}*/`;
const SCRIPT = noise(RELEASE_BYTES);
const PICTURE =
	'<svg xmlns="http://www.w3.org/2000/svg" width="900" height="500"><rect width="900" height="500" fill="#4c7a1e"/></svg>';
const COUNT =
	'<script>addEventListener("load", () => navigator.sendBeacon("/count?page=" + location.pathname))</script>';

const page = (title: string, body: string, hasCount = true) =>
	`<!doctype html><html lang="en"><meta charset="utf-8"><title>${title}</title><link rel="icon" href="data:,"><body style="margin:0;font:18px sans-serif"><header class="top"><nav class="menu"><a href="/">Home</a> <a href="/seeds/beans">Beans</a></nav></header><main class="page"><h1>${title}</h1>${body}</main>${hasCount ? COUNT : ''}`;

const words = '<p class="words">Seed of old kinds, saved by hand, sent by post.</p>'.repeat(12);

export async function startShop(): Promise<Shop> {
	const server = await serve((request, response) => void answer(shop, request, response));
	const shop: Shop = { ...server, home: 'usual', hasRelease: false };
	return shop;
}

async function answer(shop: Shop, request: IncomingMessage, response: ServerResponse): Promise<void> {
	const { pathname } = new URL(request.url ?? '/', `http://${SHOP}`);
	const html = (text: string, status = 200) =>
		response.writeHead(status, { 'content-type': 'text/html; charset=utf-8' }).end(text);
	switch (pathname) {
		case '/sitemap.xml':
			return void response.writeHead(200, { 'content-type': 'application/xml' }).end(sitemap());
		case '/count':
			return void response.writeHead(204).end();
		case '/release.js':
			return void response.writeHead(200, { 'content-type': 'text/javascript' }).end(SCRIPT);
		case '/garden.svg':
			return void response.writeHead(200, { 'content-type': 'image/svg+xml' }).end(PICTURE);
		case '/':
			if (shop.home === 'broken') return void html(page('Out of order', '<p>Come back later.</p>'), 500);
			if (shop.home === 'moved') return void response.writeHead(302, { location: '/closed' }).end();
			if (shop.home === 'rebuilt') return void html(rebuilt());
			return void html(page('Pellow’s Seed House', words));
		case '/seeds/beans':
			return void html(page('Beans', words + (shop.hasRelease ? release() : '')));
		case '/three/slow':
			await wait(SLOW_MS);
			return void html(page('Three', words));
		case '/three/uncounted':
			return void html(page('Three', words, false));
		default:
			return void html(page(pathname, words));
	}
}

const release = () =>
	`<script src="/release.js"></script><script>setTimeout(() => { const image = new Image(900, 500); image.src = '/garden.svg'; document.querySelector('h1').after(image); }, 900)</script>`;

const rebuilt = () =>
	`<!doctype html><html lang="en"><meta charset="utf-8"><title>New shop</title><link rel="icon" href="data:,"><body><div class="app"><section class="hero"><div class="hero-inner"><h2>Seeds</h2></div></section><form class="finder"><fieldset><label>Find <input></label></fieldset></form><table class="kinds"><tr><td>Bean</td><td>Pea</td></tr></table><aside class="basket"><button>Pay</button></aside></div>`;

function sitemap(): string {
	const paths = ['/', '/seeds/beans', '/seeds/peas?size=1&amp;tray=2', '/about'];
	const urls = paths.map((path) => `<url><loc>http://${SHOP}${path}</loc></url>`).join('');
	return `<?xml version="1.0" encoding="UTF-8"?><urlset xmlns="http://www.sitemaps.org/schemas/sitemap/0.9">${urls}</urlset>`;
}
