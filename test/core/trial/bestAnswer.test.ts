/** Which candidate may be called the best, and what is said of all of them. */
import { expect } from 'chai';
import { seededRandom } from '$core/stats/random';
import { bestOf } from '$core/trial/judge/places';
import type { ShiftResult, Verdict } from '$core/trial/types';
import { bestAnswer } from '$core/wording/bestAnswer';
import { NAMES, pair, three } from '../../support/candidates';

describe('the best', () => {
	it('is named where it is better than each in something and behind none in anything', () => {
		const everyPair = [
			...pair(1, 2, { lcp: 'worse', wire: 'same' }),
			...pair(1, 3, { lcp: 'same', wire: 'worse' }),
			...pair(2, 3, { lcp: 'undecided', wire: 'undecided' })
		];
		expect(bestOf(three, everyPair)).to.deep.equal({ kind: 'best', arm: 1 });
	});

	for (const open of ['undecided', 'none', 'slight'] as const)
		it(`is not named where one comparison is ${open}`, () => {
			const everyPair = [
				...pair(1, 2, { lcp: 'worse', wire: 'same' }),
				// The first is better by so little that it may not matter, or nobody knows.
				...pair(1, 3, { lcp: open, wire: 'same' }),
				...pair(2, 3, { lcp: 'same', wire: 'same' })
			];
			expect(bestOf(three, everyPair).kind).to.equal('open');
		});

	it('is told as a trade where each is behind another in something, with what stands out and its price', () => {
		const everyPair = [
			...pair(1, 2, { lcp: 'better', wire: 'worse' }),
			...pair(1, 3, { lcp: 'same', wire: 'worse' }),
			...pair(2, 3, { lcp: 'worse', wire: 'same' })
		];
		expect(bestOf(three, everyPair).kind).to.equal('trade');
		const priced = three.arms.map((item, i) => ({
			...item,
			setup: i === 2 ? null : { components: [{ monthlyCost: 9 * i }], features: [], effortHours: null }
		})) as never as typeof three.arms;
		const answer = bestAnswer(bestOf(three, everyPair), { arms: priced, everyPair, currency: 'EUR' });
		expect(answer.sentence).to.equal(
			'None of these 3 is best in everything. “Lathwork” is lighter than every other candidate. “Plainstem” is faster than every other candidate.'
		);
		expect(answer.detail).to.equal('Price a month: “Lathwork” €0, “Plainstem” €9 and “Mortise” not known.');
		expect(answer.tone).to.equal('mixed');
	});
});

describe('what is said of candidates', () => {
	const VERDICTS: Verdict[] = ['better', 'worse', 'same', 'slight', 'undecided', 'none'];
	const random = seededRandom(404);
	const draw = () => VERDICTS[Math.floor(random() ** 2 * VERDICTS.length)]!;
	/** Of one candidate against another, read off the list without the code under test: lower is better in both. */
	const against = (everyPair: readonly ShiftResult[], arm: number, other: number) =>
		everyPair
			.filter((result) => [result.baseline, result.arm].includes(arm) && [result.baseline, result.arm].includes(other))
			.map(({ arm: second, metric, verdict, shift }) => {
				const isSecond = second === arm;
				const isLess = (isSecond ? 1 : -1) * shift!.estimate < 0;
				const isDecided = verdict === 'better' || verdict === 'worse';
				return { metric, verdict: isDecided ? (isLess ? 'better' : 'worse') : verdict, isLess };
			});

	it('claims nothing beyond its verdicts, in 10,000 judgements', () => {
		const seen = new Set<string>();
		for (let i = 0; i < 10_000; i++) {
			const isUp = () => random() < 0.5;
			const everyPair = (
				[
					[1, 2],
					[1, 3],
					[2, 3]
				] as const
			).flatMap(([a, b]) => pair(a, b, { lcp: draw(), wire: draw() }, isUp));
			const best = bestOf(three, everyPair);
			const { sentence } = bestAnswer(best, { arms: three.arms, everyPair, currency: 'EUR' });
			seen.add(best.kind);
			const others = (arm: number) => [1, 2, 3].filter((other) => other !== arm);
			const named = NAMES.slice(0, 3).filter((name) => sentence.includes(`“${name}” is the best`));
			for (const name of named) {
				const arm = NAMES.indexOf(name) + 1;
				for (const other of others(arm)) {
					const own = against(everyPair, arm, other);
					const isFine = ({ verdict, isLess }: (typeof own)[number]) =>
						verdict === 'better' || verdict === 'same' || (verdict === 'slight' && isLess);
					expect(own.every(isFine) && own.some(({ verdict }) => verdict === 'better'), sentence).to.equal(true);
				}
			}
			if (sentence.includes('equally good'))
				for (const [a, b] of [
					[1, 2],
					[1, 3],
					[2, 3]
				] as const)
					if ([a, b].every((id) => sentence.includes(`“${NAMES[id - 1]}”`)))
						expect(
							against(everyPair, a, b).every(({ verdict }) => verdict === 'same'),
							sentence
						).to.equal(true);
			for (const [, name, words] of sentence.matchAll(/“(\w+)” is ([^.]*) than every other candidate/g)) {
				const arm = NAMES.indexOf(name!) + 1;
				const wanted = {
					faster: ['lcp', 'better'],
					slower: ['lcp', 'worse'],
					lighter: ['wire', 'better'],
					heavier: ['wire', 'worse']
				};
				for (const [word, [metric, verdict]] of Object.entries(wanted))
					if (words!.includes(word))
						for (const other of others(arm))
							expect(against(everyPair, arm, other).find((own) => own.metric === metric)!.verdict, sentence).to.equal(
								verdict
							);
			}
			if (/^None of these/.test(sentence))
				for (const arm of [1, 2, 3])
					expect(
						others(arm).some((other) => against(everyPair, arm, other).some(({ verdict }) => verdict === 'worse')),
						sentence
					).to.equal(true);
		}
		expect(seen).to.include.members(['best', 'equal', 'trade', 'open']);
	});
});
