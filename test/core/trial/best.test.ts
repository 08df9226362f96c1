/** Which candidate is best: pairs, shares of the level, places, and what may be said. */
import { expect } from 'chai';
import * as v from 'valibot';
import { normalFrom, seededRandom } from '$core/stats/random';
import { flipsOf, FINE_FLIPS, flipPlanFor } from '$core/stats/signFlips';
import { NewTrialInput } from '$core/trial/design/input';
import { candidateRows } from '$core/trial/judge/candidates';
import { judge } from '$core/trial/judge/judge';
import { bestOf, placesOf, resultsAgainst, turned } from '$core/trial/judge/places';
import { wordPlace } from '$core/wording/bestAnswer';
import { A, B, C, candidates, NAMES, roundsOf, said, three } from '../../support/candidates';
import { design, load, looked } from '../../support/trials';

/** |sum of sign x midrank| over the root of the sum of squares, with some signs turned: written from the definition. */
function statistic(differences: readonly number[], bits: number): number {
	const rounds = differences.map((value, i) => ({ value, i })).filter(({ value }) => value !== 0);
	const rankOf = (size: number) => {
		const smaller = rounds.filter(({ value }) => Math.abs(value) < size).length;
		const equal = rounds.filter(({ value }) => Math.abs(value) === size).length;
		return smaller + (equal + 1) / 2;
	};
	const ranks = rounds.map(({ value, i }) => ({
		signed: Math.sign(value) * ((bits >> i) & 1 ? -1 : 1) * rankOf(Math.abs(value)),
		square: rankOf(Math.abs(value)) ** 2
	}));
	const size = Math.sqrt(ranks.reduce((sum, { square }) => sum + square, 0));
	return size === 0 ? 0 : Math.abs(ranks.reduce((sum, { signed }) => sum + signed, 0)) / size;
}

/** Step-down adjusted p of tests by all sign flips (Westfall and Young 1993, algorithm 2.8). */
function enumerated(tests: readonly (readonly number[])[]): number[] {
	const flips = 2 ** tests[0]!.length;
	const order = tests.map((_, i) => i).sort((a, b) => statistic(tests[b]!, 0) - statistic(tests[a]!, 0));
	const p = new Array<number>(tests.length);
	let reached = 0;
	order.forEach((test, at) => {
		const rest = order.slice(at);
		let beyond = 0;
		for (let bits = 0; bits < flips; bits++)
			if (Math.max(...rest.map((other) => statistic(tests[other]!, bits))) >= statistic(tests[test]!, 0) - 1e-9)
				beyond++;
		p[test] = reached = Math.max(reached, beyond / flips);
	});
	return p;
}

