/** What a question asks: whether yes or no answers it, in which direction, and of which metrics. */
import { METRICS, type MetricId } from '../metrics/catalogue';

export interface AskedDirection {
	direction: 'better' | 'worse';
	/** The metrics that the asked word speaks of. */
	metrics: readonly MetricId[];
}

/** Words that begin a question to which yes or no is an answer, in English. */
const ENGLISH_START = /^(did|does|do|is|are|was|were|will|would|has|have|had|can|could|should)\b(?!.*\bor\b)/i;
/** Spanish questions open with ¿; those that begin with one of these words want more than yes or no. */
const SPANISH_START =
	/^¿(?!.*\so\s)(?!\s*(qué|que|cuál|cuáles|cuánto|cuánta|cómo|cuándo|dónde|quién|por qué|en qué)(?!\p{L}))/iu;

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

/** Yes to a question in the negative says nothing that both sides understand alike. */
const NEGATED = /\b(not|no|never|neither|nor|none|nunca|jamás|tampoco)\b|n[’']t\b/i;
/** Words for a state without something: whose state it is, the question alone does not say. */
const WITHOUT = /\b(without|sin)\b/i;
/** Words for what was there first. */
const FORMER =
	/\b(before|old|former|previous(ly)?|original(ly)?|used to|antes|antigu[oa]s?|anterior(es)?|viej[oa]s?)\b/i;
const THAN = /\bthan\b/i;
/** What a comparison is made with, after a word of the change: "más lenta que antes". */
const QUE = /\bque\b/i;

/** Words of a name that could be any page's. */
const COMMON = new Set(
	'the and with without page site new variant version stage now after con sin página sitio nueva nuevo de del la el los las una uno'.split(
		' '
	)
);

/** Words that speak of this one and not of the other; of “without chat” none does: a chat is what it lacks. */
function partsOfName(name: string, other: string): string[] {
	if (WITHOUT.test(name)) return [];
	const wordsOf = (text: string) => text.toLowerCase().match(/[\p{L}\p{N}]+/gu) ?? [];
	const others = new Set(wordsOf(other));
	return wordsOf(name).filter((word) => word.length >= 3 && !others.has(word) && !COMMON.has(word));
}

/** Whether a text speaks of a variant: by its name, or by a word that the other one's name has not. */
function names(text: string, name: string, other: string): boolean {
	const spoken = ` ${(text.toLowerCase().match(/[\p{L}\p{N}]+/gu) ?? []).join(' ')} `;
	const whole = (name.toLowerCase().match(/[\p{L}\p{N}]+/gu) ?? []).join(' ');
	if (whole && spoken.includes(` ${whole} `) && !` ${other.toLowerCase()} `.includes(` ${whole} `)) return true;
	return partsOfName(name, other).some((word) => spoken.includes(` ${word} `));
}

/**
 * Whether the variant is what the question asks about: alone, or against the baseline. Where the baseline is asked
 * about, or both are named in another way, yes could mean either.
 */
function asksOfArm(text: string, { arm, baseline }: Compared): boolean {
	const [subject, object = ''] = text.split(text.startsWith('¿') ? QUE : THAN) as [string, string?];
	const isArm = (part: string) => names(part, arm, baseline);
	const isBaseline = (part: string) => names(part, baseline, arm) || (FORMER.test(part) && !isArm(part));
	if (isBaseline(subject) || isArm(object)) return false;
	return !WITHOUT.test(subject) || WITHOUT.test(arm);
}

interface Compared {
	baseline: string;
	arm: string;
}

/**
 * @param compared names of the two; without them only the words of the question count
 * @returns null where yes or no would not answer the question, or its direction cannot be read for certain
 */
export function askedDirection(question: string, compared: Compared | null = null): AskedDirection | null {
	const text = question.trim();
	const asksYesNo = text.startsWith('¿') ? SPANISH_START.test(text) : ENGLISH_START.test(text);
	if (!asksYesNo || NEGATED.test(text) || /\bya no\b/i.test(text)) return null;
	if (!asksOfArm(text, compared ?? { baseline: '', arm: '' })) return null;
	const found = ASKED.filter(([form]) => form.test(text));
	const directions = new Set(found.map(([, direction]) => direction));
	if (directions.size !== 1) return null;
	const metrics = METRICS.filter((metric) => found.some(([, , scope]) => SCOPES[scope](metric))).map(({ id }) => id);
	return { direction: found[0]![1], metrics };
}
