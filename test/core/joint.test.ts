import { expect } from 'chai';
import { dealsOf, dealStatistics } from '$core/stats/deals';
import { normalFrom, seededRandom } from '$core/stats/random';
import { rankSumP } from '$core/stats/rankSum';
import { EXACT_ROUNDS, flipsOf, flipStatistics, signedRanks, signOf } from '$core/stats/signFlips';
import { signedRankP } from '$core/stats/signedRank';
import { stepDownCalls, stepDownP, type LookStatistics } from '$core/stats/stepDown';
import { plannedSpending } from '$core/trial/design/looks';
import { holm } from '../support/reference/holm';

const normals = (random: () => number, n: number, shift = 0) =>
	Array.from({ length: n }, () => normalFrom(random) + shift);
const all = (tests: readonly unknown[]) => tests.map((_, i) => i);

/** The statistic in a few independent lines: ranks by counting, signs by bits. */
function statistic(differences: readonly number[], bits: number): number {
	const sizes = differences.map(Math.abs);
	const rank = (size: number) =>
		sizes.filter((value) => value > 0 && value < size).length +
		(sizes.filter((value) => value === size).length + 1) / 2;
	let sum = 0;
	let squares = 0;
	differences.forEach((difference, i) => {
		if (difference === 0) return;
		sum += ((bits >> i) & 1 ? -1 : 1) * Math.sign(difference) * rank(Math.abs(difference));
		squares += rank(Math.abs(difference)) ** 2;
	});
	return squares ? Math.abs(sum) / Math.sqrt(squares) : 0;
}

const chosen = (most: number) => ({ exactRounds: EXACT_ROUNDS, most });

describe('sign flips', () => {
	it('give the p of an enumeration of all signs, jointly over tests, with ties, zeros and missing rounds', () => {
		const tests = [
			[3, -1, 4, 1, -5, 9, 2, 6],
			[2, 2, -2, 0, 4, 4, 1, 3],
			[0.1, -0.2, 0.3, 0.1, 0, -0.1, 0.2, 0.2]
		];
		const look = flipStatistics(tests, flipsOf(8, 1), 1);
		const observed = tests.map((test) => statistic(test, 0));
		look.observed.forEach((value, i) => expect(value).to.be.closeTo(observed[i]!, 1e-6));
		const counts = tests.map(() => 0);
		for (let bits = 0; bits < 256; bits++) {
			const largest = Math.max(...tests.map((test) => statistic(test, bits)));
			observed.forEach((value, i) => largest >= value - 1e-9 && counts[i]!++);
		}
		// The single-step p of the largest statistic is its step-down p.
		const first = observed.indexOf(Math.max(...observed));
		expect(stepDownP(look)[first]).to.be.closeTo(counts[first]! / 256, 1e-12);
		// Ranks 2 and 1, in halves.
		expect([...signedRanks([null, 0, 2, null, -1])]).to.deep.equal([0, 0, 4, 0, -2]);
	});

	it('with one test are Wilcoxon’s signed-rank test to the last digit', () => {
		const random = seededRandom(3);
		for (let n = 5; n <= 12; n++) {
			const differences = normals(random, n, 0.5);
			expect(stepDownP(flipStatistics([differences], flipsOf(n, 1), 1))[0], `n = ${n}`).to.be.closeTo(
				signedRankP(differences),
				1e-12
			);
		}
		const long = normals(random, 24, 0.5);
		expect(stepDownP(flipStatistics([long], flipsOf(24, 1), 1))[0]).to.be.closeTo(signedRankP(long), 0.01);
	});

	it('chosen for a longer trial begin as those for a shorter one, and the first is the data as they are', () => {
		const [short, long] = [flipsOf(14, 9, chosen(500)), flipsOf(18, 9, chosen(500))];
		for (let round = 0; round < 14; round++)
			for (let flip = 0; flip < 500; flip++)
				expect(signOf(long, round, flip), `${round}, ${flip}`).to.equal(signOf(short, round, flip));
		for (let round = 0; round < 18; round++) expect(signOf(long, round, 0)).to.equal(1);
	});
});

