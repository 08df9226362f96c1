import { expect } from 'chai';
import type { MetricId } from '$core/metrics/catalogue';
import { eventsOf, findInHistory, hintsIn, type Change } from '$core/watch/history';
import { LEAST_READINGS } from '$core/watch/look';
import type { Setting } from '$core/watch/reading';
import { readingBefore, sinceReading } from '$core/watch/since';
import { describeQuiet } from '$core/wording/watch';
import { historyOf, SETTING, type HistoryWorld } from '../../support/histories';
import { USUAL_WATCH, watchWorld, type WatchWorld } from '../../support/watchWorlds';

const OPTIONS = { metrics: ['lcp'] as MetricId[], margins: null, readingsAQuarter: 13 };
const find = (world: HistoryWorld) => findInHistory([historyOf(world)], OPTIONS);

describe('the history of a watched page', () => {
	it('calls a step of a third with its interval, its two sides and the moment at which it was called', () => {
		const { changes } = find({ readings: 20, step: { at: 15, by: 0.35 } });
		expect(changes).to.have.length(1);
		const [change] = changes;
		expect(change).to.include({ before: 14, after: 15, metric: 'lcp', verdict: 'worse', isCorrected: true });
		expect(change!.calledAt).to.be.within(16, 18);
		// A third of 2 s is 0.7 s: inside the interval, which lies wholly beyond the margin of 100 ms.
		expect(change!.shift.low!).to.be.within(100, 700);
		expect(change!.shift.high!).to.be.above(700);
	});

	it('says the same later as it said on the day: a call stays as further readings come', () => {
		const world = { readings: 18, step: { at: 15, by: 0.35 } };
		const longer = historyOf({ ...world, readings: 30 });
		const early = findInHistory([{ ...longer, readings: longer.readings.slice(0, 18) }], OPTIONS).changes;
		const late = findInHistory([longer], OPTIONS).changes;
		expect(early).to.have.length(1);
		expect(late[0]).to.deep.equal(early[0]);
	});

	it('calls a gain and its loss as two steps', () => {
		const history = historyOf({ readings: 40, step: { at: 14, by: -0.4 }, seed: 3 });
		for (const { reading, figures } of history.readings)
			if (reading >= 28) figures.lcp = figures.lcp!.map((figure) => figure! / 0.6);
		const verdicts = findInHistory([history], OPTIONS).changes.map(({ after, verdict }) => [after, verdict]);
		expect(verdicts).to.deep.equal([
			[14, 'better'],
			[28, 'worse']
		]);
	});

	it('takes the lab’s own drift for no step of the page where a control page shows it', () => {
		const drifting = (hasControl: boolean, seed: number) => {
			const history = historyOf({ readings: 26, hasControl, seed, noise: 0.05 });
			// From the 16th reading on the lab is 20 % slower.
			for (const reading of history.readings.slice(15)) {
				reading.figures.lcp = reading.figures.lcp!.map((figure) => figure! * 1.2);
				if (reading.control) reading.control.lcp = reading.control.lcp!.map((figure) => figure! * 1.2);
			}
			return findInHistory([history], OPTIONS).changes.length;
		};
		const seeds = Array.from({ length: 20 }, (_, i) => i + 1);
		// 1.6 quarters at 5 % each: 5 and more of 20 have a chance of 2 % (binomial).
		expect(seeds.filter((seed) => drifting(true, seed) > 0).length).to.be.at.most(4);
		expect(seeds.filter((seed) => drifting(false, seed) > 0).length).to.be.at.least(17);
	});

	it('marks a single wild reading and calls nothing', () => {
		const history = historyOf({ readings: 20, noise: 0.03 });
		const wild = history.readings[11]!;
		wild.figures.lcp = wild.figures.lcp!.map((figure) => figure! * 2);
		const found = findInHistory([history], OPTIONS);
		expect(found.changes).to.deep.equal([]);
		expect(found.wild).to.deep.equal([{ page: 1, condition: 'phone', metric: 'lcp', reading: 12 }]);
	});

	it('never reads a change of the browser as the page’s, and says how the control moved over it', () => {
		const updated = { ...SETTING, browser: 'Chromium 141' };
		const history = historyOf({
			readings: 20,
			step: { at: 11, by: 0.5 },
			settingAt: (reading) => (reading >= 11 ? updated : SETTING)
		});
		const { changes, breaks } = findInHistory([history], OPTIONS);
		expect(changes).to.deep.equal([]);
		expect(breaks).to.have.length(1);
		expect(breaks[0]).to.deep.include({ reading: 11, parts: ['browser'], from: SETTING, to: updated });
		expect(breaks[0]!.control[0]!.metric).to.equal('lcp');
	});

	it('calls nothing before five readings, and nothing of figures that never move', () => {
		expect(find({ readings: 6, step: { at: 5, by: 1 } }).changes).to.deep.equal([]);
		const constant = historyOf({ readings: 20, noise: 0 });
		expect(findInHistory([constant], OPTIONS)).to.deep.include({ changes: [], breaks: [], wild: [] });
	});

	it('calls bytes that were always the same and are others now', () => {
		const { changes } = findInHistory(
			[historyOf({ readings: 14, noise: 0, level: 400_000, metric: 'wire', step: { at: 11, by: 0.2 } })],
			{ ...OPTIONS, metrics: ['wire'] }
		);
		expect(changes.map(({ after, verdict, shift }) => [after, verdict, Math.round(shift.estimate)])).to.deep.equal([
			[11, 'worse', 80_000]
		]);
	});

	it('makes few false calls beside drift of the lab, and finds most steps of 15 %', () => {
		const seeds = Array.from({ length: 60 }, (_, i) => i + 1);
		const isFalse = (seed: number) => find({ readings: 39, drift: 0.03, seed }).changes.length > 0;
		// Two whole quarters after the first: of 120, six may be false; twelve bound them for chance.
		expect(seeds.filter(isFalse).length).to.be.at.most(12);
		const isFound = (seed: number) =>
			find({ readings: 30, step: { at: 25, by: 0.15 }, loads: 15, seed }).changes.some(
				({ after, verdict }) => Math.abs(after - 25) <= 2 && verdict !== 'better'
			);
		expect(seeds.filter(isFound).length / seeds.length).to.be.above(0.8);
	});

	/** How many of some seeded worlds something holds in. */
	const count = (holds: (seed: number) => boolean, worlds = 20) =>
		Array.from({ length: worlds }, (_, i) => holds(i + 1)).filter(Boolean).length;
	const callsIn = (world: Partial<WatchWorld>, seed: number) => {
		const whole = { ...USUAL_WATCH, missing: 0, tail: 0, ...world };
		const { changes } = findInHistory(watchWorld(whole, seed).histories, { ...OPTIONS, metrics: whole.metrics });
		return changes.filter(({ page, condition, metric }) => page === 1 && condition === 'phone' && metric === 'lcp');
	};

	it('sees a step beside a metric that is steady within a reading and another one the next week', () => {
		const isSeen = (seed: number) =>
			callsIn({ bytes: 0.01, noise: 0.08, weeks: 33, step: { week: 30, by: 0.3 } }, seed).some(
				({ shift }) => shift.estimate > 0
			);
		expect(count(isSeen)).to.be.at.least(18);
	});

	it('calls four times as much from the first readings that it asks for', () => {
		const { changes } = find({ readings: LEAST_READINGS, step: { at: 6, by: 3 } });
		expect(changes.map(({ after, verdict }) => [after, verdict])).to.deep.equal([[6, 'worse']]);
	});

	it('takes no single bad week for a change', () => {
		for (const by of [0.2, 0.4]) {
			const bad = (seed: number) =>
				callsIn({ weeks: 32, step: { week: 25, by, until: 26, all: true } }, seed).length > 0;
			expect(count(bad)).to.be.at.most(4);
		}
	});

	it('goes on over updates of the browser, which the control page tells of', () => {
		const updates = { every: 4, spread: 0.03, own: 0.01 };
		const isSeen = (seed: number) => callsIn({ weeks: 35, step: { week: 30, by: 0.3 }, updates }, seed).length > 0;
		// One step in four falls on an update, and is nobody's.
		expect(count(isSeen, 15)).to.be.at.least(9);
		const isFalse = (seed: number) => callsIn({ weeks: 35, updates: { ...updates, spread: 0.1 } }, seed).length > 0;
		expect(count(isFalse, 15)).to.be.at.most(3);
	});

	it('sees that a page came back after three weeks', () => {
		const isSeen = (seed: number) => {
			const calls = callsIn({ weeks: 32, step: { week: 25, by: 0.3, until: 28 } }, seed);
			return calls.some(({ shift }) => shift.estimate > 0) && calls.some(({ shift }) => shift.estimate < 0);
		};
		expect(count(isSeen)).to.be.at.least(16);
	});

	it('tells a ramp as one change that grows', () => {
		const told = Array.from({ length: 10 }, (_, i) =>
			callsIn({ weeks: 40, ramp: { week: 20, by: 0.06, weeks: 8 } }, i + 1)
		);
		expect(told.filter((changes) => changes.length === 1).length).to.be.at.least(8);
		const [change] = told.find((changes) => changes.length === 1 && changes[0]!.grew.length > 0)!;
		// In the end 48 % more: what the newest part adds to the first.
		expect(change!.shift.relative).to.be.within(0.3, 0.6);
		expect(change!.grew[0]!.calledAt).to.be.above(change!.calledAt);
	});

	it('makes one event of what several metrics show at about the same time', () => {
		const base = { page: 1, condition: 'phone', calledAt: 16, grew: [] };
		const [lcp, score, cls] = [
			{ ...base, metric: 'lcp', after: 15 },
			{ ...base, metric: 'score', after: 14 },
			{ ...base, metric: 'cls', after: 18, calledAt: 19 }
		] as unknown as Change[];
		expect(eventsOf([lcp!, score!, cls!]).map((event) => event.map(({ metric }) => metric))).to.deep.equal([
			['lcp', 'score'],
			['cls']
		]);
	});

	it('asks for more loads of a page that may have moved', () => {
		const steady = historyOf({ readings: 12, noise: 0.02, page: 1 });
		const moved = historyOf({ readings: 12, noise: 0.02, page: 2, step: { at: 12, by: 0.2 } });
		expect(hintsIn([moved], OPTIONS)).to.deep.equal([{ page: 2, condition: 'phone' }]);
		expect(hintsIn([steady, moved], OPTIONS)).to.deep.include({ page: 2, condition: 'phone' });
	});
});

