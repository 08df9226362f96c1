/** Asking a site, pass by pass, how much of its sample its cache has by now: kept beside the site, read by its page. */
import * as v from 'valibot';
import type { Conditions } from '$core/load/conditions/conditions';
import { failedFetch, type FetchSeen } from '$core/load/requests/stability';
import { isOpen, withAnswer, type PageAsked } from '$core/pages/settling';
import { findConditions, namesOfConditions } from '../conditions/saved';
import { existingSite } from '../clients/view';
import { nowIso, type Db } from '../../base/db/connection';
import { findDerived, saveDerived } from '../../base/queue/derived';
import { hasOpenJob, insertJob, PRIORITY } from '../../base/queue/jobs';
import { NotPossible } from '../../base/refusal';
import { existingPage, pagesToChoose } from './queries/pages';

/** Pages of one asking, the rest between two passes, and the longest of all (house). */
const MOST_PAGES = 60;
const REST_MS = 4000;
const MOST_MINUTES = 60;
const USUAL_MINUTES = 10;
/** One page takes at most so long: an answer is waited for 20 s. */
const PAGE_MS = 20_500;

export const SettlingInput = v.object({
	conditions: v.optional(
		v.pipe(v.array(v.string()), v.minLength(1, 'Choose at least one device.'), v.maxLength(4, 'At most four.')),
		['phone', 'desktop']
	),
	/** The sample of the site where none is named. */
	pages: v.optional(v.pipe(v.array(v.pipe(v.number(), v.integer())), v.maxLength(MOST_PAGES))),
	withinMinutes: v.optional(
		v.pipe(
			v.number('Minutes are a number.'),
			v.minValue(1, 'At least a minute.'),
			v.maxValue(MOST_MINUTES, `At most ${MOST_MINUTES} minutes.`)
		),
		USUAL_MINUTES
	)
});
export type SettlingInput = v.InferOutput<typeof SettlingInput>;

export interface Settling {
	/** UTC ISO. */
	startedAt: string;
	until: string;
	/** Of the last news. */
	at: string;
	pages: PageAsked[];
	isDone: boolean;
}

const VERSION = '1';
const subjectOf = (siteId: number) => ({ kind: 'site', id: siteId }) as const;
const keyOf = (siteId: number) =>
	({ subject: subjectOf(siteId), kind: 'settling', version: VERSION, fingerprint: '' }) as const;

export const findSettling = (db: Db, siteId: number): Settling | null =>
	findDerived<Settling>(db, keyOf(siteId))?.body ?? null;

const saveSettling = (db: Db, siteId: number, settling: Settling) =>
	saveDerived(db, { ...keyOf(siteId), body: { ...settling, at: nowIso() } });

/** @throws NotPossible without pages, for conditions that are not there, and while it is being asked already */
export function requestSettling(db: Db, siteId: number, { conditions, pages, withinMinutes }: SettlingInput): void {
	db.transaction(() => {
		existingSite(db, siteId);
		if (findSettling(db, siteId)?.isDone === false)
			throw new NotPossible(
				409,
				'The pages of this site are being asked already. Wait until that is done, or stop it.'
			);
		const devices = conditions.map((id) => conditionsOf(db, id));
		const asked = pages ? pages.map((id) => pageOfSite(db, siteId, id)) : sampleOf(db, siteId);
		const now = Date.now();
		const startedAt = new Date(now).toISOString();
		saveSettling(db, siteId, {
			startedAt,
			at: startedAt,
			until: new Date(now + withinMinutes * 60_000).toISOString(),
			isDone: false,
			pages: devices.flatMap(({ id: condition }) =>
				asked.map(({ id: pageId, url }) => ({ pageId, url, condition, answers: [], asked: 0 }))
			)
		});
		insertPass(db, siteId);
	}).immediate();
}

/** What was answered stays. */
export function stopSettling(db: Db, siteId: number): void {
	const settling = findSettling(db, siteId);
	if (settling && !settling.isDone) saveSettling(db, siteId, { ...settling, isDone: true });
}

