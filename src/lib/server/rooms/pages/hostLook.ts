/** Looking at a site's host as it really is, by the lab between loads: kept beside the site. */
import * as v from 'valibot';
import type { HostLook } from '$core/load/requests/hostLook';
import { lookAtHost, type HostLookSettings } from '../../base/hostLook';
import type { Outward } from '../../base/outward';
import { nowIso, type Db } from '../../base/db/connection';
import { findDerived, saveDerived } from '../../base/queue/derived';
import { hasOpenJob, insertJob, PRIORITY } from '../../base/queue/jobs';
import { NotPossible } from '../../base/refusal';
import { existingSite, findSite, sitesWithHost } from '../clients/view';

export const HostLookOrder = v.object({ what: v.literal('host-look') });

/** One resolver more takes at most ten seconds. */
export const LONGEST_HOST_LOOK_MS = 120_000;

const VERSION = '1';
const subjectOf = (siteId: number) => ({ kind: 'site', id: siteId }) as const;
const keyOf = (siteId: number) =>
	({ subject: subjectOf(siteId), kind: 'host-look', version: VERSION, fingerprint: '' }) as const;

interface Kept {
	look: HostLook | null;
	/** Asked for and not answered yet. */
	askedAt: string | null;
	/** Why nothing came of it. */
	problem: string | null;
}

const findKept = (db: Db, siteId: number): Kept | null => findDerived<Kept>(db, keyOf(siteId))?.body ?? null;
const keep = (db: Db, siteId: number, kept: Kept) => saveDerived(db, { ...keyOf(siteId), body: kept });

export function hostLookView(db: Db, siteId: number): Kept {
	return findKept(db, siteId) ?? { look: null, askedAt: null, problem: null };
}

/** Of a load's own host, where a site has it and it was looked at. */
export function hostLookOf(db: Db, host: string): HostLook | null {
	for (const { id } of sitesWithHost(db, host)) {
		const { look } = hostLookView(db, id);
		if (look?.host === host) return look;
	}
	return null;
}

/** @throws NotPossible while it is under way */
export function requestHostLook(db: Db, siteId: number): void {
	db.transaction(() => {
		existingSite(db, siteId);
		if (hasOpenJob(db, 'gather', subjectOf(siteId)))
			throw new NotPossible(409, 'This site is being asked for something already. Wait until that is done.');
		keep(db, siteId, { ...hostLookView(db, siteId), askedAt: nowIso(), problem: null });
		insertJob(db, {
			kind: 'gather',
			subject: subjectOf(siteId),
			order: { what: 'host-look' },
			priority: PRIORITY.awaited
		});
	}).immediate();
}

export async function lookAtSite(
	db: Db,
	siteId: number,
	{
		settings,
		outward,
		persist
	}: { settings: HostLookSettings; outward: Outward; persist<Result>(write: () => Result): Promise<Result> }
): Promise<void> {
	const site = findSite(db, siteId);
	if (!site) return;
	const look = await lookAtHost({ host: site.host, isTls: site.scheme === 'https' }, settings, outward);
	await persist(() => keep(db, siteId, { look, askedAt: null, problem: null }));
}

export const giveUpHostLook = (db: Db, siteId: number, times: number): void =>
	keep(db, siteId, {
		...hostLookView(db, siteId),
		askedAt: null,
		problem: `The lab ended ${times} times while it looked at this host.`
	});