describe('a page against an earlier reading', () => {
	it('takes the reading of a week, four weeks, or the first', () => {
		const { readings } = historyOf({ readings: 10 });
		expect(readingBefore(readings, 'week')!.reading).to.equal(9);
		expect(readingBefore(readings, 'month')!.reading).to.equal(6);
		expect(readingBefore(readings, 'start')!.reading).to.equal(1);
		expect(readingBefore(readings.slice(0, 1), 'week')).to.equal(null);
	});

	it('says better or worse only where the history called a step in between', () => {
		const history = historyOf({ readings: 20, noise: 0.02, step: { at: 15, by: 0.35 } });
		const first = history.readings[0]!;
		const found = findInHistory([history], OPTIONS);
		expect(
			sinceReading(history, { before: first, metrics: ['lcp'], historyFindings: found, margins: null })[0]!.verdict
		).to.equal('worse');
		expect(
			sinceReading(history, {
				before: first,
				metrics: ['lcp'],
				historyFindings: { ...found, changes: [] },
				margins: null
			})[0]!.verdict
		).to.equal('undecided');
		// After the step nothing moved any more.
		const later = history.readings[16]!;
		expect(
			sinceReading(history, { before: later, metrics: ['lcp'], historyFindings: found, margins: null })[0]!.verdict
		).to.not.be.oneOf(['worse', 'better']);
	});

	it('compares nothing over a change of the lab', () => {
		const history = historyOf({
			readings: 8,
			settingAt: (reading) => (reading >= 5 ? { ...SETTING, lab: 'there' } : SETTING)
		});
		expect(
			sinceReading(history, {
				before: history.readings[0]!,
				metrics: ['lcp'],
				historyFindings: { changes: [], figures: [] },
				margins: null
			})
		).to.deep.equal([]);
	});
});

