import { expect } from 'chai';
import { offersRounds, suggestedRounds } from '../../src/routes/trials/[id]/moreRounds';

describe('rounds that would decide what is open', () => {
	const sheet = (kind: string, ...needed: (number | null)[]) =>
		({
			trial: { status: 'done', kind },
			judgement: {
				results: needed.map((roundsNeeded) => ({ primary: true, verdict: 'undecided', roundsNeeded, n: 10 }))
			}
		}) as unknown as Parameters<typeof offersRounds>[0];

	it('are offered where something can be decided by them, and never of stages', () => {
		expect(offersRounds(sheet('side-by-side', 49))).to.equal(true);
		expect(offersRounds(sheet('before-after', 49))).to.equal(false);
		expect(offersRounds(sheet('side-by-side', null))).to.equal(false);
		// 201 stands for any number beyond 200, of which the answer says that a calmer machine helps more.
		expect(offersRounds(sheet('side-by-side', 201))).to.equal(false);
	});

	it('are as many as are missing, or a few where few would do', () => {
		expect(suggestedRounds(sheet('side-by-side', 49, 30))).to.equal(39);
		expect(suggestedRounds(sheet('side-by-side', 9))).to.equal(6);
		expect(suggestedRounds(sheet('side-by-side', 201, 12))).to.equal(2);
	});
});
