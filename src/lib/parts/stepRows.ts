/** Steps as rows of an editor, and back: pure. The JSON list is the truth. */
import { KEYS } from '$core/load/journey/steps';

/** What a row does; a wait for a state and a wait for a time are two. */
export const ROW_VERBS = [
	'open',
	'click',
	'type',
	'press',
	'scroll',
	'wait-for',
	'wait',
	'expect',
	'trySend',
	'mark'
] as const;
export type RowVerb = (typeof ROW_VERBS)[number];

export const STATE_KINDS = ['selector', 'text', 'gone', 'title', 'url', 'plays'] as const;
export type StateKind = (typeof STATE_KINDS)[number];

export interface StepRow {
	verb: RowVerb;
	/** An address, a selector, a key, words, ms. */
	value: string;
	/** What is typed. */
	text: string;
	/** What a wait or an expectation looks for. */
	state: StateKind;
	/** ms; empty for the usual time. */
	within: string;
}

export const NEW_ROW: StepRow = { verb: 'click', value: '', text: '', state: 'selector', within: '' };

/**
 * Read leniently: what is half typed is a row too, and the door says what is wrong with it.
 * @returns null where the text is no list, or has a step that no row can show: it stays as JSON
 */
export function rowsOf(text: string | undefined): StepRow[] | null {
	if (!text?.trim()) return [];
	try {
		const steps = JSON.parse(text) as unknown;
		if (!Array.isArray(steps)) return null;
		const rows = steps.map((step) => rowOf(step as Record<string, unknown>));
		return rows.every((row) => row !== null) ? rows : null;
	} catch {
		return null;
	}
}

const PLAIN = ['open', 'click', 'press', 'scroll', 'trySend', 'mark'] as const;

function rowOf(step: Record<string, unknown>): StepRow | null {
	const { within, ...rest } = step;
	const time = within === undefined ? '' : String(within);
	if ('expect' in rest) return stateRow('expect', rest.expect, time);
	if ('wait' in rest)
		return typeof rest.wait === 'object'
			? stateRow('wait-for', rest.wait, time)
			: { ...NEW_ROW, verb: 'wait', value: String(rest.wait) };
	if ('type' in rest) return { ...NEW_ROW, verb: 'type', value: String(rest.into ?? ''), text: String(rest.type) };
	const verb = PLAIN.find((name) => name in rest);
	return verb ? { ...NEW_ROW, verb, value: String(rest[verb]) } : null;
}

/** Several things at once have no row. */
function stateRow(verb: RowVerb, state: unknown, within: string): StepRow | null {
	const [only, ...others] = Object.entries(state ?? {});
	const kind = STATE_KINDS.find((name) => name === only?.[0]);
	return kind && !others.length ? { ...NEW_ROW, verb, state: kind, value: String(only![1]), within } : null;
}

/** The list as JSON, a step a line; empty without rows. */
export function stepsText(rows: readonly StepRow[]): string {
	if (!rows.length) return '';
	return `[\n${rows.map((row) => `\t${JSON.stringify(stepOf(row))}`).join(',\n')}\n]`;
}

/** What a row says, right or wrong: the door judges it. */
function stepOf({ verb, value, text, state, within }: StepRow): unknown {
	const time = within.trim() === '' ? {} : { within: Number(within) };
	switch (verb) {
		case 'type':
			return { type: text, into: value };
		case 'scroll':
			return { scroll: /^-?\d+$/.test(value.trim()) ? Number(value) : value };
		case 'wait':
			return { wait: value.trim() === '' ? value : Number(value) };
		case 'wait-for':
			return { wait: { [state]: value }, ...time };
		case 'expect':
			return { expect: { [state]: value }, ...time };
		default:
			return { [verb]: value };
	}
}

export const FIRST_KEY = KEYS[0];
