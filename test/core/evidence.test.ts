import { expect } from 'chai';
import { brokeOf, wordBroke } from '$core/trial/broke';
import { digestOf, lcpPartsOf, normalisedPath, type LoadDigest } from '$core/trial/digest';
import { fairnessOf, restsOn, wordLikeness } from '$core/trial/fairness';
import { exclusiveClashes, monthlyCostOf, setupDifferences, type Component, type Setup } from '$core/trial/setup';
import { isStable, stabilityOf, type FetchSeen } from '$core/trial/stability';
import { whyOf } from '$core/trial/why';
import { wordHeld } from '$core/wording/held';
import { worthOf } from '$core/wording/worth';
import type { LoadRecord, RequestRecord } from '$core/load/record';
import type { ShiftResult, TrialArm, TrialDesign } from '$core/trial/types';
import { recordOf, requestOf } from '../support/records';

const page = (text: string, more: Partial<NonNullable<LoadRecord['page']>> = {}): LoadRecord['page'] => ({
	title: 'Home',
	language: 'en',
	viewport: null,
	elements: 100,
	depth: 8,
	deepestPath: null,
	widestParent: null,
	images: [],
	fonts: [],
	emptySlots: [],
	text,
	overlay: null,
	consoleErrors: [],
	...more
});
const box = (width: number, height: number) => ({ x: 0, y: 0, width, height });

function load(
	host: string,
	extra: Partial<RequestRecord>[] = [],
	more: Parameters<typeof recordOf>[0] = {}
): LoadRecord {
	return recordOf({
		url: `https://${host}/`,
		finalUrl: `https://${host}/`,
		page: page('Ferries leave at noon'),
		settledMs: 3000,
		lcp: {
			atMs: 1000,
			size: 1,
			selector: 'main > img',
			tag: 'img',
			url: `https://${host}/big.a1b2c3d4e5.jpg`,
			box: null,
			text: null
		},
		requests: [
			requestOf({
				url: `https://${host}/`,
				type: 'document',
				mimeType: 'text/html',
				wireBytes: 4000,
				decodedBytes: 4000,
				startMs: 0,
				responseMs: 200,
				endMs: 260,
				responseHeaders: [['server', 'plain']]
			}),
			requestOf({
				url: `https://${host}/big.a1b2c3d4e5.jpg`,
				type: 'image',
				mimeType: 'image/jpeg',
				wireBytes: 90_000,
				startMs: 350,
				endMs: 800
			}),
			...extra.map((one) => requestOf(one))
		],
		...more,
		figures: {
			ttfb: 200,
			fcp: 600,
			lcp: 1000,
			cls: 0,
			tbt: 0,
			si: 900,
			wire: 94_000,
			requests: 2,
			full: 800,
			onload: 800,
			score: 90,
			...more.figures
		}
	});
}

let nextLoad = 1;
const digest = (record: LoadRecord, armId = 1): LoadDigest =>
	digestOf(record, { loadId: nextLoad++, armId, conditionId: 'desktop', round: 1 });
const plain = () => digest(load('skerry.test'));

const CHAT: Partial<RequestRecord>[] = [
	{ url: 'https://bell.test/bell.js?x=1', type: 'script', wireBytes: 30_000, startMs: 900, endMs: 1400 },
	{ url: 'https://bell.test/face.png', type: 'image', wireBytes: 5000, startMs: 1400, endMs: 1900 }
];
const chatty = () =>
	digest(
		load('with-chat.skerry.test', CHAT, {
			longTasks: [{ startMs: 1500, durationMs: 250 }],
			longFrames: [
				{
					startMs: 1490,
					durationMs: 280,
					blockingMs: 200,
					scripts: [
						{
							url: 'https://bell.test/bell.js?x=1',
							invoker: '',
							functionName: '',
							startMs: 1500,
							durationMs: 200,
							layoutMs: 0
						}
					]
				}
			],
			shifts: [
				{
					atMs: 1600,
					value: 0.1,
					recentInput: false,
					elements: [
						{ selector: 'main', from: box(100, 300), to: box(100, 300) },
						{ selector: 'footer', from: box(100, 100), to: box(100, 100) }
					]
				}
			],
			figures: { tbt: 200, cls: 0.1, wire: 129_000, requests: 4, full: 1900, score: 70 }
		}),
		2
	);

