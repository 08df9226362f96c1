/**
 * What went wrong with a page in a reading, beside its figures: it is gone, it leads elsewhere, it asks who one is, it
 * is built otherwise.
 */
import type { FailureCode, LoadRecord } from '../load/record/record';
import { landedElsewhere } from '../load/record/landing';
import { markupLikeness, OTHER_TEMPLATE } from '../load/record/signature';

export interface PageTrouble {
	/** Loads that failed, by reason. */
	failed: { code: FailureCode; status: number | null; loads: number }[];
	/** Where the page led; null where it stayed. */
	redirectedTo: string | null;
	/** It asked for a name and a pass phrase. */
	asksWhoOneIs: boolean;
	/** Share of its markup that it has in common with the reading before, where that is too little; else null. */
	likeness: number | null;
}

const LOGIN_PATH = /\/(log-?in|sign-?in|account\/enter|auth)([/?#.]|$)/i;
const UNAUTHORISED = [401, 403];

/**
 * @param records of all loads of a page in one reading
 * @param before signature of its markup in the reading before; empty where unknown
 * @returns null where there was none
 */
export function troubleOf(
	url: string,
	records: readonly Pick<LoadRecord, 'status' | 'failure' | 'finalUrl' | 'requests' | 'page'>[],
	before: readonly number[] = []
): PageTrouble | null {
	const failed = new Map<string, PageTrouble['failed'][number]>();
	for (const record of records) {
		if (record.status !== 'failed' || !record.failure) continue;
		const status = documentStatus(record);
		const key = `${record.failure.code}/${status}`;
		const existing = failed.get(key) ?? { code: record.failure.code, status, loads: 0 };
		failed.set(key, { ...existing, loads: existing.loads + 1 });
	}
	const redirectedTo = redirectOf(url, records);
	const asksWhoOneIs =
		[...failed.values()].some(({ status }) => status !== null && UNAUTHORISED.includes(status)) ||
		(redirectedTo !== null && LOGIN_PATH.test(redirectedTo));
	const likeness = likenessIfOther(records, before);
	if (!failed.size && !redirectedTo && likeness === null) return null;
	return { failed: [...failed.values()], redirectedTo, asksWhoOneIs, likeness };
}

const redirectOf = (url: string, records: readonly Pick<LoadRecord, 'status' | 'finalUrl'>[]): string | null =>
	records.flatMap(({ status, finalUrl }) => (status === 'ok' && landedElsewhere({ url, finalUrl })) || []).at(0) ??
	null;

function likenessIfOther(
	records: readonly Pick<LoadRecord, 'status' | 'page'>[],
	before: readonly number[]
): number | null {
	const page = records.find(({ status }) => status === 'ok')?.page;
	const likeness = page ? markupLikeness(page.signature, before) : null;
	return likeness !== null && likeness < OTHER_TEMPLATE ? likeness : null;
}

function documentStatus({ requests }: Pick<LoadRecord, 'requests'>): number | null {
	return requests.findLast(({ type }) => type === 'document')?.status ?? null;
}
