import { expect } from 'chai';
import { suggestedRounds } from '$core/trial/judge/moreRounds';

describe('rounds that would decide what is open', () => {
	/** Results after ten rounds that need so many in all. */
	const open = (...needed: (number | null)[]) =>
		needed.map((roundsNeeded) => ({ primary: true, verdict: 'undecided' as const, roundsNeeded, n: 10 }));

	it('are offered where something can be decided by them, and never of stages', () => {
		expect(suggestedRounds('side-by-side', open(49))).to.equal(39);
		expect(suggestedRounds('before-after', open(49))).to.equal(null);
		expect(suggestedRounds('side-by-side', open(null))).to.equal(null);
		// 201 stands for any number beyond 200, of which the answer says that a calmer machine helps more.
		expect(suggestedRounds('side-by-side', open(201))).to.equal(null);
	});

	it('are as many as are missing, or a few where few would do', () => {
		expect(suggestedRounds('side-by-side', open(49, 30))).to.equal(39);
		expect(suggestedRounds('side-by-side', open(9))).to.equal(6);
		expect(suggestedRounds('side-by-side', open(201, 12))).to.equal(2);
	});

	it('are not for what is decided, or is not what the trial decides on', () => {
		const [result] = open(49);
		expect(suggestedRounds('side-by-side', [{ ...result!, verdict: 'better' }])).to.equal(null);
		expect(suggestedRounds('side-by-side', [{ ...result!, primary: false }])).to.equal(null);
	});
});