function insertPass(db: Db, siteId: number, notBefore: string | null = null): void {
	if (hasOpenJob(db, 'settle', subjectOf(siteId))) return;
	insertJob(db, { kind: 'settle', subject: subjectOf(siteId), priority: PRIORITY.awaited, notBefore });
}

function conditionsOf(db: Db, id: string): Conditions {
	const found = findConditions(db, id);
	if (!found)
		throw new NotPossible(422, `There are no conditions “${id}”. There are: ${namesOfConditions(db)}.`, 'conditions');
	return found;
}

function pageOfSite(db: Db, siteId: number, id: number) {
	const page = existingPage(db, id);
	if (page.siteId !== siteId) throw new NotPossible(422, `Page ${id} belongs to another site.`, 'pages');
	return page;
}

function sampleOf(db: Db, siteId: number) {
	const chosen = pagesToChoose(db, siteId).filter((page) => page.chosen);
	if (!chosen.length) throw new NotPossible(422, 'This site has no sample yet. Choose pages first.', 'pages');
	return chosen.slice(0, MOST_PAGES);
}

export interface AskAt {
	ask(
		urls: readonly string[],
		conditions: Conditions,
		at: { goesOn(): boolean; answered(url: string, answer: FetchSeen): void }
	): Promise<void>;
	goesOn(): boolean;
	persist<Result>(write: () => Result): Promise<Result>;
}

export function longestPassMs(db: Db, siteId: number): number {
	return (findSettling(db, siteId)?.pages.length ?? 0) * PAGE_MS + PAGE_MS;
}

/** One pass over the pages that are open. @returns whether another pass is due */
export async function settlePass(db: Db, siteId: number, at: AskAt): Promise<boolean> {
	const settling = findSettling(db, siteId);
	if (!settling || settling.isDone) return false;
	const begun = Date.parse(settling.startedAt);
	const { until, pages } = settling;
	const inTime = () => new Date().toISOString() < until;
	for (const condition of new Set(pages.map((page) => page.condition))) {
		const open = pages.filter((page) => page.condition === condition && isOpen(page));
		const device = findConditions(db, condition);
		if (!device || !open.length) continue;
		await at.ask(
			open.map(({ url }) => url),
			device,
			{
				goesOn: () => at.goesOn() && inTime(),
				answered: (url, answer) => note(pages, { url, condition, answer, begun })
			}
		);
	}
	const isDone = !inTime() || !pages.some(isOpen);
	return at.persist(() => keepPass(db, siteId, { ...settling, isDone }));
}

function note(
	pages: PageAsked[],
	{ url, condition, answer, begun }: { url: string; condition: string; answer: FetchSeen; begun: number }
): void {
	const index = pages.findIndex((page) => page.url === url && page.condition === condition);
	pages[index] = withAnswer(pages[index]!, { ...answer, atMs: Date.now() - begun });
}

/** Stopped meanwhile, it stays stopped. */
function keepPass(db: Db, siteId: number, settling: Settling): boolean {
	const now = findSettling(db, siteId);
	if (now?.startedAt !== settling.startedAt) return false;
	saveSettling(db, siteId, { ...settling, isDone: settling.isDone || now.isDone });
	return !settling.isDone && !now.isDone;
}

export const insertNextPass = (db: Db, siteId: number): void =>
	insertPass(db, siteId, new Date(Date.now() + REST_MS).toISOString());

/** It took the lab down again and again: the pages that were not asked say so. */
export function giveUpSettling(db: Db, siteId: number, times: number): void {
	const settling = findSettling(db, siteId);
	if (!settling) return;
	const answer = failedFetch(`the lab ended ${times} times while it asked for the pages of this site`);
	const pages = settling.pages.map((page) => (isOpen(page) ? withAnswer(page, answer) : page));
	saveSettling(db, siteId, { ...settling, pages, isDone: true });
}
