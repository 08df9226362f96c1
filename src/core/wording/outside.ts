/** A figure from elsewhere in words: what was said, what is nearest of ours, and what makes the two different. */
import { compareOutside, type OutsideComparison, type OwnFigures } from '../report/outside';
import type { OutsideFigure } from '../report/document';
import { metricOf } from '../metrics/catalogue';
import { localNumber } from './localNumber';
import { plainName } from './plainNames';
import { wordChange, wordDay, wordUnit } from './report';
import type { ReportWords } from './reportWords';

const JOIN = '\u00a0';

export interface OutsideTold {
	said: string;
	own: string;
	lines: string[];
	rest: string;
}

/** @param nearest own loads of the page, and what their conditions are called; null where there are none */
export function tellOutside(
	figure: OutsideFigure,
	nearest: (OwnFigures & { conditions: string }) | null,
	words: ReportWords
): OutsideTold {
	const found = compareOutside(figure, nearest);
	const value = (item: number) => wordUnit(metricOf(figure.metric).unit, item, words);
	const said = words.say('report.outside.said', {
		program: figure.program,
		metric: plainName(figure.metric, words),
		value: wordToldValue(figure, words)
	});
	const own =
		found.own &&
		words.say('report.outside.own', {
			median: value(found.own.median),
			low: value(found.own.low),
			high: value(found.own.high),
			n: found.own.loads,
			conditions: nearest!.conditions
		});
	return {
		said: [said, figure.day && wordDay(figure.day, words.language)].filter(Boolean).join(', '),
		own: own ?? words.say('report.outside.own.none'),
		...wordOutside(figure, found, words)
	};
}

/** An outside figure as it was told: "3.1 s". */
function wordToldValue({ value, unit }: OutsideFigure, words: ReportWords): string {
	const bare = unit === 'points' || unit === 'unitless' || unit === 'count';
	return localNumber(bare ? String(value) : `${value}${JOIN}${unit}`, words.language);
}

/** Why an outside figure and ours are not the same, as far as it can be said. */
function wordOutside(
	figure: OutsideFigure,
	found: OutsideComparison,
	words: ReportWords
): { lines: string[]; rest: string } {
	const value = wordToldValue(figure, words);
	const { implausible, difference, position, reasons } = found;
	if (implausible) {
		const metric = plainName(figure.metric, words);
		return {
			lines: [words.say(`report.outside.implausible.${implausible}`, { value, metric, unit: figure.unit })],
			rest: ''
		};
	}
	const said = definitionIn(figure, found, words);
	const reasonWords = reasons.map((reason) => words.say(`report.outside.reason.${reason}`, { place: figure.place }));
	if (difference === null || position === null) return { lines: reasonWords, rest: '' };
	if (found.isWithinSpread)
		return { lines: [...said, words.say('report.outside.within'), ...positionIn(position, words)], rest: '' };
	const size = wordChange({ metric: figure.metric, scale: 'unit' }, difference, words);
	return {
		lines: [
			words.say('report.outside.difference', { difference: size }),
			...said,
			...positionIn(position, words),
			...reasonWords
		],
		rest: words.say('report.outside.unexplained', {
			rest: wordChange({ metric: figure.metric, scale: 'unit' }, difference - (found.byDefinition ?? 0), words)
		})
	};
}

/** What the program's own definition makes of our loads. */
function definitionIn(figure: OutsideFigure, found: OutsideComparison, words: ReportWords): string[] {
	const { definition, metric, program } = figure;
	if (definition === null || definition === metric) return [];
	const name = plainName(definition, words);
	if (!found.defined || found.byDefinition === null) return [words.say('report.outside.undefined', { program, name })];
	const { median, low, high } = found.defined;
	const value = (item: number) => wordUnit(metricOf(definition).unit, item, words);
	return [
		words.say('report.outside.definition', {
			program,
			name,
			median: value(median),
			low: value(low),
			high: value(high),
			difference: wordChange({ metric, scale: 'unit' }, found.byDefinition, words)
		})
	];
}

const positionIn = (position: number, words: ReportWords) => [
	words.say('report.outside.position', { percent: localNumber((position * 100).toFixed(0), words.language) })
];
