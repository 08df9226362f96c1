import { expect } from 'chai';
import { assembleLoad, NO_EVIDENCE, type LoadEvidence, type PageEvidence } from '$core/load/record/assemble';
import type { PageFacts } from '$core/load/record/pageFacts';
import { weightsOf } from '$core/load/requests/weights';
import { recordOf, requestOf } from '../../support/records';

const FACTS: PageFacts = {
	timeOrigin: 0,
	responseStart: 200,
	domContentLoaded: 500,
	onload: 900,
	fcp: 600,
	lcp: { atMs: 800, size: 1, selector: 'h1', tag: 'h1', url: null, box: null, text: 'Ferries' },
	shifts: [{ atMs: 700, value: 0.05, recentInput: false, elements: [] }],
	longTasks: [{ startMs: 650, durationMs: 130 }],
	longFrames: [],
	interactions: [],
	marks: [{ name: 'seats', atMs: 400, durationMs: null }],
	shown: [
		{ selector: '#late', atMs: 750 },
		{ selector: '.never', atMs: null }
	],
	renderBlocking: ['https://a.test/s.css'],
	page: {
		title: 'Ferries',
		language: 'en',
		viewport: null,
		elements: 120,
		depth: 9,
		deepestPath: null,
		widestParent: null,
		images: [],
		fonts: [],
		emptySlots: [],
		inline: [],
		text: '',
		overlay: null,
		signature: [1, 2]
	}
};
const page = (offsetMs = 0): PageEvidence => ({
	facts: FACTS,
	offsetMs,
	finalUrl: 'https://a.test/x',
	redirects: [],
	consoleErrors: []
});
const FRAMES = {
	records: [
		{ atMs: 0, progress: 0 },
		{ atMs: 600, progress: 0.5 },
		{ atMs: 800, progress: 1 }
	],
	startRenderMs: 600
};
const REQUESTS = [
	requestOf({ url: 'https://a.test/x', type: 'document', wireBytes: 1000, decodedBytes: 3000, endMs: 300 }),
	requestOf({ url: 'https://a.test/s.css', type: 'stylesheet', wireBytes: 500, decodedBytes: 900, endMs: 450 }),
	requestOf({ url: 'https://a.test/kept.js', type: 'script', wireBytes: 0, decodedBytes: 700, fromCache: true }),
	requestOf({
		url: 'https://a.test/late.js',
		type: 'script',
		wireBytes: 40,
		decodedBytes: 50,
		during: 'nudge',
		endMs: 5000
	})
];
const assemble = (evidence: Partial<LoadEvidence>, begun = recordOf()) =>
	assembleLoad(begun, { ...NO_EVIDENCE, requests: REQUESTS, ...evidence });

describe('a record put together from evidence', () => {
	it('counts what went to the network until the page had settled', () => {
		expect(assemble({}).figures).to.include({ wire: 1500, decoded: 3900, requests: 2, lcp: null, score: null });
	});

	it('has its moments on its own clock, whenever the page’s began', () => {
		// Worked by hand: 100 ms later throughout; TBT is 130 - 50 = 80 of a task after FCP; full is the last response
		// before two quiet seconds after the load event; Speed Index 600 x 1 + 200 x 0.5 = 700.
		const { figures, shifts, marks, settledMs } = assemble({ page: page(100), frames: FRAMES });
		expect(figures).to.include({ ttfb: 300, fcp: 700, lcp: 900, dcl: 600, onload: 1000, tbt: 80, cls: 0.05 });
		expect(figures).to.include({ start: 600, si: 700, vc: 800, elements: 120, depth: 9 });
		expect([shifts[0]!.atMs, marks[0]!.atMs, settledMs]).to.deep.equal([800, 500, 1000]);
	});

	it('marks what blocked rendering and what was never used', () => {
		const unused = { script: 10, style: 300, byUrl: new Map([['https://a.test/s.css', 300]]) };
		const { requests, figures } = assemble({ page: page(), unused });
		expect(requests.map((request) => [request.renderBlocking, request.unused]).slice(0, 3)).to.deep.equal([
			[null, null],
			['blocking', 300],
			[null, null]
		]);
		expect(figures).to.include({ unusedJs: 10, unusedCss: 300 });
	});

	it('leaves what it began with as it was, and a load that never settled without figures of its page', () => {
		const begun = recordOf({ status: 'failed' });
		const before = structuredClone(begun);
		const record = assemble({ frames: FRAMES }, begun);
		expect(begun).to.deep.equal(before);
		expect(record.frames).to.have.length(3);
		expect(record.figures.ttfb).to.equal(null);
	});

	it('tells what began only after a nudge apart, and what the score had been with it', () => {
		const seen = (atMs: number) => ({
			timeOrigin: 0,
			interactions: [],
			tasks: [{ startMs: 4000, durationMs: 250 }],
			shifts: [{ atMs, value: 0.1, recentInput: false }]
		});
		const heldBack = (atMs: number) => {
			const nudge = { atEpochMs: 1900, endEpochMs: 9900, scriptMs: 20.4, seen: seen(atMs), zeroEpochMs: 900 };
			return assemble({ page: page(), nudge }).heldBack!;
		};
		expect(heldBack(9000)).to.include({ nudgedAtMs: 1000, settledMs: 9000, requests: 1, wireBytes: 40, scriptMs: 20 });
		expect(heldBack(9000).figuresWith).to.include({ wire: 1540, requests: 3, tbt: 280 });
		// A shift 800 ms after the load's own joins its window; one seven seconds later forms a window of its own.
		expect(heldBack(2400).figuresWith.cls).to.be.closeTo(0.15, 1e-12);
		expect(heldBack(8600).figuresWith.cls).to.be.closeTo(0.1, 1e-12);
	});

	it('takes INP from a journey’s interactions where there was one', () => {
		const journey = { steps: [], interactions: [40, 120, 90] };
		expect(assemble({ page: page(), journey }).figures.inp).to.equal(120);
	});
});

describe('weights', () => {
	const requests = [requestOf({ wireBytes: 100, decodedBytes: 200 }), requestOf({ wireBytes: null, decodedBytes: 50 })];

	it('take what is unknown for nothing, or let it make the sum unknown', () => {
		expect(weightsOf(requests, 0)).to.deep.equal({ wire: 100, decoded: 250, requests: 2 });
		expect(weightsOf(requests, null)).to.deep.equal({ wire: null, decoded: 250, requests: 2 });
	});
});
