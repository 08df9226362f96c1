/** What is wrong with a bundle. */

export type FaultKind =
	/** There is no manifest, or it cannot be read. */
	| 'manifest'
	/** It must be there and is not. */
	| 'missing'
	/** There and not named by the manifest, or nothing that a bundle has. */
	| 'extra'
	/** Its sum is another. */
	| 'sum'
	/** It is not as it was signed, or signed by somebody else. */
	| 'signature'
	/** It cannot be read. */
	| 'unreadable'
	/** A figure that does not follow from the loads. */
	| 'figure'
	/** What is shown does not follow from the report beside it. */
	| 'shown';

export interface Fault {
	kind: FaultKind;
	/** Name of the file. */
	file: string;
	/** Which figure, or what is wrong. */
	what: string;
	/** As it stands there, and as it should; empty where that says nothing. */
	found: string;
	expected: string;
}

/** Longer texts say no more. */
const LONGEST = 1000;
const short = (text: string) => (text.length > LONGEST ? `${text.slice(0, LONGEST)}…` : text);

export function fault(kind: FaultKind, file: string, what: string, found = '', expected = ''): Fault {
	return { kind, file, what, found: short(found), expected: short(expected) };
}

/** Figures differ by rounding of their text in JSON at most. */
const WITHIN = 1e-9;

export function isSameFigure(a: number | null | undefined, b: number | null | undefined): boolean {
	if (a === null || a === undefined || b === null || b === undefined) return (a ?? null) === (b ?? null);
	return Math.abs(a - b) <= WITHIN * Math.max(1, Math.abs(a), Math.abs(b));
}

/** Plain data, figures within rounding; a field without a value is as one that is not there. */
export function isSame(a: unknown, b: unknown): boolean {
	if (typeof a === 'number' && typeof b === 'number') return isSameFigure(a, b);
	if (typeof a !== 'object' || typeof b !== 'object' || a === null || b === null) return (a ?? null) === (b ?? null);
	if (Array.isArray(a) !== Array.isArray(b)) return false;
	const [own, other] = [a as Record<string, unknown>, b as Record<string, unknown>];
	if (Array.isArray(a) && a.length !== (b as unknown[]).length) return false;
	return [...new Set([...Object.keys(own), ...Object.keys(other)])].every((key) => isSame(own[key], other[key]));
}
