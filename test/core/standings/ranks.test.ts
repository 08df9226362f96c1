import { expect } from 'chai';
import { rankPages, rankRun } from '$core/standings/ranks';
import { normalFrom, seededRandom } from '$core/stats/random';
import { describeRank } from '$core/wording/watch';

const rounds = (...byRound: (number | null)[]) => byRound;
const page = (id: number, byRound: (number | null)[]) => ({ page: id, byRound });

describe('ranks with their uncertainty', () => {
	it('puts pages apart that differ in every round, and together what cannot be told apart', () => {
		// B beats A and C in all 8 rounds; A and C take turns. Flips of 8 rounds: one of 128 is as far: p = 0.0078.
		const a = page(1, rounds(20, 22, 21, 23, 20, 22, 21, 23));
		const b = page(2, rounds(10, 11, 10, 11, 10, 11, 10, 11));
		const c = page(3, rounds(21, 21, 22, 22, 19, 23, 22, 22));
		expect(rankPages('lcp', [a, b, c]).map(({ from, to }) => [from, to])).to.deep.equal([
			[2, 3],
			[1, 1],
			[2, 3]
		]);
	});

	it('turns with the metric: a higher score is ahead', () => {
		const high = page(1, rounds(90, 91, 92, 90, 91, 92, 90, 91));
		const low = page(2, rounds(50, 51, 52, 50, 51, 52, 50, 51));
		expect(rankPages('score', [low, high]).map(({ page: id, from, to }) => [id, from, to])).to.deep.equal([
			[2, 2, 2],
			[1, 1, 1]
		]);
	});

	it('orders nothing in too few rounds', () => {
		const ranked = rankPages('lcp', [page(1, rounds(1, 1, 1, 1, 1)), page(2, rounds(9, 9, 9, 9, 9))]);
		expect(ranked.map(({ from, to }) => [from, to])).to.deep.equal([
			[1, 2],
			[1, 2]
		]);
	});

	it('keeps a page that was down in the list, without a place', () => {
		const up = page(1, rounds(1, 2, 1, 2, 1, 2, 1, 2));
		const down = page(2, rounds(null, null, null, null, null, null, null, null));
		expect(rankPages('lcp', [up, down])).to.deep.equal([
			{ page: 1, middle: 1.5, ends: [1, 2], from: 1, to: 1, rounds: 8, fromBest: null },
			{ page: 2, middle: null, ends: [], from: null, to: null, rounds: 0, fromBest: null }
		]);
	});

	it('tells how far each is from the best, in margins', () => {
		// 200 ms behind 2,000 ms, by a margin of 100 ms, in every round.
		const [best, other] = rankPages('lcp', [
			page(1, rounds(2000, 2010, 1990, 2000, 2005, 1995, 2000, 2000)),
			page(2, rounds(2200, 2210, 2190, 2200, 2205, 2195, 2200, 2200))
		]);
		expect(best!.fromBest).to.equal(null);
		expect(other!.fromBest).to.deep.equal({ estimate: 2, low: 2, high: 2 });
	});

	it('ranks the pages’ own timings as times', () => {
		const early = page(1, rounds(5, 5, 6, 5, 5, 6, 5, 5));
		const late = page(2, rounds(50, 51, 50, 52, 50, 51, 50, 52));
		expect(rankPages('timing:hero', [late, early]).map(({ from }) => from)).to.deep.equal([2, 1]);
	});

	it('sets pages that are alike apart in at most one run of twenty', () => {
		const random = seededRandom(9);
		const draw = () => Array.from({ length: 10 }, () => 2000 + 200 * normalFrom(random));
		const runs = Array.from({ length: 200 }, () =>
			rankPages(
				'lcp',
				[1, 2, 3, 4].map((id) => page(id, draw()))
			)
		);
		const wrong = runs.filter((ranked) => ranked.some(({ from, to }) => from !== 1 || to !== 4)).length;
		// 5 % of 200 are 10; 19 or more have a chance of 1 in 200 (binomial).
		expect(wrong).to.be.at.most(18);
	});

	it('has one level over all that a run tells: five metrics of alike pages, on two devices', () => {
		const random = seededRandom(21);
		const contest = () => ({
			metric: 'lcp' as const,
			isJudged: true,
			contestants: [1, 2, 3, 4].map((id) =>
				page(
					id,
					Array.from({ length: 10 }, () => 2000 + 200 * normalFrom(random))
				)
			)
		});
		const runs = Array.from({ length: 150 }, () => rankRun(Array.from({ length: 10 }, contest)));
		const wrong = runs.filter((run) => run.flat().some(({ from, to }) => from !== 1 || to !== 4)).length;
		// 5 % of 150 are 7.5; 15 and more have a chance of 1 % (binomial). Each for itself would give some 40 %.
		expect(wrong).to.be.at.most(15);
	});

	it('draws what nobody asked about without a place', () => {
		const [fast, slow] = [page(1, rounds(1, 2, 1, 2, 1, 2, 1, 2)), page(2, rounds(9, 8, 9, 8, 9, 8, 9, 8))];
		const [ranked] = rankRun([{ metric: 'fcp', contestants: [fast, slow], isJudged: false }]);
		expect(ranked!.map(({ middle, from, to }) => [middle, from, to])).to.deep.equal([
			[1.5, null, null],
			[8.5, null, null]
		]);
	});

	it('says places in words', () => {
		expect(describeRank({ from: 1, to: 2 }, 4)).to.equal('first or second of four');
		expect(describeRank({ from: 3, to: 3 }, 3)).to.equal('third of three');
		expect(describeRank({ from: 1, to: 4 }, 4)).to.equal('first to fourth of four');
		expect(describeRank({ from: null, to: null }, 4)).to.equal('not measured');
	});
});
