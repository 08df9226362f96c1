import { expect } from 'chai';
import { assess, failing } from '$core/field/assessment';
import { guessReadingColumns, readingOfLine } from '$core/field/csvReadings';
import type { FieldReading } from '$core/field/reading';
import { addDays, daysBetween, overlapOf, shareAfter, windowEnds, windowStart } from '$core/field/windows';
import { describeAssessment, describeScope, describeTally } from '$core/wording/field';
import { placeWindows } from '../../../src/lib/charts/windowsLayout';
import { barsOf } from '../../../src/lib/charts/fieldBars';

const metrics = (p75s: Partial<Record<'lcp' | 'inp' | 'cls', number>>): FieldReading['metrics'] =>
	Object.fromEntries(Object.entries(p75s).map(([id, p75]) => [id, { p75, shares: [1, 0, 0], bins: [] }]));

describe('the assessment of field data', () => {
	// web.dev, "Defining the Core Web Vitals metrics thresholds": good up to 2.5 s, 200 ms, 0.1, each included.
	it('passes when LCP, INP and CLS are all good at the 75th percentile', () => {
		expect(assess(metrics({ lcp: 2500, inp: 200, cls: 0.1 }))).to.equal('passes');
		expect(assess(metrics({ lcp: 2501, inp: 200, cls: 0.1 }))).to.equal('does-not');
		expect(assess(metrics({ lcp: 1000, inp: 201, cls: 0.1 }))).to.equal('does-not');
		expect(failing(metrics({ lcp: 2600, inp: 50, cls: 0.3 }))).to.deep.equal(['lcp', 'cls']);
	});

	it('does without INP, not without the others', () => {
		expect(assess(metrics({ lcp: 2000, cls: 0.05 }))).to.equal('passes');
		expect(assess(metrics({ lcp: 2000, inp: 100 }))).to.equal('not-enough-visits');
	});

	it('keeps apart what nobody asked, what nobody answered, and too few visits', () => {
		expect(assess(null)).to.equal('not-enough-visits');
		for (const absence of ['not-asked', 'no-answer'] as const) {
			expect(assess(null, absence)).to.equal('no-data');
			expect(describeAssessment(null, absence)).to.equal('no data yet');
		}
		expect(describeScope(null, 'not-asked')).to.equal('not asked yet');
		expect(describeScope(null, 'no-answer')).to.equal('asked without an answer');
		expect(describeScope(null, 'too-few')).to.equal('too few visits, to the page and to the whole site');
	});

	it('is told with its scope, and in a tally', () => {
		expect(describeScope('origin', 'too-few')).to.equal('all pages of the site: this one has too few visits');
		expect(describeScope('origin', 'not-asked')).to.equal('all pages of the site');
		expect(describeAssessment(metrics({ lcp: 2000, inp: 90, cls: 0.05 }))).to.equal('good on all three');
		expect(describeAssessment(metrics({ lcp: 2000, cls: 0.05 }))).to.equal('good on LCP and CLS');
		expect(describeAssessment(metrics({ lcp: 2600, inp: 250, cls: 0.05 }))).to.equal('misses LCP, INP');
		const tally = describeTally('phone', ['passes', 'does-not', 'does-not', 'not-enough-visits', 'no-data']);
		expect(tally).to.equal(
			'On phones 1 of 5 pages is good on Core Web Vitals, 2 miss at least one, one has too few visits, one has no data yet'
		);
	});
});