describe('which is best', () => {
	it('judges every pair, those with the first named as results too', () => {
		const judgement = judge(looked(candidates(3)), roundsOf([A, B, C], 12));
		const everyPair = new Set(judgement.everyPair!.map((result) => `${result.baseline}-${result.arm}`));
		expect([...everyPair]).to.have.members(['1-2', '1-3', '2-3']);
		expect(new Set(judgement.results.map(({ baseline }) => baseline))).to.deep.equal(new Set([1]));
		expect(judge(looked(design()), roundsOf([A, B], 12)).everyPair).to.equal(undefined);
	});

	it('equals a full enumeration of all flips: three candidates, five rounds', () => {
		const random = seededRandom(31);
		for (let trial = 0; trial < 20; trial++) {
			const plan = candidates(3, { rounds: 5, seed: trial });
			const figures = Array.from({ length: 5 }, () =>
				[1, 2, 3].map((id) => ({
					lcp: Math.round(2000 + id * 30 + 60 * normalFrom(random)),
					wire: 1000 * Math.round(3 * random())
				}))
			);
			const loads = figures.flatMap((own, i) => own.map((values, at) => load(at + 1, i + 1, values)));
			const judgement = judge(looked(plan), loads);
			for (const [first, second] of [
				[1, 2],
				[1, 3],
				[2, 3]
			] as const) {
				const tests = (['lcp', 'wire'] as const).map((metric) =>
					figures.map((own) => own[second - 1]![metric] - own[first - 1]![metric])
				);
				const expected = enumerated(tests).map((p) => Math.min(1, p * 3));
				const found = (['lcp', 'wire'] as const).map(
					(metric) =>
						judgement.everyPair!.find(
							(result) => result.baseline === first && result.arm === second && result.metric === metric
						)!.adjustedP
				);
				found.forEach((p, i) => expect(p, `trial ${trial}, ${first}-${second}`).to.be.closeTo(expected[i]!, 1e-12));
			}
		}
	});

	it('hands the share of a pair that differs in everything to the others, and that of one that is the same to none', () => {
		// The third candidate is far off in both metrics; of the first two only the paint differs, at p 1 in 128.
		const paint = [45, 40, 35, 30, 25, 20, 15, 10];
		const loads = (isThirdHeavy: boolean) =>
			paint.flatMap((by, i) => [
				load(1, i + 1, { lcp: 2000 + i, wire: 500_000 }),
				load(2, i + 1, { lcp: 2000 + i + by, wire: 500_000 }),
				load(3, i + 1, { lcp: 9000 + 7 * i, wire: isThirdHeavy ? 900_000 + i : 500_000 })
			]);
		const pOf = (isThirdHeavy: boolean) =>
			judge(
				{ ...candidates(3, { rounds: 8 }), looks: [{ rounds: 8, spent: 0.04, by: 'plan' }] },
				loads(isThirdHeavy)
			).everyPair!.find(({ baseline, arm: own, metric }) => baseline === 1 && own === 2 && metric === 'lcp')!
				.adjustedP!;
		expect(pOf(true)).to.be.closeTo(1 / 128, 1e-9);
		expect(pOf(false)).to.be.closeTo(3 / 128, 1e-9);
	});

	it('takes all flips, or 200,000, where a share is below half a per cent', () => {
		expect(flipPlanFor(0.04 / 3).most).to.equal(10_000);
		expect(flipPlanFor(0.04 / 28)).to.equal(FINE_FLIPS);
		expect(flipsOf(18, 1, FINE_FLIPS).count).to.equal(2 ** 17);
		expect(flipsOf(19, 1, FINE_FLIPS).count).to.equal(200_000);
	});

	it('takes a margin from both of a pair, so that it is the same from either side', () => {
		const result = judge(
			looked(candidates(3)),
			roundsOf([{ lcp: 3000, wire: 1 }, { lcp: 5000, wire: 1 }, C], 12)
		).everyPair!.find(({ metric }) => metric === 'lcp');
		// 5 % of 4,000 ms.
		expect(result!.margin).to.be.closeTo(200, 3);
		const other = turned(result!);
		expect(other).to.include({ baseline: 2, arm: 1, verdict: 'better', margin: result!.margin });
		expect(other.shift!.estimate).to.equal(-result!.shift!.estimate);
		expect([other.shift!.low, other.shift!.high]).to.deep.equal([-result!.shift!.high!, -result!.shift!.low!]);
		expect(turned(other).shift!.low).to.equal(result!.shift!.low);
		// A share of the other's own figure.
		expect(other.shift!.relative!).to.be.closeTo(-0.4, 0.01);
	});
});