describe('digest', () => {
	it('matches files over versions of a site and builds', () => {
		expect(normalisedPath('https://a.test/app.9f8e7d6c5b.js?v=3')).to.equal('/app.#.js');
		expect(normalisedPath('https://a.test/2026/picture-20261124.jpg')).to.equal('/2026/picture-#.jpg');
		const keys = (one: LoadDigest) => one.files.map((file) => file.key).filter((key) => key.startsWith('own'));
		expect(keys(plain())).to.deep.equal(keys(chatty()));
	});

	it('splits LCP into parts that add up to it', () => {
		expect(plain().lcpParts).to.deep.equal({ firstByte: 200, resourceDelay: 150, resourceLoad: 450, renderDelay: 200 });
		const text = lcpPartsOf({
			...load('a.test'),
			lcp: { atMs: 700, size: 1, selector: 'h1', tag: 'h1', url: null, box: null, text: 'Hi' }
		});
		expect(text).to.deep.equal({ firstByte: 200, resourceDelay: 0, resourceLoad: 0, renderDelay: 500 });
		// A picture that is painted while it still loads.
		const early = lcpPartsOf({
			...load('a.test'),
			lcp: { ...load('a.test').lcp!, atMs: 600, url: 'https://a.test/big.a1b2c3d4e5.jpg' }
		})!;
		expect(Object.values(early).reduce((sum, part) => sum + part, 0)).to.equal(600);
	});

	it('shares CLS among elements by area, blocking time by script owner, the end among owners', () => {
		const { shifts, blocking, tail } = chatty();
		expect(shifts.map(({ element, value }) => [element, Number(value.toFixed(4))])).to.deep.equal([
			['main', 0.075],
			['footer', 0.025]
		]);
		expect(blocking.map(({ owner, ms }) => [owner.id, Math.round(ms)])).to.deep.equal([
			['bell.test', 160],
			['browser', 40]
		]);
		expect(tail.map(({ owner, ms }) => [owner.id, ms])).to.deep.equal([
			['skerry.test', 800],
			['bell.test', 1100]
		]);
	});
});

describe('why', () => {
	const why = whyOf([plain(), plain(), plain()], [chatty(), chatty(), chatty()]);
	const of = (metric: string) => why.breakdowns.find((one) => one.metric === metric)!;

	it('breaks every shift down into parts that add up to it', () => {
		for (const breakdown of why.breakdowns) {
			if (breakdown.metric === 'score') continue;
			expect(
				breakdown.parts.reduce((sum, part) => sum + part.shift, 0),
				breakdown.metric
			).to.be.closeTo(breakdown.shift, 1e-6);
		}
		expect(of('wire')).to.include({ before: 94_000, after: 129_000, shift: 35_000 });
		expect(
			of('requests')
				.parts.filter((part) => part.state === 'added')
				.map((part) => part.key)
		).to.have.members(['bell.test/bell.js', 'bell.test/face.png']);
		expect(of('full').parts[0]).to.include({ key: 'bell.test', shift: 1100, state: 'added' });
	});

	it('breaks the score down into what each metric costs', () => {
		const scored = (figures: object) =>
			digest(
				load('a.test', [], {
					figures: { lcp: 1000, tbt: 100, cls: 0, fcp: 500, si: 800, ttfb: 100, ...figures } as never
				})
			);
		const [before, after] = [scored({ score: 96 }), scored({ tbt: 600, score: 78 })];
		before.figures.score = 100 - before.scoreCosts.reduce((sum, one) => sum + one.cost, 0);
		after.figures.score = 100 - after.scoreCosts.reduce((sum, one) => sum + one.cost, 0);
		const score = whyOf([before], [after]).breakdowns.find((one) => one.metric === 'score')!;
		expect(score.parts[0]!.key).to.equal('tbt');
		expect(score.remainder).to.be.closeTo(0, 1e-9);
	});

	it('names the third party first that came with all of it', () => {
		expect(why.causes[0]).to.include({ subject: 'bell.test' });
		expect(why.causes[0]!.words).to.match(/^bell\.test was added: 2 requests and 35\.0.kB more/);
		expect(why.requests).to.deep.equal({ added: 2, gone: 0, changed: 0, alike: 2 });
	});

	it('names compression, images, page cache and CDN', () => {
		const css = (encoding: string | null, wireBytes: number) => ({
			url: 'https://skerry.test/site.css',
			type: 'stylesheet',
			mimeType: 'text/css',
			wireBytes,
			decodedBytes: 60_000,
			endMs: 500,
			responseHeaders: (encoding ? [['content-encoding', encoding]] : []) as [string, string][]
		});
		const first = (before: LoadRecord, after: LoadRecord) => whyOf([digest(before)], [digest(after)]).causes[0];
		expect(first(load('skerry.test', [css('br', 9000)]), load('skerry.test', [css(null, 60_000)]))).to.include({
			subject: 'compression'
		});
		expect(first(load('skerry.test', [css('br', 9000)]), load('skerry.test', [css(null, 60_000)]))!.words).to.match(
			/from br to none: 51\.0.kB more/
		);
		const lighter = load('skerry.test');
		lighter.requests[1]!.wireBytes = 20_000;
		expect(first(load('skerry.test'), lighter)).to.include({ subject: 'images' });
		const cached = load('skerry.test', [], { figures: { ttfb: 60, lcp: 860 } });
		cached.requests[0]!.responseHeaders = [['x-cache', 'HIT']];
		const uncached = load('skerry.test');
		uncached.requests[0]!.responseHeaders = [['x-cache', 'MISS']];
		expect(first(uncached, cached)).to.include({ subject: 'page cache' });
		const moved = load('skerry.test', [], { figures: { full: 600 } });
		moved.requests[1] = requestOf({ ...moved.requests[1]!, url: 'https://cdn.skerry.test/big.a1b2c3d4e5.jpg' });
		moved.requests[1]!.host = 'cdn.skerry.test';
		expect(first(load('skerry.test'), moved)).to.include({ subject: 'CDN' });
	});

	it('says nothing where nothing differs, and needs loads', () => {
		expect(whyOf([plain()], [plain()]).causes).to.deep.equal([]);
		expect(() => whyOf([], [plain()])).to.throw(RangeError);
	});
});

