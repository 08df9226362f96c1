/** Figures and facts of a report in the client's language: plain words, and only what a verdict supports. */
import type { ClaimArithmetic } from '../report/claims';
import type { Claim } from '../report/document';
import type { FigurePart } from '../report/figureRef';
import type { ShownFigure } from '../report/richText';
import { metricOf, type MetricId, type Unit } from '../metrics/catalogue';
import type { ShiftResult } from '../trial/types';
import { boardMark } from '../trial/judge/board';
import { boardName, boardWord } from './board';
import { formatIn } from './format';
import { localNumber } from './localNumber';
import type { ReportWords } from './reportWords';
import type { Language } from './words';

const JOIN = '\u00a0';

/** A day in full: "27 November 2026", "27 de noviembre de 2026". @param iso UTC ISO, or a day as 2026-11-27 */
export function wordDay(iso: string, language: Language): string {
	const locale = language === 'es' ? 'es' : 'en-GB';
	return new Intl.DateTimeFormat(locale, { dateStyle: 'long', timeZone: 'UTC' }).format(new Date(iso));
}

/** The same for tables: "27 Nov 2026". */
export function wordShortDay(day: string, language: Language): string {
	const locale = language === 'es' ? 'es' : 'en-GB';
	return new Intl.DateTimeFormat(locale, { dateStyle: 'medium', timeZone: 'UTC' }).format(new Date(day));
}

export function wordUnit(unit: Unit, value: number, words: ReportWords, finer = false): string {
	const text = localNumber(formatIn(unit, value, finer), words.language);
	return unit === 'points' && finer ? words.say('report.points', { n: text }) : text;
}

/** A middle figure; a dash for what was not measured. */
export function wordValue(metric: MetricId, value: number | null, words: ReportWords): string {
	return value === null ? '–' : wordUnit(metricOf(metric).unit, value, words);
}

type Scaled = Pick<ShiftResult, 'metric' | 'scale'>;

/** "420 ms more", "unchanged". */
export function wordChange({ metric, scale }: Scaled, difference: number, words: ReportWords): string {
	const size =
		scale === 'share'
			? `${localNumber((Math.abs(difference) * 100).toFixed(1), words.language)}${JOIN}%`
			: wordUnit(metricOf(metric).unit, Math.abs(difference), words, true);
	if (!/[1-9]/.test(size)) return words.say('report.unchanged');
	return words.say('report.shift', { size, direction: difference > 0 ? 'more' : 'less' });
}

/** "90 ms less to 40 ms more". */
export function wordEnds(result: Scaled & Pick<ShiftResult, 'shift'>, words: ReportWords): string {
	const { low = null, high = null } = result.shift ?? {};
	if (low === null || high === null) return words.say('report.interval.none');
	if (low === high) return words.say('report.interval.exact');
	const ends = { low: wordChange(result, low, words), high: wordChange(result, high, words) };
	return ends.low === ends.high ? words.say('report.interval.rounded') : words.say('report.interval', ends);
}

/** The shift with its interval: one never stands without the other. */
export function wordShiftIn(result: Scaled & Pick<ShiftResult, 'shift'>, words: ReportWords): string {
	if (!result.shift) return '–';
	return `${wordChange(result, result.shift.estimate, words)} (${wordEnds(result, words)})`;
}

/** One part of a comparison as it stands in a sentence. */
export function wordFigure(result: ShiftResult, part: FigurePart, words: ReportWords): string {
	switch (part) {
		case 'baseline':
			return wordValue(result.metric, result.scale === 'share' ? null : result.baselineMedian, words);
		case 'variant':
			return wordValue(result.metric, result.scale === 'share' ? null : result.armMedian, words);
		case 'shift':
			return wordShiftIn(result, words);
		case 'interval':
			return wordEnds(result, words);
		case 'verdict':
			return boardWord(boardMark(result), words);
	}
}

export interface FigureNames {
	baseline: string;
	arm: string;
	conditions: string;
}

/** What a figure is, for whoever points at it. */
export function aboutFigure(result: ShiftResult, part: FigurePart, names: FigureNames, words: ReportWords): string {
	const metric = boardName(result.metric, words);
	if (part === 'baseline' || part === 'variant') {
		const arm = part === 'baseline' ? names.baseline : names.arm;
		return words.say('report.about.baseline', { metric, arm, conditions: names.conditions, n: result.n });
	}
	return words.say('report.about.shift', { metric, ...names });
}

/** A figure that is not to be had: said in its place, never left out. */
export function goneFigure(ref: string, words: ReportWords): ShownFigure {
	return { ref, text: words.say('report.figure.gone'), about: words.say('report.figure.gone.about'), isMissing: true };
}

const percentOf = (share: number, words: ReportWords) =>
	localNumber(Math.abs(share * 100).toFixed(Math.abs(share) < 0.1 ? 1 : 0), words.language);

/** What follows from a claim's own figures. @param own the measured figure beside it; null for none */
export function wordClaim(
	claim: Claim,
	found: ClaimArithmetic | null,
	own: string | null,
	words: ReportWords
): string[] {
	if (!found) return [words.say('report.claim.zero')];
	const amount = (value: number) => localNumber([String(value), claim.unit].filter(Boolean).join(JOIN), words.language);
	const change = words.say('report.claim.change', {
		before: amount(claim.before),
		after: amount(claim.after),
		percent: percentOf(found.change, words),
		direction: found.change > 0 ? 'more' : found.change < 0 ? 'less' : 'same'
	});
	const said = found.agrees === null ? [] : [wordAgreement(claim, found, words)];
	return [change, ...said, ...(own === null ? [] : [words.say('report.claim.own', { figure: own })])];
}

function wordAgreement({ percent }: Claim, { agrees, base }: ClaimArithmetic, words: ReportWords): string {
	if (agrees) return words.say('report.claim.agrees');
	if (base) return words.say(`report.claim.${base}`);
	return words.say('report.claim.wrong', { percent: localNumber(String(percent), words.language) });
}
