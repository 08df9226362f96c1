/** What early taps on a page showed. */
import { tapVerdict, type TapRecord, type TapVerdict } from '$core/load/journey/tap';
import type { Db } from '../../base/db/connection';
import { findRecord } from './loads';
import { againRequests } from './requested';

export interface TapView {
	/** Loads that still wait for the lab. */
	waiting: number;
	results: (TapRecord & { load: number; verdict: TapVerdict })[];
}

export function tapView(db: Db, id: number): TapView {
	const requests = againRequests(db, id, 'tap');
	const results = requests.flatMap(({ loadId }) => {
		const tap = loadId === null ? null : findRecord(db, loadId)?.tap;
		return tap ? [{ ...tap, load: loadId!, verdict: tapVerdict(tap) }] : [];
	});
	return { waiting: requests.filter(({ status }) => status !== 'done').length, results: results.reverse() };
}
