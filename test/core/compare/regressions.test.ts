import { expect } from 'chai';
import { findRegressions } from '$core/compare/regressions';
import { describeRegressions } from '$core/wording/regressions';
import { digest, load, page, plain } from '../../support/digests';

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
		awaited: false,
		shownMs: null,
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
		const broke = findRegressions(before, after, 0.01);
		expect(broke).to.deep.include({ newErrors: ['menu is not defined'], newFailures: [], broken: true });
		expect(describeRegressions(broke, 'B')).to.equal('But “B” broke something: 1 new error in the console.');
		expect(findRegressions(before, before, null).broken).to.equal(false);
	});

	it('is a step that fails, and a request', () => {
		const before = [digest(load('a.test', [], { steps: [step('ok')] }))];
		const after = [
			digest(
				load('a.test', [{ url: 'https://a.test/menu.js', type: 'script', status: 404 }], { steps: [step('failed')] })
			)
		];
		const broke = findRegressions(before, after, 0);
		expect(broke.steps).to.deep.equal({ before: [1, 1], after: [0, 1], failed: '1. Click #menu' });
		expect(broke.newFailures).to.deep.equal(['own /menu.js']);
		expect(describeRegressions(broke, 'B')).to.match(/step 1\. Click #menu fails, 1 new failed request/);
	});

	it('names what is gone beside what broke, not alone: the change may be for that', () => {
		const chat = { url: 'https://bell.test/bell.js', type: 'script' };
		const before = [digest(load('a.test', [chat]))];
		const clean = findRegressions(before, [digest(load('a.test'))], null);
		expect(clean.vanished).to.deep.equal(['bell.test/bell.js']);
		expect([clean.broken, describeRegressions(clean, 'B')]).to.deep.equal([false, '']);
		const lost = load('a.test', [{ url: 'https://a.test/menu.js', type: 'script', status: 404 }]);
		const broken = findRegressions(before, [digest(lost)], 0.12);
		expect(describeRegressions(broken, 'B')).to.equal(
			'But “B” broke something: 1 new failed request, 1 request of the baseline gone, 12 % of the picture differs.'
		);
	});
});