describe('windows of 28 days', () => {
	it('end on a day and begin 27 days before it, over months and leap days', () => {
		expect(windowStart('2026-11-26')).to.equal('2026-10-30');
		expect(windowStart('2028-03-14')).to.equal('2028-02-16');
		expect(daysBetween('2026-10-24', '2026-10-26')).to.equal(2);
		expect(addDays('2026-12-31', 1)).to.equal('2027-01-01');
		expect(windowEnds('2026-11-26', 3, 7)).to.deep.equal(['2026-11-12', '2026-11-19', '2026-11-26']);
	});

	it('a week apart share three quarters of their days', () => {
		expect(overlapOf('2026-11-26', '2026-11-19')).to.equal(0.75);
		expect(overlapOf('2026-11-26', '2026-10-29')).to.equal(0);
	});

	it('show a step as a ramp', () => {
		const ends = windowEnds('2026-11-30', 5, 7);
		// From 3 November on: windows that end on the 2nd, 9th, 16th, 23rd, 30th hold 0, 7, 14, 21, 28 such days.
		expect(ends.map((until) => shareAfter(until, '2026-11-03'))).to.deep.equal([0, 0.25, 0.5, 0.75, 1]);
	});

	it('are drawn as wide as they are', () => {
		const windows = [
			{ from: '2026-01-01', until: '2026-01-28', value: 2000 },
			{ from: '2026-01-15', until: '2026-02-11', value: 1000 }
		];
		const { placed, top } = placeWindows(windows, [2500]);
		expect(top).to.be.closeTo(2750, 1e-9);
		// 42 days in all; the second begins after 14 of them.
		expect(placed.map(({ x, width, y }) => [x * 42, width * 42, Number(((1 - y) * top).toFixed(6))])).to.deep.equal([
			[0, 28, 2000],
			[14, 28, 1000]
		]);
		expect(placeWindows([], [])).to.deep.equal({ placed: [], top: 1 });
	});

	it('have histograms whose bars hold all that is drawn', () => {
		const bins: [number, number][] = [
			[0, 0.5],
			[1000, 0.4],
			[3000, 0.1]
		];
		const { bars, p75, good } = barsOf(bins, 1625, { good: 2500, poor: 4000 });
		const whole = bars.reduce((sum, { height }) => sum + height, 0);
		// Half of the visits lie below 1,000, where bins are even.
		const end = 3300;
		const below = bars.filter(({ x, width }) => (x + width) * end <= 1000).reduce((sum, { height }) => sum + height, 0);
		expect(below / whole).to.be.closeTo(0.5, 0.03);
		expect([p75 * end, good * end].map(Math.round)).to.deep.equal([1625, 2500]);
		expect(bars[0]!.band).to.equal('good');
	});
});

describe('a table of readings', () => {
	const head = ['Page', 'Device', 'Last day', 'LCP p75', 'CLS p75'];
	const columns = guessReadingColumns(head)!;
	const read = (...cells: string[]) => readingOfLine(cells, columns, '.', '2026-11-26');

	it('is told apart by its heading', () => {
		expect(columns).to.deep.equal({
			address: 0,
			device: 1,
			until: 2,
			lcp: 3,
			inp: null,
			cls: 4,
			fcp: null,
			ttfb: null
		});
		expect(guessReadingColumns(['a', 'b'])).to.equal(null);
	});

	it('has times in ms or in seconds, and origins without a path', () => {
		const page = read('https://own.test/a', 'Mobile', '2026-11-20', '2310', '0.08');
		expect(page).to.deep.equal({
			scope: 'page',
			url: 'https://own.test/a',
			device: 'phone',
			from: '2026-10-24',
			until: '2026-11-20',
			metrics: { lcp: { p75: 2310, shares: null, bins: [] }, cls: { p75: 0.08, shares: null, bins: [] } }
		});
		expect(read('https://own.test', 'desktop', '2026-11-20T00:00', '2.31 s', '')).to.deep.include({
			scope: 'origin',
			metrics: { lcp: { p75: 2310, shares: null, bins: [] } }
		});
	});

	it('says why a line is none', () => {
		expect(read('Total', 'phone', '2026-11-20', '1', '')).to.deep.equal({ fault: 'no-address' });
		expect(read('https://own.test/', 'tablet', '2026-11-20', '900', '')).to.deep.equal({ fault: 'no-device' });
		expect(read('https://own.test/', 'phone', '20/11/2026', '900', '')).to.deep.equal({ fault: 'no-day' });
		expect(read('https://own.test/', 'phone', '2026-11-20', 'n/a', '')).to.deep.equal({ fault: 'no-figures' });
		expect(read('https://own.test/', 'phone', '2026-11-20', '2310000', '')).to.deep.equal({ fault: 'implausible' });
	});
});
