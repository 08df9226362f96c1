import { expect } from 'chai';
import LoadTimeline from '$lib/charts/LoadTimeline.svelte';
import PagePicture from '$lib/charts/PagePicture.svelte';
import { ownedRequests } from '$core/load/requests/ownedRequests';
import { sharesOf } from '$core/load/requests/owners';
import { ownerColours } from '$lib/charts/ownerColour';
import { requestOf } from '../support/records';
import { show as render, type Shown } from '../support/svelte/show';

const show = (component: unknown, props: object): Promise<Shown> => render(component as never, props as never);

/** The axis ends 2 % after the last moment, 1,000 ms: a share of it is a moment by 1,020. */
const AXIS = 1020;
const requests = ownedRequests(
	[
		requestOf({ url: 'https://own.test/', type: 'document', startMs: 0, responseMs: 204, endMs: 255, wireBytes: 2000 }),
		requestOf({
			url: 'https://own.test/look.css',
			type: 'stylesheet',
			startMs: 255,
			responseMs: 408,
			endMs: 459,
			wireBytes: 9000,
			renderBlocking: 'blocking'
		}),
		requestOf({ url: 'https://bell.test/bell.js?v=2', type: 'script', startMs: 510, responseMs: null, endMs: null }),
		requestOf({
			url: 'https://own.test/old.png',
			type: 'image',
			startMs: 300,
			responseMs: 400,
			endMs: 1000,
			status: 404
		}),
		requestOf({
			url: 'https://own.test/kept.js',
			type: 'script',
			startMs: 10,
			responseMs: 11,
			endMs: 12,
			fromCache: true
		})
	],
	'own.test'
);
const shares = sharesOf(requests, 'own.test');

const timeline = (changes: object = {}) =>
	show(LoadTimeline, {
		requests,
		frames: [
			{ atMs: 0, progress: 0 },
			{ atMs: 400, progress: 0.6 },
			{ atMs: 900, progress: 1 }
		],
		frameUrl: (index: number) => `/frames/${index + 1}`,
		frameRatio: 2,
		lines: [
			{ name: 'FCP', atMs: 400 },
			{ name: 'LCP', atMs: 410 },
			{ name: 'Full', atMs: 1000 }
		],
		shares,
		colours: ownerColours(shares),
		frameNotes: [{ frame: 2, words: 'LCP' }],
		detailsUrl: (number: number) => `/requests/${number}`,
		csv: () => Promise.resolve(''),
		...changes
	});
const styleOf = (shown: Shown) => shown.attribute('style') ?? '';
const placeIn = (shown: Shown, name: string) => Number(new RegExp(`--${name}:([\\d.]+)`).exec(styleOf(shown))![1]);