describe('places', () => {
	it('are sure where all differences are called, and open where none is', () => {
		const { everyPair } = judge(looked(candidates(3)), roundsOf([B, A, C], 12));
		expect(placesOf(everyPair!).filter(({ metric }) => metric === 'lcp')).to.have.deep.members([
			{ condition: 'desktop', metric: 'lcp', arm: 2, from: 1, to: 1 },
			{ condition: 'desktop', metric: 'lcp', arm: 1, from: 2, to: 2 },
			{ condition: 'desktop', metric: 'lcp', arm: 3, from: 3, to: 3 }
		]);
		const alike = judge(looked(candidates(3)), roundsOf([B, B, B], 12)).everyPair!;
		expect(placesOf(alike).every(({ from, to }) => from === 1 && to === 3)).to.equal(true);
	});

	it('are told in words', () => {
		expect(wordPlace({ from: 1, to: 1 })).to.equal('first');
		expect(wordPlace({ from: 2, to: 3 })).to.equal('second or third');
		expect(wordPlace({ from: 1, to: 8 })).to.equal('first to eighth');
	});

	it('stand in margins from the one with the best figure', () => {
		const plan = candidates(3);
		const { everyPair } = judge(looked(plan), roundsOf([B, A, C], 12));
		const [lcp] = candidateRows(plan, everyPair!);
		expect(lcp!.marks.map((mark) => mark.arm)).to.deep.equal([2, 1, 3]);
		expect(lcp!.marks[0]).to.include({ fromBest: null, isTold: true });
		// 500 ms by a margin of 100 ms, 1,100 ms by one of 102.5 ms.
		expect(lcp!.marks[1]!.fromBest!.estimate).to.be.closeTo(5, 0.3);
		expect(lcp!.marks[2]!.fromBest!.estimate).to.be.closeTo(1100 / 102.5, 0.4);
	});

	it('leave a candidate that failed half its loads without one, and the others theirs', () => {
		const loads = roundsOf([B, A, C], 12).map((item) =>
			item.armId === 3 && item.round % 2 ? { ...item, status: 'failed' as const } : item
		);
		const { everyPair } = judge(looked(candidates(3)), loads);
		const lcp = placesOf(everyPair!).filter(({ metric }) => metric === 'lcp');
		expect(lcp.map(({ arm: id, from, to }) => [id, from, to])).to.have.deep.members([
			[1, 2, 2],
			[2, 1, 1]
		]);
		expect(resultsAgainst(everyPair!, 3).every(({ reason }) => reason?.code === 'failures')).to.equal(true);
		expect(bestOf(three, everyPair!).kind).to.not.equal('best');
	});

	it('find two candidates that are the same page equal', () => {
		const same = judge(looked(candidates(3)), roundsOf([A, A, C], 12, 5)).everyPair!;
		expect(bestOf(three, same)).to.deep.equal({ kind: 'equal', arms: [1, 2] });
		expect(said(same)).to.equal(
			'“Lathwork” and “Plainstem” are equally good: no difference that matters between them, and no other is ahead by one that matters.'
		);
	});
});

describe('asking which is best', () => {
	const input = (extra: object) =>
		v.safeParse(NewTrialInput, {
			question: 'Which?',
			kind: 'side-by-side',
			aim: 'best',
			arms: NAMES.map((name, i) => ({ name, url: `http://a${i}.test/` })),
			conditions: ['desktop'],
			rounds: 12,
			warmups: 0,
			...extra
		});
	const problems = (extra: object) => (input(extra).issues ?? []).map(({ message }) => message);

	it('takes three candidates or more, side by side', () => {
		expect(input({}).success).to.equal(true);
		expect(problems({ arms: NAMES.slice(0, 2).map((name, i) => ({ name, url: `http://a${i}.test/` })) })).to.deep.equal(
			['Which is best is asked of 3 candidates or more; two are compared against the baseline.']
		);
		expect(problems({ kind: 'before-after' })).to.deep.equal(['Which is best is asked of variants side by side.']);
	});

	it('refuses rounds that cannot call anything at a pair’s share, and says how many can', () => {
		// Six pairs have 0.67 % each: 1 flip in 2^(n-1) is as little from 9 rounds on.
		expect(problems({ rounds: 8 })).to.deep.equal([
			'4 candidates make 6 pairs, which share the error level: fewer than 9 rounds cannot tell any of them apart. Plan 9 or more.'
		]);
		expect(problems({ rounds: 9 })).to.deep.equal([]);
	});
});
