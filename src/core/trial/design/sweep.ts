/** The table of a sweep: its pages by the visitor states in which each was loaded. */
import { comparisonsOf } from './comparisons';
import type { TrialArm, TrialDesign } from '../types';

export interface SweepCell {
	/** The variant with the change. */
	arm: number;
	/** Name of the visitor state; null for an anonymous visitor. */
	state: string | null;
	/** What the change is called here, where that is not what it is called on most pages. */
	exception: string | null;
}

export interface SweepRow {
	page: string;
	/** In the order of the states; null where the page was not loaded in one. */
	cells: (SweepCell | null)[];
}

export interface SweepTable {
	states: (string | null)[];
	rows: SweepRow[];
}

/** One page in one state is one page of the sweep, by this name. */
export const pageInState = (page: string, state: string | null): string =>
	state === null ? page : `${page}, ${state}`;

const stateOf = ({ before }: TrialArm): string | null => before?.name ?? null;

/** "Basket, signed in" in the state "signed in": "Basket" */
function pageOf(arm: TrialArm): string {
	const page = arm.page ?? '';
	const state = stateOf(arm);
	const ending = state === null ? '' : `, ${state}`;
	return ending && page.endsWith(ending) ? page.slice(0, -ending.length) : page;
}

/** Pages in the order in which they are named; an anonymous visitor comes first. */
export function sweepTable(design: Pick<TrialDesign, 'kind' | 'arms'>): SweepTable {
	const changed = comparisonsOf(design).map(({ arm }) => arm);
	const states = [...new Set(changed.map(stateOf))].sort((a, b) => Number(a !== null) - Number(b !== null));
	const usual = usualName(changed);
	const pages = [...new Set(changed.map(pageOf))];
	return {
		states,
		rows: pages.map((page) => ({
			page,
			cells: states.map((state) => {
				const arm = changed.find((candidate) => pageOf(candidate) === page && stateOf(candidate) === state);
				return arm ? { arm: arm.id, state, exception: arm.name === usual ? null : arm.name } : null;
			})
		}))
	};
}

/** What the change is called on most pages. */
export const usualName = (changed: readonly Pick<TrialArm, 'name'>[]): string | undefined =>
	mostCommon(changed.map(({ name }) => name));

function mostCommon(names: readonly string[]): string | undefined {
	const counts = new Map<string, number>();
	for (const name of names) counts.set(name, (counts.get(name) ?? 0) + 1);
	return [...counts].sort(([, a], [, b]) => b - a)[0]?.[0];
}