describe('a load’s timeline, as it comes', () => {
	it('has a row for each request: pale until the first byte, full until the end, by shares of the axis', async () => {
		const rows = (await timeline()).all('.timeline-row');
		expect(rows).to.have.length(requests.length);
		const [page] = rows as [Shown, ...Shown[]];
		const [waiting, receiving] = page.all('.bar') as [Shown, Shown];
		expect([placeIn(waiting, 'from'), placeIn(waiting, 'to')]).to.deep.equal([0, 0.2]);
		expect([placeIn(receiving, 'from'), placeIn(receiving, 'to')]).to.deep.equal([0.2, 0.25]);
	});

	it('draws what never ended to the end of the axis, without a part that was received', async () => {
		const row = (await timeline()).all('.timeline-row')[2]!;
		const bars = row.all('.bar');
		expect(bars).to.have.length(1);
		expect(placeIn(bars[0]!, 'to')).to.be.closeTo(1000 / AXIS, 1e-4);
		expect(row.text).to.include('unfinished');
	});

	it('says in words whose a request is, what it weighs, and whether it blocks, failed or came from a cache', async () => {
		const rows = (await timeline()).texts('.timeline-row');
		expect(rows[0]).to.match(/^own\.test ?html ?, of own\.test, 200, 0 ms to 255 ms ?2\.0 kB$/);
		expect(rows[1]).to.match(/look\.css.*css ▮.*blocks rendering.* ?9\.0 kB$/);
		expect(rows[2]).to.match(/^bell\.js ?js ?, of bell\.test/);
		expect(rows[3]).to.include('404');
		expect(rows[4]).to.match(/cache$/);
		const bad = (await timeline()).all('.timeline-row').map((row) => row.has('.bad'));
		expect(bad).to.deep.equal([false, false, true, true, false]);
	});

	it('gives each owner one colour, and names them below', async () => {
		const shown = await timeline();
		const colours = shown.all('.wait').map((bar) => /background:([^;]+)/.exec(styleOf(bar))![1]);
		expect(colours).to.deep.equal(['var(--ink)', 'var(--ink)', 'var(--arm-1)', 'var(--ink)', 'var(--ink)']);
		expect(shown.the('.owners').text).to.match(/own\.test 4 requests, .*bell\.test 1 request,/);
	});

	it('has labels for a narrow and a wide chart, a step down where they would overlap', async () => {
		const shown = await timeline();
		for (const width of ['narrow', 'wide']) {
			const lines = shown.all(`.plumb.${width}`);
			expect(lines.map(({ text }) => text)).to.deep.equal(['FCP 400 ms', 'LCP 410 ms', 'Full 1.00 s']);
			const tops = lines.map((line) => Number(/top: ?([\d.]+)px/.exec(styleOf(line))![1]));
			expect(tops[1]).to.equal(tops[0]! + 15);
			expect(Number(/left: ?([\d.]+)%/.exec(styleOf(lines[0]!))![1])).to.be.closeTo((400 / AXIS) * 100, 1e-6);
			// 306 px of 312, with 82 px of weights beside them, hold the label; 196 px of 200 and 8 px do not.
			expect(lines[2]!.has('.flip')).to.equal(width === 'narrow');
		}
	});

	it('has more pictures the wider it is, each the frame that was on screen then, fetched when in sight', async () => {
		const shown = await timeline();
		const strips = ['narrow', 'wide', 'widest'].map((width) => shown.the(`.strip.${width}`));
		// (320 - 120) / 68, (620 - 308) / 68 and (820 - 308) / 68 of 62 px and a gap of 6.
		expect(strips.map((strip) => strip.all('img').length)).to.deep.equal([2, 4, 7]);
		expect(strips[1]!.all('img').map((image) => image.attribute('src'))).to.deep.equal([
			'/frames/1',
			'/frames/2',
			'/frames/2',
			'/frames/3'
		]);
		expect(strips[1]!.texts('.tick')).to.deep.equal(['255 ms', '510 ms', '765 ms', '1.02 s']);
		for (const image of shown.all('img')) expect(image.attribute('loading')).to.equal('lazy');
		const noted = strips[1]!.all('img').map((image) => /\bnoted\b/.test(image.attribute('class') ?? ''));
		expect(noted).to.deep.equal([false, false, false, true]);
	});

	it('has neither pictures nor a band where nothing was seen', async () => {
		const shown = await timeline({ frames: [], frameNotes: [] });
		expect(shown.has('.strip')).to.equal(false);
		expect(shown.has('.band')).to.equal(false);
		expect(shown.text).to.include('or use the arrow keys');
	});

	it('shows what the address asks for', async () => {
		const filtered = await timeline({ asked: { type: 'js' } });
		expect(filtered.all('.timeline-row')).to.have.length(2);
		expect(filtered.the('.count').text).to.equal('2 of 5');
		const byOwner = await timeline({ asked: { by: 'owner' } });
		expect(byOwner.texts('.owner-row')).to.have.length(2);
		expect(byOwner.texts('.owner-row')[1]).to.match(/bell\.test, third party: 1 requests?/);
	});

	it('draws the first rows of thousands: the others come when they are scrolled to', async () => {
		const many = ownedRequests(
			Array.from({ length: 3000 }, (_, i) => requestOf({ url: `https://own.test/${i}.js`, endMs: 10 + i })),
			'own.test'
		);
		const shown = await timeline({ requests: many });
		expect(shown.all('.timeline-row')).to.have.length(22);
		expect(styleOf(shown.the('.rows'))).to.include(`height: ${3000 * 24}px`);
	});
});

describe('the finished page', () => {
	const shift = {
		atMs: 900,
		value: 0.1,
		elements: [
			{
				selector: 'p',
				from: { x: 0, y: 100, width: 200, height: 50 },
				to: { x: 0, y: 300, width: 200, height: 50 }
			}
		]
	};
	const picture = (changes: object = {}) =>
		show(PagePicture, {
			picture: '/picture',
			width: 400,
			height: 800,
			lcp: {
				atMs: 700,
				selector: 'img',
				text: '',
				url: 'https://own.test/quay.jpg',
				box: { x: 40, y: 80, width: 200, height: 400 }
			},
			shifts: [shift, { ...shift, value: 0.0001 }],
			...changes
		});

	it('has the largest paint outlined where it stands', async () => {
		const shown = await picture();
		expect(styleOf(shown.the('.lcp'))).to.equal('left:10%;top:10%;width:50%;height:50%');
		expect(shown.text).to.include('quay.jpg');
	});

	it('has a shift as two boxes and the way between their middles; what is too small to see is none', async () => {
		const shown = await picture({ asked: { shift: '1' } });
		expect(styleOf(shown.the('.from'))).to.equal('left:0%;top:12.5%;width:50%;height:6.25%');
		const line = shown.the('line');
		expect([line.attribute('y1'), line.attribute('y2')]).to.deep.equal(['125', '325']);
		const beyond = await picture({ asked: { shift: '7' } });
		expect(beyond.all('.from')).to.have.length(1);
	});
});
