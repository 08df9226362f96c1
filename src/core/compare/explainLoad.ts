/** Why one load is slow: the largest part of each figure, from the same digest that explains shifts of trials. */
import type { LoadDigest } from './digest';

export type LcpPart = keyof NonNullable<LoadDigest['lcpParts']>;

export interface LoadExplanation {
	/** What the largest paint waited for, longest first; null without one. */
	lcp: { ms: number; element: string | null; parts: { part: LcpPart; ms: number }[] } | null;
	/** Blocking time by owner, longest first; null when nothing blocks. */
	blocking: { ms: number; owners: { name: string; ms: number }[] } | null;
	/** Elements that moved, farthest first; null when nothing moved enough to be seen. */
	moved: { cls: number; elements: { name: string; value: number }[] } | null;
	/** Who kept the page loading after the site itself was complete; null when nobody did. */
	tail: { ms: number; owners: { name: string; ms: number }[] } | null;
}

/** Less is not worth a sentence (house). */
const LEAST_BLOCKING_MS = 50;
const LEAST_SHIFT = 0.01;
const LEAST_TAIL_MS = 200;

type Named = { owner: { name: string; kind: string }; ms: number };

const byLength = <Item extends { ms: number }>(items: readonly Item[]) => [...items].sort((a, b) => b.ms - a.ms);
const named = (items: readonly Named[]) => byLength(items).map(({ owner, ms }) => ({ name: owner.name, ms }));
const sum = (items: readonly { ms: number }[]) => items.reduce((total, { ms }) => total + ms, 0);

/** @param digest of a load that did not fail */
export function explainLoad({ figures, lcpParts, lcpElement, blocking, shifts, tail }: LoadDigest): LoadExplanation {
	const foreign = tail.filter(({ owner, ms }) => owner.kind === 'third-party' && ms > 0);
	const blockingMs = sum(blocking);
	return {
		lcp:
			figures.lcp === null
				? null
				: {
						ms: figures.lcp,
						element: lcpElement,
						parts: byLength(Object.entries(lcpParts ?? {}).map(([part, ms]) => ({ part: part as LcpPart, ms }))).filter(
							({ ms }) => ms > 0
						)
					},
		blocking: blockingMs >= LEAST_BLOCKING_MS ? { ms: blockingMs, owners: named(blocking) } : null,
		moved:
			(figures.cls ?? 0) >= LEAST_SHIFT
				? {
						cls: figures.cls!,
						elements: [...shifts]
							.sort((a, b) => b.value - a.value)
							.map(({ element, value }) => ({ name: element, value }))
					}
				: null,
		tail: sum(foreign) >= LEAST_TAIL_MS ? { ms: sum(foreign), owners: named(foreign) } : null
	};
}
