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

/** A word, what it asks for, and of what. Stems, so that "slower" and "slowed" are one. */
const ASKED: readonly [stem: RegExp, direction: AskedDirection['direction'], scope: Scope][] = [
	[/\b(slow|delay|lent[oa]|ralentiz|retras)/i, 'worse', 'speed'],
	[/\b(fast|quick|speed\w* up|rápid|aceler)/i, 'better', 'speed'],
	[/\b(heav|bloat|pesad)/i, 'worse', 'weight'],
	[/\b(light|small|liger)/i, 'better', 'weight'],
	[/\b(unstable|less stable|inestable|menos estable)/i, 'worse', 'steadiness'],
	[/\b(more stable|stead|más estable)/i, 'better', 'steadiness'],
	[/\b(worse|hurt|harm|cost|peor|empeor|perjudic|dañ)/i, 'worse', 'all'],
	[/\b(better|help|improv|benefit|mejor|ayud)/i, 'better', 'all']
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
	const found = ASKED.filter(([stem]) => stem.test(text));
	const directions = new Set(found.map(([, direction]) => direction));
	if (directions.size !== 1) return null;
	const metrics = METRICS.filter((metric) => found.some(([, , scope]) => SCOPES[scope](metric))).map(({ id }) => id);
	return { direction: found[0]![1], metrics };
}
