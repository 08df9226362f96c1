/** Whether a page is served the same to a visitor as to the lab. */
import { identityDifferences } from '$core/load/journey/identity';
import type { LoadRecord } from '$core/load/record/record';
import { wordIdentity } from '$core/wording/identity';
import type { Db } from '../../base/db/connection';
import { findRecord } from './loads';
import { againRequests } from './requested';

export interface IdentityView {
	state: 'unknown' | 'waiting' | 'known';
	/** The load that asked as a visitor; null before. */
	load: number | null;
	/** In words; empty when the page is served the same. */
	differences: string[];
}

export function identityView(db: Db, id: number, record: LoadRecord): IdentityView {
	const requests = againRequests(db, id, 'asVisitor');
	const done = requests.find(({ loadId }) => loadId !== null);
	const visitor = done && findRecord(db, done.loadId!);
	if (!visitor) return { state: requests.length ? 'waiting' : 'unknown', load: null, differences: [] };
	return { state: 'known', load: done.loadId, differences: identityDifferences(record, visitor).map(wordIdentity) };
}