const arm = (id: number, name: string, setup: Setup | null = null): TrialArm => ({
	id,
	name,
	url: 'https://a.test/',
	baseline: id === 1,
	reference: false,
	setup
});
const design: TrialDesign = {
	kind: 'side-by-side',
	arms: [arm(1, 'A'), arm(2, 'B')],
	conditions: [],
	rounds: 8,
	warmups: 0,
	seed: 1,
	primary: ['lcp']
};
const component = (name: string, more: Partial<Component> = {}): Component => ({
	kind: 'plugin',
	name,
	version: '',
	tier: 'unknown',
	monthlyCost: null,
	jobs: [],
	settings: '',
	...more
});
const setup = (
	components: Component[],
	features: Record<string, boolean> = {},
	effortHours: number | null = null
): Setup => ({ components, features, effortHours });

describe('fairness', () => {
	const state = (lines: ReturnType<typeof fairnessOf>, id: string) => lines.find((line) => line.id === id)!.state;
	const side = (loads: LoadDigest[], setting: Setup | null = null, id = 1) => ({
		arm: arm(id, id === 1 ? 'A' : 'B', setting),
		loads,
		health: { condition: 'desktop', arm: id, loads: 8, failed: 0, excluded: 0 }
	});

	it('finds what is equal, different and unknown', () => {
		const lines = fairnessOf(design, side([plain()]), side([chatty()], null, 2), 0.9);
		expect(state(lines, 'browser')).to.equal('unknown');
		expect(state(lines, 'status')).to.equal('equal');
		expect(state(lines, 'third-parties')).to.equal('differs');
		expect(state(lines, 'picture')).to.equal('differs');
		expect(state(lines, 'words')).to.equal('equal');
		expect(state(lines, 'tiers')).to.equal('unknown');
		expect(state(lines, 'time')).to.equal('equal');
		expect(
			state(fairnessOf({ ...design, kind: 'before-after' }, side([plain()]), side([plain()]), null), 'time')
		).to.equal('differs');
		expect(lines.every((line) => line.meaning.length > 20)).to.equal(true);
	});

	it('sees that the browser was updated between stages, and that the machine was busier', () => {
		const on = (browser: string, before: number) =>
			digest(
				load('a.test', [], {
					environment: { ...recordOf().environment, browser, machineSpeed: { before, after: null } }
				})
			);
		const lines = fairnessOf(
			{ ...design, kind: 'before-after' },
			side([on('Chromium 155', 200)]),
			side([on('Chromium 156', 150)], null, 2),
			null
		);
		expect(lines.find((line) => line.id === 'browser')).to.deep.include({
			state: 'differs',
			values: ['Chromium 155', 'Chromium 156']
		});
		expect(state(lines, 'machine')).to.equal('differs');
		expect(restsOn(lines).map((line) => line.id)).to.include.members(['browser', 'machine']);
	});

	it('keeps differences on the verdict unless they are intended', () => {
		const lines = fairnessOf({ ...design, intended: ['picture'] }, side([plain()]), side([chatty()], null, 2), 0.5);
		expect(restsOn(lines).map((line) => line.id)).to.deep.equal([]);
		const other = fairnessOf(
			design,
			side([plain()]),
			side([digest(load('skerry.test', [], { page: page('Something else entirely here') }))], null, 2),
			1
		);
		expect(restsOn(other).map((line) => line.id)).to.deep.equal(['words']);
	});

	it('wants features and tiers level', () => {
		const lines = fairnessOf(
			design,
			side([plain()], setup([component('Larder', { tier: 'free' })], { Fonts: true, Form: true })),
			side([plain()], setup([component('Larder', { tier: 'paid' })], { Fonts: false, Form: true }), 2),
			1
		);
		expect(state(lines, 'tiers')).to.equal('differs');
		expect(lines.find((line) => line.id === 'features')!.meaning).to.match(/^Not level: Fonts/);
	});

	it('likens texts by their words', () => {
		expect(wordLikeness('one two three', 'Three, two: one!')).to.equal(1);
		expect(wordLikeness('one two', 'two three')).to.be.closeTo(1 / 3, 1e-9);
		expect(wordLikeness('', ' ')).to.equal(null);
	});
});

