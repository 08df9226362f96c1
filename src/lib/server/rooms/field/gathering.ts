/** Asking the panel for the windows of a client's pages: newest first, each once, by the lab between loads. */
import * as v from 'valibot';
import { originOf } from '$core/clients/site';
import { setTimeout as pause } from 'node:timers/promises';
import { DEVICE_CLASSES } from '$core/field/reading';
import { addDays, windowEnds, windowStart } from '$core/field/windows';
import { nowIso, type Db } from '../../base/db/connection';
import type { Outward } from '../../base/outward';
import { findDerived, saveDerived } from '../../base/queue/derived';
import { insertJob, PRIORITY } from '../../base/queue/jobs';
import { askPanel, PanelTrouble, type PanelFault, type PanelSettings } from './panel';
import { hasReading, newestWindow, saveReading } from './queries/readings';
import { isGatheringField } from './queries/gathering';
import { clientNames, sitesOf, type Site } from '../clients/view';
import { listPages } from '../pages/view';

export const FieldOrder = v.object({ what: v.literal('field'), until: v.string() });

/** Windows that are asked for at first: a quarter of a year, a week apart. */
export const FIRST_WINDOWS = 13;

const STEP_DAYS = 7;

const MOST_PAGES = 50;

const MOST_TRIES = 3;

const VERSION = '1';

/** The last whole day. */
export const newestEnd = (now: string): string => addDays(now.slice(0, 10), -1);

const subjectOf = (clientId: number) => ({ kind: 'client', id: clientId }) as const;

/** How the last gathering went; null before the first. */
export interface FieldGathering {
	/** UTC ISO. */
	at: string;
	asked: number;
	/** Questions that had too few visits. */
	tooFew: number;
	/** Why the panel could not be asked; null when it could. */
	fault: PanelFault | null;
}

export function findFieldGathering(db: Db, clientId: number): FieldGathering | null {
	return (
		findDerived<FieldGathering>(db, {
			subject: subjectOf(clientId),
			kind: 'field-gathering',
			version: VERSION,
			fingerprint: ''
		})?.body ?? null
	);
}

/** Queue the windows that are missing: the newest at once, earlier ones when the lab has nothing else to do. */
export function requestField(db: Db, clientId: number, now = nowIso()): void {
	if (isGatheringField(db, clientId)) return;
	const ends = windowEnds(newestEnd(now), FIRST_WINDOWS, STEP_DAYS).reverse();
	ends.forEach((until, i) =>
		insertJob(db, {
			kind: 'gather',
			subject: subjectOf(clientId),
			order: { what: 'field', until },
			priority: i === 0 ? PRIORITY.awaited : PRIORITY.catchUp
		})
	);
}

/** Clients whose newest window is older than yesterday, once a day. */
export function requestDueField(db: Db, now = nowIso()): void {
	for (const { id } of clientNames(db)) {
		const newest = newestWindow(db, id);
		if (newest !== null && newest < newestEnd(now)) requestField(db, id, now);
	}
}

export interface FieldAt {
	panel: PanelSettings;
	outward: Outward;
	goesOn(): boolean;
	persist<Result>(write: () => Result): Promise<Result>;
}

interface Question {
	siteId: number;
	pageId: number | null;
	scope: 'page' | 'origin';
	url: string;
	device: 'phone' | 'desktop';
}

/** Chosen pages of own sites and competitors, and each origin. */
function questionsOf(db: Db, clientId: number): Question[] {
	const sites = sitesOf(db, clientId).filter(({ role }) => role !== 'bench');
	return sites.flatMap((site: Site) => {
		const pages = listPages(db, { siteId: site.id, which: 'chosen' }, MOST_PAGES);
		return DEVICE_CLASSES.flatMap((device): Question[] => [
			...pages.map(({ id, url }) => ({ siteId: site.id, pageId: id, scope: 'page' as const, url, device })),
			{ siteId: site.id, pageId: null, scope: 'origin', url: originOf(site), device }
		]);
	});
}

/** Ask for one window of everything of a client. What could not be asked is asked for again another time. */
export async function gatherField(db: Db, clientId: number, until: string, at: FieldAt): Promise<void> {
	const gathering: FieldGathering = { at: nowIso(), asked: 0, tooFew: 0, fault: null };
	for (const question of questionsOf(db, clientId)) {
		const key = { ...question, source: 'panel' as const, until };
		if (!at.goesOn() || gathering.fault !== null) break;
		if (hasReading(db, question.siteId, key)) continue;
		try {
			const reading = await askPatiently(question, until, at);
			gathering.asked++;
			gathering.tooFew += Number(reading === null);
			const { pageId, device } = question;
			const stored = {
				pageId,
				device,
				source: 'panel' as const,
				from: windowStart(until),
				until,
				metrics: reading?.metrics ?? null
			};
			await at.persist(() => saveReading(db, question.siteId, stored));
		} catch (error) {
			if (!(error instanceof PanelTrouble)) throw error;
			gathering.fault = error.fault;
		}
	}
	await at.persist(() =>
		saveDerived(db, {
			subject: subjectOf(clientId),
			kind: 'field-gathering',
			version: VERSION,
			fingerprint: '',
			body: gathering
		})
	);
}

/** After a question that nobody answered, s. */
const QUIET_RETRY_S = 1;

const PASSING: readonly PanelFault[] = ['rate', 'down'];

/** A panel that is asked too often says when to come back; one that does not answer is asked again, quietly. */
async function askPatiently({ scope, url, device }: Question, until: string, { panel, outward }: FieldAt) {
	for (let tries = 1; ; tries++)
		try {
			return await askPanel({ scope, url, device, until }, panel, outward);
		} catch (error) {
			const waits = error instanceof PanelTrouble && PASSING.includes(error.fault) && tries < MOST_TRIES;
			if (!waits) throw error;
			await pause(1000 * (error.retryAfterS ?? QUIET_RETRY_S));
		}
}

export const LONGEST_FIELD_MS = 300_000;