describe('how many readings are missing before a change can be told', () => {
	const other = { ...SETTING, browser: 'Chromium 141' };
	const missing = (world: HistoryWorld) => find(world).figures.map((figure) => figure.missing);
	const since = (setting: Setting, from: number) => (reading: number) => (reading >= from ? setting : SETTING);

	it('is seven less those that there are', () => {
		expect(missing({ readings: 1 })).to.deep.equal([LEAST_READINGS - 1]);
		expect(missing({ readings: 6 })).to.deep.equal([1]);
		expect(missing({ readings: 20 })).to.deep.equal([0]);
	});

	it('counts over an update that the control page tells of, and anew over other conditions or without a control', () => {
		expect(missing({ readings: 12, settingAt: since(other, 10) })).to.deep.equal([0]);
		expect(missing({ readings: 12, hasControl: false, settingAt: since(other, 10) })).to.deep.equal([4]);
		expect(missing({ readings: 12, settingAt: since({ ...SETTING, conditions: 'b' }, 10) })).to.deep.equal([4]);
		// Bytes are what they were, whatever the browser.
		const bytes = historyOf({ readings: 12, metric: 'wire', hasControl: false, settingAt: since(other, 10) });
		const found = findInHistory([bytes], { ...OPTIONS, metrics: ['wire'] });
		expect(found.figures[0]!.missing).to.equal(0);
	});

	it('counts where the control page can be used, and not where page and control share nothing', () => {
		const history = historyOf({ readings: 14, noise: 0.02, settingAt: since(other, 11) });
		// The update made the control half as slow again, and the page as it was.
		for (const { reading, control } of history.readings)
			if (reading >= 11) control!.lcp = control!.lcp!.map((figure) => figure! * 1.5);
		expect(findInHistory([history], OPTIONS).figures[0]!.missing).to.equal(3);
	});

	it('is said where nothing was called: that no change was found, or that none could be', () => {
		expect(describeQuiet(0)).to.equal('No change beyond the noise was found under these conditions.');
		expect(describeQuiet(1)).to.equal('One more reading before a change of every figure can be told.');
		expect(describeQuiet(3)).to.match(/^3 more readings before/);
	});
});
