import { expect } from 'chai';
import { TRUTHS, type Truth } from '../../demo-web/special/truth';
import { BUILT_IN_CONDITIONS, type Conditions } from '$core/load/conditions/conditions';
import type { LoadRecord } from '$core/load/record/record';
import type { Step } from '$core/load/journey/steps';
import { shiftWindows } from '$core/load/vitals/vitals';
import { Lab } from '../../src/lab/lab';
import { startDemoWeb, type RunningWorld, UNWATCHED } from '../support/world';

/** At 60 frames a second. */
const FRAME_MS = 1000 / 60;
const [PHONE, DESKTOP] = BUILT_IN_CONDITIONS as [Conditions, Conditions];

describe('pages of known truth', () => {
	let web: RunningWorld;
	let lab: Lab;
	before(async () => {
		web = await startDemoWeb();
		lab = new Lab({ calm: UNWATCHED, hostMap: web.rules, trustedKeys: [web.keyHash] });
	});
	after(async () => {
		await lab.close();
		web.close();
	});

	const number = ({ expected }: Truth, name: string) => expected[name] as { value: number; tolerance: number };
	async function load(path: string, conditions = DESKTOP): Promise<LoadRecord> {
		const { record } = await lab.measure({ url: `https://truth.test${path}`, conditions, steps: [] });
		expect(record.failure).to.equal(null);
		return record;
	}

	it('LCP: the element, its address, and not before its server let it go', async () => {
		const record = await load('/lcp');
		const truth = TRUTHS['/lcp']!;
		expect(record.lcp!.selector).to.equal(truth.expected.lcpElement);
		expect(record.lcp!.url).to.match(new RegExp(`${String(truth.expected.lcpUrl)}$`));
		// Look-up of the address, handshake, TLS, and a round trip each for the page and the image.
		const roundTrips = 4 * DESKTOP.network.roundTripMs;
		expect(record.figures.lcp).to.be.at.least(number(truth, 'lcpAtLeast').value + roundTrips - 2);
		expect(record.lcp!.size).to.equal(800 * 500);
	});

	for (const conditions of [PHONE, DESKTOP])
		it(`CLS: two windows, the larger one counts (${conditions.id})`, async function () {
			// A page that is stopped for a second by the machine moves its shifts together.
			this.retries(2);
			const record = await load('/cls', conditions);
			const { width, height } = conditions.device;
			const truth = TRUTHS['/cls']!;
			expect(shiftWindows(record.shifts)).to.have.length(number(truth, 'windows').value);
			const { value, tolerance } = number(truth, 'clsByHeight');
			expect((record.figures.cls! * Math.max(width, height)) / height).to.be.closeTo(value, tolerance);
		});

	it('long tasks: how many and how much of them blocks', async () => {
		const truth = TRUTHS['/tasks']!;
		const { value, tolerance } = number(truth, 'tbt');
		// A shared machine can stop a page's thread at any moment: the calmest of a few loads is the page's own.
		const records: LoadRecord[] = [];
		const calmest = () => records.toSorted((a, b) => a.figures.tbt! - b.figures.tbt!)[0]!;
		do records.push(await load('/tasks'));
		while (records.length < 5 && Math.abs(calmest().figures.tbt! - value) > tolerance);
		expect(calmest().figures.tbt).to.be.closeTo(value, tolerance);
		expect(calmest().longTasks.length).to.be.at.least(number(truth, 'longTasks').value);
	});

	it('unused: style that matches nothing and script that never runs, by the byte', async () => {
		const { figures } = await load('/unused');
		const truth = TRUTHS['/unused']!;
		for (const name of ['unusedCss', 'unusedJs'] as const) {
			const { value, tolerance } = number(truth, name);
			expect(figures[name], name).to.be.closeTo(value, tolerance);
		}
	});

	it('DOM: elements and depth', async () => {
		const record = await load('/dom');
		const truth = TRUTHS['/dom']!;
		expect(record.figures.elements).to.equal(number(truth, 'elements').value);
		expect(record.figures.depth).to.equal(number(truth, 'depth').value);
	});

	it('a step’s time until its content: within a frame of what the page says, and the same content by a full load', async function () {
		// A frame that a busy machine leaves out is no error of the lab's.
		this.retries(2);
		const outer = { selector: '#sailings[data-island="outer"]' };
		const load = async (first: Step) => {
			const url = 'https://by-island.skerry-line.test/timetable';
			const { record } = await lab.measure({ url, conditions: DESKTOP, steps: [first, { expect: outer }] });
			expect(record.steps.map(({ status, awaited }) => [status, awaited])).to.deep.equal([
				['ok', true],
				['ok', false]
			]);
			return record;
		};
		const click = await load({ click: '[data-sailings=outer]' });
		const told = click.requests.find(({ url }) => url.includes('/timetable/drawn'))!;
		const drawnMs = Number(new URL(told.url).searchParams.get('ms'));
		const [step] = click.steps;
		expect(step!.atMs + step!.shownMs!).to.be.closeTo(drawnMs, FRAME_MS);
		const whole = await load({ open: '/timetable?island=outer' });
		expect(whole.steps[0]).to.include({ navigated: true });
		expect(whole.figures.stepShown!).to.be.above(click.figures.stepShown!);
	});

	it('faults of the world end in a load with their reason, and the next load is clean', async () => {
		const hasty = { ...DESKTOP, capMs: 2000, quietMs: 300 };
		const table: [path: string, code: string | null][] = [
			['/status/503', 'http-status'],
			['/loop', 'redirect-loop'],
			['/download', 'download'],
			['/reset', 'network'],
			['/silent', 'no-answer'],
			['/endless-image', 'time-out'],
			['/endless-script', 'time-out'],
			['/authentication', 'http-status'],
			['/chain?n=3', null],
			['/alert', null],
			['/beforeunload', null],
			['/popup', null],
			['/meta-refresh', null],
			['/navigates-away', null],
			['/cookie-wall', null],
			['/service-worker', null],
			['/frames', null],
			['/shadow', null]
		];
		for (const [path, code] of table) {
			const { record } = await lab.measure({ url: `https://faults.test${path}`, conditions: hasty, steps: [] });
			expect(record.failure?.code ?? null, `${path}: ${record.failure?.message}`).to.equal(code);
		}
		expect((await load('/dom')).figures.elements).to.equal(number(TRUTHS['/dom']!, 'elements').value);
	});
});
