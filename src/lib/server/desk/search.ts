/** One search over everything that has a name or an address. */
import { formatMoment } from '$core/wording/format';
import type { Db } from '../base/db/connection';
import { findHits, HIT_KINDS, type HitKind, type HitRow } from './queries';

export type { HitKind };

export interface Hit {
	kind: HitKind;
	/** Where it is in the app. */
	href: string;
	text: string;
	/** Whose it is, or when it was. */
	note: string;
}

const HREFS: Record<HitKind, (row: HitRow) => string> = {
	client: ({ id }) => `/clients/${id}`,
	site: ({ id, owner }) => `/clients/${owner}/sites/${id}`,
	page: ({ text, owner }) => `/pages?site=${owner}&q=${encodeURIComponent(new URL(text).pathname)}`,
	trial: ({ id }) => `/trials/${id}`,
	report: ({ id }) => `/reports/${id}`,
	load: ({ id }) => `/loads/${id}`
};

/** @returns empty for less than two letters */
export function search(db: Db, query: string): Hit[] {
	const sought = query.trim().toLowerCase().slice(0, 200).split(/\s+/).filter(Boolean);
	if (sought.join('').length < 2) return [];
	return HIT_KINDS.flatMap((kind) =>
		findHits(db, kind, sought).map((row) => ({
			kind,
			href: HREFS[kind](row),
			text: row.text,
			note: kind === 'load' ? formatMoment(row.note) : row.note
		}))
	);
}
