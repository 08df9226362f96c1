import { expect } from 'chai';
import { awaitedAfter, stepFigures } from '$core/load/vitals/stepFigures';
import type { Step } from '$core/load/journey/steps';

describe('the time of a step', () => {
	const act = (more: object = {}) => ({
		kind: 'click',
		status: 'ok' as const,
		awaited: true,
		shownMs: 420,
		quietMs: 600,
		...more
	});
	const expectation = act({ kind: 'expect', awaited: false, shownMs: null, quietMs: null });

	it('is that of all acts together, until their content and until quiet', () => {
		const second = act({ kind: 'open', shownMs: 1000, quietMs: 1500 });
		expect(stepFigures([act(), expectation, second, expectation])).to.deep.equal({ stepShown: 1420, stepQuiet: 2100 });
	});

	it('counts no pauses, and has no time until content where nothing is awaited', () => {
		const pause = act({ kind: 'wait', awaited: false, shownMs: null, quietMs: 5000 });
		expect(stepFigures([act({ awaited: false, shownMs: null }), pause])).to.deep.equal({
			stepShown: null,
			stepQuiet: 600
		});
	});

	it('is not measured when a step failed, or when what was awaited had been there before', () => {
		const none = { stepShown: null, stepQuiet: null };
		expect(stepFigures([act(), act({ status: 'failed', shownMs: null, quietMs: null })])).to.deep.equal(none);
		expect(stepFigures([act(), act({ shownMs: null })])).to.deep.equal({ stepShown: null, stepQuiet: 1200 });
		expect(stepFigures([])).to.deep.equal(none);
	});

	it('is awaited as the next step says, a pause awaits nothing', () => {
		const steps: Step[] = [
			{ click: '#a' },
			{ expect: { text: 'Fares' } },
			{ open: '/b' },
			{ wait: { selector: '#late' }, within: 9000 },
			{ scroll: 'bottom' },
			{ wait: 500 },
			{ mark: 'end' }
		];
		expect(steps.map((_, i) => awaitedAfter(steps, i))).to.deep.equal([
			{ state: { text: 'Fares' }, withinMs: 2000 },
			null,
			{ state: { selector: '#late' }, withinMs: 9000 },
			null,
			null,
			null,
			null
		]);
	});
});
