import { expect } from 'chai';
import { explainShift } from '$core/compare/why';
import { describeCause } from '$core/wording/causes';
import { digest, load, page } from '../../support/digests';

/** A page whose one step takes so long, brings a document or not, and asks for so much. */
function stepping(shownMs: number, { navigated = false, requests = 1, wireBytes = 5000 } = {}) {
	const step = {
		number: 1,
		kind: 'click',
		words: 'Click #fares',
		status: 'ok' as const,
		message: null,
		atMs: 3000,
		durationMs: 5,
		quietMs: shownMs + 200,
		awaited: true,
		shownMs,
		navigated,
		requests,
		wireBytes,
		cls: 0,
		inp: 60
	};
	const steps = [step];
	const figures = { stepShown: shownMs, stepQuiet: shownMs + 200 };
	return digest(load('a.test', [], { page: page('Fares'), steps, figures }));
}
const causesOf = (before: ReturnType<typeof stepping>[], after: ReturnType<typeof stepping>[]) =>
	explainShift(before, after).causes.filter(({ kind }) => kind.startsWith('step-'));

describe('why a step takes another time', () => {
	it('is that it opens a whole document where the other changes part of the page', () => {
		const [first] = causesOf([stepping(300)], [stepping(1100, { navigated: true, requests: 9 })]);
		expect(first).to.include({ kind: 'step-document', shift: 800 });
		expect(describeCause(first!)).to.equal('The steps open more whole documents; they take 800\u00a0ms longer.');
		const [back] = causesOf([stepping(1100, { navigated: true })], [stepping(300)]);
		expect(describeCause(back!)).to.match(
			/open fewer whole documents and change part of the page instead; they take 800.ms less/
		);
	});

	it('or that it asks for more', () => {
		const [first] = causesOf([stepping(300)], [stepping(700, { requests: 4, wireBytes: 90_000 })]);
		expect(first).to.include({ kind: 'step-requests', shift: 400 });
		expect(describeCause(first!)).to.equal('The steps ask for more; they take 400\u00a0ms longer.');
	});

	it('is not told where work and time point different ways, or where there are no steps', () => {
		expect(causesOf([stepping(700)], [stepping(300, { requests: 4 })])).to.deep.equal([]);
		expect(causesOf([digest(load('a.test'))], [digest(load('a.test'))])).to.deep.equal([]);
	});
});