describe('what broke', () => {
	const withErrors = (consoleErrors: string[]) =>
		digest(load('skerry.test', [], { page: page('x', { consoleErrors }) }));
	const step = (status: 'ok' | 'failed') => ({
		number: 1,
		kind: 'click',
		words: 'Click #menu',
		status,
		message: null,
		atMs: 0,
		durationMs: 1,
		quietMs: 1,
		navigated: false,
		requests: 0,
		wireBytes: 0,
		cls: 0,
		inp: null
	});

	it('is what is new and not what was there before', () => {
		const before = [withErrors(['Failed at https://a.test/x.js:10']), plain()];
		const after = [
			withErrors(['Failed at https://b.test/x.js:99', 'menu is not defined']),
			withErrors(['menu is not defined'])
		];
		const broke = brokeOf(before, after, 0.01);
		expect(broke).to.deep.include({ newErrors: ['menu is not defined'], newFailures: [], broken: true });
		expect(wordBroke(broke, 'B')).to.equal('But “B” broke something: 1 new error in the console.');
		expect(brokeOf(before, before, null).broken).to.equal(false);
	});

	it('is a step that fails, and a request', () => {
		const before = [digest(load('a.test', [], { steps: [step('ok')] }))];
		const after = [
			digest(
				load('a.test', [{ url: 'https://a.test/menu.js', type: 'script', status: 404 }], { steps: [step('failed')] })
			)
		];
		const broke = brokeOf(before, after, 0);
		expect(broke.steps).to.deep.equal({ before: [1, 1], after: [0, 1], failed: '1. Click #menu' });
		expect(broke.newFailures).to.deep.equal(['own /menu.js']);
		expect(wordBroke(broke, 'B')).to.match(/step 1\. Click #menu fails, 1 new failed request/);
	});
});

describe('setups', () => {
	it('differ component by component, settings key by key', () => {
		const before = setup([
			component('Larder', { version: '3.1', settings: '{"minify":true,"ttl":600}' }),
			component('Old')
		]);
		const after = setup([
			component('larder', { version: '3.2', settings: '{"minify":true,"ttl":60,"delay":{"js":1}}' }),
			component('New')
		]);
		expect(setupDifferences(before, after)).to.deep.equal([
			{
				component: 'larder',
				kind: 'plugin',
				what: 'changed',
				fields: [
					{ name: 'version', before: '3.1', after: '3.2' },
					{ name: 'settings: delay.js', before: 'not set', after: '1' },
					{ name: 'settings: ttl', before: '600', after: '60' }
				]
			},
			{ component: 'New', kind: 'plugin', what: 'added', fields: [] },
			{ component: 'Old', kind: 'plugin', what: 'gone', fields: [] }
		]);
	});

	it('clash where two do what one should', () => {
		expect(
			exclusiveClashes(
				setup([component('Larder', { jobs: ['page cache'] }), component('Pantry', { jobs: ['page cache'] })])
			)[0]
		).to.match(/^Larder and Pantry both do the page cache/);
		expect(exclusiveClashes(setup([component('Larder', { jobs: ['page cache'] })]))).to.deep.equal([]);
	});

	it('cost what is known', () => {
		expect(
			monthlyCostOf(setup([component('A', { monthlyCost: 9 }), component('B', { monthlyCost: 5.5 }), component('C')]))
		).to.equal(14.5);
		expect(monthlyCostOf(setup([component('A')]))).to.equal(null);
	});
});

describe('worth and held back', () => {
	const result = (metric: 'score' | 'lcp', verdict: string, estimate: number) =>
		({
			metric,
			arm: 2,
			verdict,
			primary: true,
			shift: { estimate, low: estimate, high: estimate, relative: null }
		}) as ShiftResult;
	const priced = arm(2, 'B', setup([component('Larder', { monthlyCost: 12 })], {}, 20));
	const words = (...results: ShiftResult[]) => worthOf(results, arm(1, 'A'), priced).words;

	it('sets the gain that verdicts support against the price', () => {
		expect(worthOf([result('score', 'better', 12), result('lcp', 'better', -600)], arm(1, 'A'), priced)).to.include({
			points: 12,
			lcpMs: 600,
			monthlyCost: 12,
			hours: 20,
			words: 'It gains 12 points of score and 600\u00a0ms of largest paint for 12 more a month and 20 hours of work.'
		});
		// Common practice: from 1.3 s to 1.1 s is rarely worth 20 hours.
		expect(words(result('score', 'same', 1), result('lcp', 'same', -60))).to.equal(
			'No difference that matters: not worth more hours, nor 12 a month.'
		);
		expect(words(result('score', 'worse', -9))).to.match(
			/^It loses 9 points of score, on top of 12 more a month.*not worth it/
		);
		expect(worthOf([], arm(1, 'A'), arm(2, 'B')).words).to.equal('Neither score nor largest paint has a verdict.');
	});

	it('puts no figure of what is undecided into a claim', () => {
		const mixed = worthOf([result('score', 'worse', -18), result('lcp', 'undecided', -72)], arm(1, 'A'), priced);
		expect(mixed).to.include({ points: -18, lcpMs: null });
		expect(mixed.words).to.equal(
			'It loses 18 points of score, on top of 12 more a month and 20 hours of work: not worth it for speed. Largest paint is not decided.'
		);
		expect(words(result('score', 'slight', 4))).to.equal(
			'Score differs, perhaps too little to matter; the price is 12 more a month and 20 hours of work.'
		);
	});

	it('says what waits for interaction as a fact of one load, and is silent when little does', () => {
		const heldBack = (wireBytes: number, scriptMs: number) => ({
			nudgedAtMs: 0,
			settledMs: 0,
			requests: 30,
			wireBytes,
			decodedBytes: 0,
			scriptMs,
			figuresWith: { ...recordOf().figures, score: 61 }
		});
		expect(wordHeld({ heldBack: heldBack(50_000, 300), wire: 150_000 }, 'Hushed')).to.match(
			/^“Hushed” waits for interaction: in one load 30 requests, 50\.0.kB \(25.% of its bytes\) and 300.ms of script came only after the visitor moved\.$/
		);
		expect(wordHeld({ heldBack: heldBack(500, 10), wire: 150_000 }, 'Hushed')).to.equal('');
		expect(wordHeld(undefined, 'Hushed')).to.equal('');
	});
});

describe('stability of the served page', () => {
	const seen = (more: Partial<FetchSeen> = {}): FetchSeen => ({
		atMs: 0,
		status: 200,
		bytes: 10_000,
		etag: '"a"',
		lastModified: null,
		cacheControl: 'max-age=60',
		cache: 'hit',
		problem: null,
		...more
	});

	it('is three fetches alike, small changes of size allowed', () => {
		expect(isStable([seen(), seen({ bytes: 10_030 }), seen()])).to.equal(true);
		expect(isStable([seen(), seen()])).to.equal(false);
		expect(isStable([seen({ cache: 'miss' }), seen(), seen()])).to.equal(false);
		expect(isStable([seen({ cache: 'miss' }), seen(), seen(), seen()])).to.equal(true);
		expect(isStable([seen(), seen(), seen({ bytes: 12_000 })])).to.equal(false);
		expect(isStable([seen({ problem: 'x' }), seen({ problem: 'x' }), seen({ problem: 'x' })])).to.equal(false);
	});

	it('says what it saw', () => {
		expect(stabilityOf([seen(), seen(), seen({ atMs: 3100 })]).words).to.equal(
			'Stable after 3 fetches in 3.1\u00a0s, from a cache.'
		);
		expect(stabilityOf([seen(), seen(), seen({ etag: '"b"', bytes: 12_000, atMs: 30_000 })]).words).to.match(
			/^Not stable after 3 fetches in 30.s: the ETag, the size \(10000, 12000 bytes\) still changed/
		);
	});
});
