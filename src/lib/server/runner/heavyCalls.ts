/** Work that takes longer than a page may block: done in a thread of its own, which gives way to a load. */
import { importClientFile } from '../rooms/archive/archive';
import { judgeTrial } from '../rooms/trials/judgement';
import { findDamage } from '../base/db/damage';
import { effectsOfPage } from '../rooms/field/effects';
import { importReadings } from '../rooms/field/importing';
import { importSitemap, importTraffic } from '../rooms/pages/importing';
import { deriveEvidence } from '../rooms/trials/evidence';
import { importHar } from '../rooms/loads/commands';
import { loadHead, openedParts } from '../rooms/loads/view';
import { findTrial } from '../rooms/trials/trial';
import type { Db } from '../base/db/connection';

/** Each takes the thread's own database first. */
export const HEAVY = {
	importHar,
	loadHead: (db: Db, id: number) => loadHead(db, id, (trialId) => findTrial(db, trialId)),
	loadParts: openedParts,
	judgeTrial,
	deriveEvidence,
	importTraffic,
	importSitemap,
	importReadings,
	importClientFile,
	effectsOfPage,
	findDamage,
	/** Its encoders are large: they come with the first call. */
	computeSavings: async (db: Db, auditId: number) =>
		(await import('../rooms/audits/savings/compute')).computeSavings(db, auditId)
};

export type HeavyName = keyof typeof HEAVY;
type Tail<Args extends unknown[]> = Args extends [unknown, ...infer Rest] ? Rest : never;
export type HeavyArgs<Name extends HeavyName> = Tail<Parameters<(typeof HEAVY)[Name]>>;
export type HeavyResult<Name extends HeavyName> = Awaited<ReturnType<(typeof HEAVY)[Name]>>;

export interface HeavyCall {
	id: number;
	name: HeavyName;
	args: unknown[];
}

/** What the thread says: that it lives, that it has taken a call up, and what came of it. */
export type HeavyNews = { alive: true } | { id: number; begun: true } | HeavyReply;

/** A refusal in words keeps its status on its way between threads. */
export type HeavyReply =
	| { id: number; result: unknown }
	| { id: number; refused: { status: 400 | 404 | 409 | 413 | 422; message: string; path: string | null } }
	| { id: number; error: string; code: string | null };
