import { expect } from 'chai';
import { fitnessOf, roundsToSee, WANTED_SHARE } from '$core/trial/noise/fitness';
import { visibleShare } from '$core/trial/noise/noise';
import { MOST_ROUNDS } from '$core/trial/judge/verdict';
import { wordFitness } from '$core/wording/fitness';

const plain = (words: string) => words.replace(/\u00a0/g, ' ');

describe('fitness of a machine', () => {
	// By hand: level 0.04 / 5 tests = 0.008 gives z = 2.652, power 80 % gives 0.842: 3.494 spreads of the mean. With
	// spread 10 % and efficiency 3 / pi a change of 10 % takes (3.494)^2 / 0.955 = 12.8 rounds.
	it('is told by the rounds that see a tenth', () => {
		expect(roundsToSee(0.1)).to.equal(13);
		expect(visibleShare(13, 0.1, 0.04, 5)).to.be.at.most(WANTED_SHARE);
		expect(visibleShare(12, 0.1, 0.04, 5)).to.be.above(WANTED_SHARE);
		expect(roundsToSee(0.01), 'never fewer than can call at all').to.equal(8);
		expect(roundsToSee(3)).to.equal(MOST_ROUNDS + 1);
	});

	it('goes by the worst of the conditions, and is unknown before any was measured', () => {
		const quiet = { loads: 40, disturbed: 2 };
		expect(fitnessOf(quiet, [])).to.deep.equal({ code: 'unknown' });
		expect(fitnessOf(quiet, [0.05, 0.1])).to.deep.equal({ code: 'fit', rounds: 13, share: 0.1 });
		expect(fitnessOf(quiet, [0.05, 0.3])).to.include({ code: 'noisy' });
	});

	it('is none where a third of the last loads was disturbed', () => {
		expect(fitnessOf({ loads: 9, disturbed: 3 }, [0.05])).to.deep.equal({ code: 'busy', loads: 9, disturbed: 3 });
		expect(fitnessOf({ loads: 5, disturbed: 5 }, [0.05]).code, 'too few to say').to.equal('fit');
	});

	it('is said in one sentence', () => {
		expect(plain(wordFitness({ code: 'fit', rounds: 12, share: 0.1 }))).to.equal(
			'This machine is fit: 12 rounds see a change of 10 % in four of five trials.'
		);
		expect(plain(wordFitness({ code: 'noisy', rounds: MOST_ROUNDS + 1, share: 0.1 }))).to.include(
			'200 rounds are too few'
		);
		expect(wordFitness({ code: 'busy', loads: 9, disturbed: 3 })).to.include('3 of 9 loads');
		expect(wordFitness({ code: 'unknown' })).to.include('Nobody has measured');
	});
});