describe('deals', () => {
	it('of whole stages come to the same by the rounds’ ranks as pair by pair', () => {
		const random = seededRandom(8);
		const tests = [0.8, 0].map((shift) =>
			[...normals(random, 6), ...normals(random, 5, shift)].map((item) => Math.round(item * 3))
		);
		const gaps = tests.map((values) => values.map((value, i) => (i === 2 || i === 9 ? null : value)));
		const deals = dealsOf(6, 5, 1);
		const byRank = dealStatistics(gaps, deals, [{ rounds: 5, spent: 0.04 }])[0]!;
		// A bound within the stage is reckoned pair by pair, and the last one with it.
		const byPairs = dealStatistics(gaps, deals, [
			{ rounds: 3, spent: 0.01 },
			{ rounds: 5, spent: 0.04 }
		])[1]!;
		byRank.rearranged.forEach((values, test) =>
			values.forEach((value, i) => expect(value).to.be.closeTo(byPairs.rearranged[test]![i]!, 1e-12))
		);
	});

	it('with one test are the exact rank-sum test, ties too', () => {
		for (const [first, second] of [
			[
				[1, 2, 3, 4],
				[5, 6, 7, 8]
			],
			[
				[1, 1, 2, 5, 6],
				[1, 2, 2, 7, 7]
			],
			[
				[3, 1, 4, 1],
				[5, 9, 2, 6, 5]
			]
		] as const) {
			const deals = dealsOf(first.length, second.length, 1);
			expect(
				stepDownP(dealStatistics([[...first, ...second]], deals, [{ rounds: second.length, spent: 1 }])[0]!)[0]
			).to.be.closeTo(rankSumP(first, second), 1e-12);
		}
	});

	it('deal whole rounds: what two metrics have in common is not paid twice', () => {
		const values = [4, 1, 3, 2, 9, 8, 7, 6];
		const twice = stepDownP(
			dealStatistics([values, values.map((value) => value * 10)], dealsOf(4, 4, 1), [{ rounds: 4, spent: 1 }])[0]!
		);
		expect(twice[0]).to.be.closeTo(2 / 70, 1e-12);
		expect(twice[1]).to.be.closeTo(2 / 70, 1e-12);
	});
});

describe('step-down maximum', () => {
	// Worked by hand after Westfall and Young 1993, algorithm 2.8: three tests, ten rearrangements, the first the data.
	const look: LookStatistics = {
		observed: Float64Array.from([5, 3, 2]),
		rearranged: [
			Float64Array.from([5, 1, 0, 2, 1, 0, 1, 2, 0, 1]),
			Float64Array.from([3, 2, 4, 1, 0, 1, 2, 0, 1, 1]),
			Float64Array.from([2, 1, 0, 3.5, 1, 2, 0, 1, 1, 2])
		],
		spent: 0.2
	};

	it('adjusts as in the worked example', () => {
		// Test 1: only the data reach 5 with any test: 1/10. Test 2: max of tests 2 and 3 reaches 3 in rows 1, 3, 4: 3/10.
		// Test 3 alone reaches 2 in rows 1, 4, 6, 10: 4/10.
		expect(stepDownP(look)).to.deep.equal([0.1, 0.3, 0.4]);
		expect(stepDownCalls([look], [0, 1, 2])).to.deep.equal([0]);
		expect(stepDownCalls([{ ...look, spent: 0.3 }], [0, 1, 2])).to.have.members([0, 1]);
		expect(stepDownCalls([{ ...look, spent: 0.4 }], [0, 1, 2])).to.have.members([0, 1, 2]);
		expect(stepDownCalls([{ ...look, spent: 0.05 }], [0, 1, 2])).to.deep.equal([]);
	});

	it('calls what its adjusted p says, on random data, and is hardly behind Holm', () => {
		const random = seededRandom(21);
		let [stepDown, byHolm] = [0, 0];
		for (let i = 0; i < 150; i++) {
			const shared = normals(random, 10);
			const tests = [0.9, 0.9, 0.5, 0].map((shift) =>
				normals(random, 10, shift).map((normal, k) => 0.7 * shared[k]! + 0.7 * normal)
			);
			const statistic = flipStatistics(tests, flipsOf(10, 1), 0.04);
			const p = stepDownP(statistic);
			expect(stepDownCalls([statistic], all(tests)).sort()).to.deep.equal(
				all(tests).filter((test) => p[test]! <= 0.04 + 1e-12)
			);
			stepDown += p.filter((value) => value <= 0.04).length;
			byHolm += holm(tests.map((test) => signedRankP(test))).filter((value) => value <= 0.04).length;
		}
		expect(stepDown).to.be.at.least(byHolm * 0.95);
	});

	it('spends at each look what it may and no more, by direct simulation', () => {
		const random = seededRandom(77);
		const looks = [10, 14, 18, 24];
		const first = [0, 0, 0, 0];
		const TRIALS = 1500;
		for (let i = 0; i < TRIALS; i++) {
			const tests = [normals(random, 24), normals(random, 24)];
			for (let k = 0; k < looks.length; k++) {
				const flips = flipsOf(looks[k]!, i + 1, chosen(500));
				const statistics = looks.slice(0, k + 1).map((n) =>
					flipStatistics(
						tests.map((test) => test.slice(0, n)),
						flips,
						plannedSpending(n, 24)
					)
				);
				if (!stepDownCalls(statistics, all(tests)).length) continue;
				first[k]!++;
				break;
			}
		}
		let spent = 0;
		looks.forEach((n, k) => {
			spent += first[k]!;
			const may = plannedSpending(n, 24);
			// Three standard errors of the simulation.
			expect(spent / TRIALS, `after ${n} rounds`).to.be.below(may + 3 * Math.sqrt((may * (1 - may)) / TRIALS));
		});
		expect(spent / TRIALS).to.be.above(0.02);
	});
});
