import { expect } from 'chai';
import type { MetricId } from '$core/metrics/catalogue';
import type { Change } from '$core/watch/history';
import type { PageTrouble } from '$core/watch/trouble';
import { formatAge } from '$core/wording/format';
import {
	describeControl,
	describeParts,
	describeSchedule,
	describeTrouble,
	figuresOfChanges,
	reasonsOfChanges,
	titleOfBreak,
	titleOfChanges,
	whenOfChange
} from '$core/wording/watch';
import { SETTING } from '../../support/histories';

function change(metric: MetricId, verdict: Change['verdict'], candidate: Partial<Change> = {}): Change {
	return {
		page: 1,
		condition: 'phone',
		metric,
		before: 4,
		after: 5,
		calledAt: 6,
		grew: [],
		from: 2400,
		to: 3000,
		shift: { estimate: 600, low: 400, high: 800, relative: 0.25 },
		margin: 120,
		verdict,
		isCorrected: true,
		...candidate
	};
}

describe('what is said of a change', () => {
	const title = (...changes: Change[]) => titleOfChanges(changes, '/booking', 'phone');

	it('names what was decided and its direction, and nothing that was not', () => {
		expect(title(change('lcp', 'worse'), change('cls', 'same'))).to.equal(
			'Largest paint of /booking (phone) got worse'
		);
		expect(title(change('lcp', 'better'), change('wire', 'better'))).to.equal(
			'Largest paint and bytes of /booking (phone) got better'
		);
	});

	it('takes no side where figures went both ways', () => {
		expect(title(change('lcp', 'worse'), change('tbt', 'better'))).to.equal(
			'Largest paint and blocking time of /booking (phone) changed'
		);
	});

	it('gives a difference whose size is open its direction, and none to what is too little', () => {
		expect(title(change('lcp', 'slight'))).to.equal(
			'Largest paint of /booking (phone) got worse (by how much is open)'
		);
		expect(title(change('lcp', 'same'))).to.equal('Largest paint of /booking (phone) moved by less than matters');
	});

	it('gives each figure with its interval', () => {
		const [line] = figuresOfChanges([change('lcp', 'worse'), change('cls', 'same')]);
		expect(line).to.equal(
			'Largest Contentful Paint: “after” is slower than “before”: 3.00\u00a0s against 2.40\u00a0s, 600\u00a0ms more (between 400\u00a0ms more and 800\u00a0ms more), 25\u00a0% of 2.40\u00a0s.'
		);
		expect(figuresOfChanges([change('lcp', 'worse'), change('cls', 'same')])).to.have.length(1);
	});

	it('says that a cause is one load’s on each side, and where none is seen', () => {
		expect(reasonsOfChanges([change('lcp', 'worse')], ['the chat was added'])).to.deep.equal([
			'Most likely cause, by one load on each side: the chat was added',
			'What the lab itself drifted, by its control page, is taken off.'
		]);
		expect(reasonsOfChanges([change('lcp', 'worse', { isCorrected: false })], [])).to.deep.equal([
			'The loads that are kept of both sides show no cause.',
			'The control page did not help here: the figures are as measured.'
		]);
	});

	it('names days in full', () => {
		expect(whenOfChange('2026-10-27T04:10:00Z', '2026-11-03T10:40:00Z')).to.equal(
			'between 27 October 2026 and 3 November 2026'
		);
	});
});

describe('what is said of the lab', () => {
	const to = { ...SETTING, browser: 'Chromium 141', conditions: 'b' };

	it('names what changed, and never a hash', () => {
		expect(titleOfBreak({ parts: ['browser', 'conditions'], control: [] })).to.match(
			/^The browser and The conditions changed: .* cannot be compared/
		);
		const control = [{ metric: 'lcp' as const, from: 400, to: 420 }];
		expect(titleOfBreak({ parts: ['browser'], control })).to.equal(
			'The browser changed: what that did to the control page is taken off what was measured before'
		);
		expect(describeParts({ parts: ['browser', 'conditions'], from: SETTING, to })).to.equal(
			'Chromium 140 to Chromium 141'
		);
	});

	it('tells how the control moved, in the metrics that are watched, or that nobody knows', () => {
		const control = [
			{ metric: 'lcp' as const, from: 600, to: 630 },
			{ metric: 'fcp' as const, from: 500, to: 700 }
		];
		expect(describeControl(control, ['lcp']))
			.to.include('+30\u00a0ms LCP')
			.and.not.include('FCP');
		expect(describeControl([], ['lcp'])).to.match(/is not known/);
	});

	it('says when it reads', () => {
		expect(describeSchedule({ every: 'pattern', pattern: '30 6 * * 1', timeZone: 'UTC' })).to.equal(
			'by the pattern 30 6 * * 1'
		);
	});

	it('says ages in the unit that people would', () => {
		const HOUR = 3_600_000;
		expect([0.5, 1, 25, 24 * 7].map((hours) => formatAge(hours * HOUR))).to.deep.equal([
			'30 minutes',
			'1 hour',
			'25 hours',
			'7 days'
		]);
	});
});

describe('what is said of a page in trouble', () => {
	const trouble = (candidate: Partial<PageTrouble>): string =>
		describeTrouble({ failed: [], redirectedTo: null, asksWhoOneIs: false, likeness: null, ...candidate });

	it('says when a page came that is built otherwise, or no page at all', () => {
		expect(trouble({ likeness: 0.123 })).to.equal(
			'Another template, or rebuilt: about 12 % of the markup is as in the reading before'
		);
		expect(trouble({ failed: [{ code: 'download', status: 200, loads: 5 }] })).to.equal(
			'5 loads failed: a file came that no browser shows as a page'
		);
		// As troubles were kept before likeness was known.
		expect(describeTrouble({ failed: [], redirectedTo: null, asksWhoOneIs: false } as unknown as PageTrouble)).to.equal(
			''
		);
	});

	it('puts what explains most first', () => {
		expect(trouble({ failed: [{ code: 'http-status', status: 410, loads: 5 }] })).to.equal(
			'The page is gone (status 410)'
		);
		expect(trouble({ redirectedTo: 'https://own.test/login', asksWhoOneIs: true })).to.equal(
			'The page asks to sign in'
		);
		expect(trouble({ redirectedTo: 'https://own.test/new' })).to.equal('The page leads to https://own.test/new');
		expect(trouble({ failed: [{ code: 'time-out', status: null, loads: 2 }] })).to.equal(
			'2 loads failed: it took too long'
		);
		expect(trouble({ failed: [{ code: 'crash', status: null, loads: 1 }] })).to.equal(
			'A load failed: it could not be loaded'
		);
	});
});
