import { expect } from 'chai';
import type { IncomingMessage, ServerResponse } from 'node:http';
import { BUILT_IN_CONDITIONS, type Conditions } from '$core/load/conditions/conditions';
import type { LoadRecord } from '$core/load/record/record';
import { markupLikeness } from '$core/load/record/signature';
import { skeletonLikeness, skeletonOf } from '$core/pages/skeleton';
import { Lab } from '../../src/lab/lab';
import { rule, serve, type RunningServer, UNWATCHED } from '../support/world';

const [, DESKTOP] = BUILT_IN_CONDITIONS as [Conditions, Conditions];
const QUICK: Conditions = { ...DESKTOP, quietMs: 700, capMs: 15_000, network: { ...DESKTOP.network, roundTripMs: 10 } };
const PICTURE =
	'<svg xmlns="http://www.w3.org/2000/svg" width="600" height="300"><rect width="600" height="300"/></svg>';
const LATE_MS = 600;
const PICTURE_MS = 900;

const article = (words: string) =>
	`<article class="story"><h2 class="title">${words}</h2><p class="lead">${words.repeat(9)}</p><footer class="by"><a>${words}</a></footer></article>`;
const template = (body: string) =>
	`<!doctype html><html lang="en"><title>Page</title><body><header class="top"><nav class="menu"><ul><li><a>Home</a></ul></nav></header><main class="page">${body}</main><footer class="end"><p>Words</p></footer>`;
const PAGES: Record<string, string> = {
	'/named': `<!doctype html><html lang="en"><title>Named</title><body style="margin:0"><h1 id="title">Ferries</h1>
		<img id="hero" src="/hero.svg" width="600" height="300"><p id="hidden" style="visibility:hidden">Hidden</p>
		<p id="unseen" style="opacity:0">Not yet</p><p id="below" style="margin-top:3000px">Far below</p>
		<script>setTimeout(() => { document.body.insertAdjacentHTML('afterbegin', '<p id="late">Seats are left</p>'); }, ${LATE_MS});</script>`,
	'/story/one': template(article('Boats') + article('Islands')),
	'/story/two': template(article('Seals')),
	'/shop': template(
		'<form class="order"><fieldset><label>Seats<input></label><select><option>1</select></fieldset><table class="fares"><tr><td>9</table><button>Pay</button></form>'
	)
};

function site(request: IncomingMessage, response: ServerResponse): void {
	const { pathname } = new URL(request.url ?? '/', 'http://site.test');
	if (pathname === '/hero.svg')
		return void setTimeout(() => response.writeHead(200, { 'content-type': 'image/svg+xml' }).end(PICTURE), PICTURE_MS);
	const html = PAGES[pathname];
	response.writeHead(html ? 200 : 404, { 'content-type': 'text/html' }).end(html ?? 'Not here');
}

describe('what a load tells of elements and markup', function () {
	let server: RunningServer;
	let lab: Lab;
	before(async () => {
		server = await serve(site);
		lab = new Lab({ calm: UNWATCHED, hostMap: [rule('site.test', server.port)] });
	});
	after(async () => {
		await lab.close();
		server.close();
	});
	const load = async (path: string, named: string[] = []): Promise<LoadRecord> => {
		const shown = named.map((selector) => ({ name: `of ${selector}`, selector }));
		const { record } = await lab.measure({ url: `http://site.test${path}`, conditions: QUICK, steps: [], shown });
		expect(record.failure, path).to.equal(null);
		return record;
	};

	it('is when each named element was first seen in the first screen, and none that never was', async () => {
		const record = await load('/named', ['#title', '#late', '#hero', '#hidden', '#below', '#unseen', '!', '#nothing']);
		const at = Object.fromEntries(record.shown.map(({ selector, atMs }) => [selector, atMs]));
		expect(Object.keys(at)).to.have.length(8);
		for (const never of ['#hidden', '#below', '#unseen', '!', '#nothing']) expect(at[never], never).to.equal(null);
		// In the order in which the page makes them come, and none before it can have come.
		expect(at['#title']).to.be.at.most(at['#late']!);
		expect(at['#late']).to.be.at.least(LATE_MS);
		expect(at['#hero']).to.be.at.least(PICTURE_MS);
		const picture = record.requests.find(({ url }) => url.endsWith('/hero.svg'))!;
		expect(at['#hero']).to.be.at.least(picture.responseMs!);
		// Nothing is seen before the first paint's frame is made, nor later than the page came to rest.
		expect(at['#hero']).to.be.at.most(record.frames.at(-1)!.atMs + QUICK.quietMs);
	});

	it('is a signature by which pages of one template are known, as by their whole skeletons', async () => {
		const paths = ['/story/one', '/story/two', '/shop'];
		const records = [];
		for (const path of paths) records.push(await load(path));
		const [one, two, shop] = records.map(({ page }) => page!.signature) as [number[], number[], number[]];
		expect(one).to.have.length(128);
		const skeletons = paths.map((path) => skeletonOf(PAGES[path]!));
		const near = (a: number[], b: number[], i: number, j: number) =>
			// Standard error of a share of 128 at most 0.045; three of them.
			expect(markupLikeness(a, b)).to.be.closeTo(skeletonLikeness(skeletons[i]!, skeletons[j]!), 0.14);
		near(one, two, 0, 1);
		near(one, shop, 0, 2);
		expect(markupLikeness(one, two)).to.be.above(markupLikeness(one, shop)!);
	});
});
