/** Which candidate is best: what the sheet, the lists and the API show of it. */
import { candidateRows, type Lane, type LaneBoard } from '$core/trial/judge/candidates';
import { bestOf, placesOf, resultsAgainst, turned, type Place } from '$core/trial/judge/places';
import { asksForBest } from '$core/trial/design/kinds';
import type { PutOff } from '$core/compare/late/putOff';
import type { Judgement, ShiftResult, TrialDesign } from '$core/trial/types';
import { bestAnswer, wordPlace } from '$core/wording/bestAnswer';
import { boardName } from '$core/wording/board';
import { wordSpan } from '$core/wording/range';
import { formatValue } from '$core/wording/format';
import { putOffSentences, type PlainAnswer } from '$core/wording/plainAnswer';
import { wordAnswer } from '$core/wording/shift';
import { ENGLISH, type Words } from '$core/wording/words';
import { extentOf } from '$core/stats/summary';
import type { FiguresOf } from './shownFigures';
import type { PutOffOf } from '$core/compare/late/putOff';

export interface BestView {
	answer: PlainAnswer;
	board: LaneBoard[];
}

interface Given {
	design: TrialDesign;
	judgement: Pick<Judgement, 'everyPair'>;
	words?: Words;
	putOffOf?: PutOffOf;
	/** What the middle figures stand for. */
	figuresOf?: FiguresOf;
	/** ISO 4217, of the prices. */
	currency?: string;
}

/** Under one set of conditions, or under all of them; null before the first look, and for another aim. */
export function bestView(given: Given, condition: string | null): BestView | null {
	const { design, judgement, words = ENGLISH, currency = 'EUR' } = given;
	if (!asksForBest(design) || !judgement.everyPair?.length) return null;
	const conditions = design.conditions.map(({ id }) => id).filter((id) => condition === null || id === condition);
	const { everyPair, sentences } = withoutPutOff(given, conditions);
	const answer = bestAnswer(bestOf(design, everyPair), { arms: design.arms, everyPair, currency }, words);
	return {
		answer: condition === null ? answer : { ...answer, sentence: [answer.sentence, ...sentences].join(' ') },
		board: condition === null ? [] : boardOf(given, condition, everyPair)
	};
}

/** A gain that comes back later is none, for places and for the best. */
function withoutPutOff(
	{ design, judgement, words = ENGLISH, putOffOf = () => [] }: Given,
	conditions: readonly string[]
): { everyPair: ShiftResult[]; sentences: string[] } {
	const later = new Map<number, PutOff[]>();
	const isLater = (result: ShiftResult) => {
		const { condition, arm, metric } = result;
		const gains = putOffOf(condition, arm, [result]).filter((gain) => gain.metric === metric);
		later.set(arm, [...(later.get(arm) ?? []), ...gains]);
		return gains.length > 0;
	};
	const everyPair = judgement
		.everyPair!.filter((result) => conditions.includes(result.condition))
		.map((result): ShiftResult => {
			const isPutOff = [result, turned(result)].filter(isLater).length > 0;
			return isPutOff ? { ...result, verdict: 'undecided' } : result;
		});
	const sentences = [...later].flatMap(([arm, gains]) => {
		const metrics = new Map(gains.map((gain) => [`${gain.metric}/${gain.kind}`, gain]));
		const sentence = putOffSentences([...metrics.values()], { arm: nameOf(design, arm), baseline: '' }, words);
		return sentence ? [sentence] : [];
	});
	return { everyPair, sentences };
}

function boardOf(
	{ design, words = ENGLISH, figuresOf = () => [] }: Given,
	condition: string,
	everyPair: readonly ShiftResult[]
): LaneBoard[] {
	return candidateRows(design, everyPair).map(({ metric, marks }) => ({
		metric,
		name: boardName(metric, words),
		lanes: marks.map(({ arm, middle, fromBest, isTold, place, result }): Lane => ({
			id: arm,
			fromBest,
			isSolid: isTold,
			isBest: result === null,
			name: nameOf(design, arm),
			figure: formatValue(metric, middle),
			range: wordSpan(metric, extentOf(figuresOf(condition, arm, metric)), words),
			place: place ? wordPlace(place, words) : words.say('place.open'),
			text: result ? wordAnswer(result, namesOf(design, result)) : ''
		}))
	}));
}

/** What the API tells beside the results. */
export function bestForApi(given: Given): { places: Place[]; best: number | null } | Record<string, never> {
	const { design, judgement } = given;
	if (!asksForBest(design)) return {};
	if (!judgement.everyPair) return { places: [], best: null };
	const { everyPair } = withoutPutOff(
		given,
		design.conditions.map(({ id }) => id)
	);
	const best = bestOf(design, everyPair);
	return { places: placesOf(everyPair), best: best.kind === 'best' ? best.arm : null };
}

/** All candidates against one: the one that the address names, else the first named. */
export function resultsFor(
	{ everyPair, results }: Pick<Judgement, 'everyPair' | 'results'>,
	against: number
): ShiftResult[] {
	return everyPair ? resultsAgainst(everyPair, against) : [...results];
}

const nameOf = ({ arms }: TrialDesign, id: number) => arms.find((arm) => arm.id === id)?.name ?? '';
const namesOf = (design: TrialDesign, { arm, baseline }: { arm: number; baseline: number }) => ({
	arm: nameOf(design, arm),
	baseline: nameOf(design, baseline)
});
