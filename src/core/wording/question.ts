/** What a question asks: whether yes or no answers it, in which direction, and of which metrics. */
import { METRICS, type MetricId } from '../metrics/catalogue';

export interface AskedDirection {
	direction: 'better' | 'worse';
	/** The metrics that the asked word speaks of. */
	metrics: readonly MetricId[];
}

/** Words that begin a question to which yes or no is an answer, in English. */
const ENGLISH_START = /^(did|does|do|is|are|was|were|will|would|has|have|had|can|could|should)(n[’']t)?\b(?!.*\bor\b)/i;
/** Spanish questions open with ¿; those that begin with one of these words want more than yes or no. */
const SPANISH_START = /^¿(?!\s*(qué|que|cuál|cuáles|cuánto|cuánta|cómo|cuándo|dónde|quién|por qué|en qué)\b)/i;

type Scope = 'speed' | 'weight' | 'steadiness' | 'all';

/** Forms that say a change and nothing else: "light" may be a lamp, and "help" the name of a page. */
const ASKED: readonly [form: RegExp, direction: AskedDirection['direction'], scope: Scope][] = [
	[
		/\b(slower|slows?( down)?|slowed( down)?|delay(s|ed)?|más lent[oa]s?|ralentiz[\wáéíóú]*)(?![\wáéíóú])/i,
		'worse',
		'speed'
	],
	[/\b(faster|quicker|speeds? up|sped up|más rápid[oa]s?|aceler[\wáéíóú]*)(?![\wáéíóú])/i, 'better', 'speed'],
	[/\b(heavier|más pesad[oa]s?)\b/i, 'worse', 'weight'],
	[/\b(lighter|más liger[oa]s?)\b/i, 'better', 'weight'],
	[/\b(less stable|less steady|menos estables?)\b/i, 'worse', 'steadiness'],
	[/\b(more stable|steadier|más estables?)\b/i, 'better', 'steadiness'],
	[/\b(worse|hurts?|harm(s|ed)?|peor(es)?|empeor[\wáéíóú]*)(?![\wáéíóú])/i, 'worse', 'all'],
	[/\b(better|improve[sd]?|mejor(es)?|mejor(a|ó|aron))(?![\wáéíóú])|\bhelp(s|ed)?\s*\?/i, 'better', 'all']
];

const SCOPES: Record<Scope, (metric: (typeof METRICS)[number]) => boolean> = {
	speed: ({ unit, id }) => unit === 'ms' || id === 'score',
	weight: ({ unit }) => unit === 'bytes' || unit === 'count',
	steadiness: ({ id }) => id === 'cls',
	all: () => true
};

/** @returns null where yes or no would not answer the question, or its direction cannot be read for certain */
export function askedDirection(question: string): AskedDirection | null {
	const text = question.trim();
	const asksYesNo = text.startsWith('¿') ? SPANISH_START.test(text) : ENGLISH_START.test(text);
	if (!asksYesNo || /\b(not|no)\b/i.test(text)) return null;
	const found = ASKED.filter(([form]) => form.test(text));
	const directions = new Set(found.map(([, direction]) => direction));
	if (directions.size !== 1) return null;
	const metrics = METRICS.filter((metric) => found.some(([, , scope]) => SCOPES[scope](metric))).map(({ id }) => id);
	return { direction: found[0]![1], metrics };
}
