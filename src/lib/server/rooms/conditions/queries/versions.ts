/**
 * Frozen conditions, named by the hash of what changes a measurement. Results are comparable only under the same
 * hash.
 */
import { completeConditions, type Conditions } from '$core/load/conditions/conditions';
import { conditionsFingerprint } from '$core/load/conditions/sameConditions';
import { conditionsHash } from '../../../base/db/functions';
import { sql, type Db } from '../../../base/db/connection';

/** Frozen conditions as a job or a trial names them: what they were called, and their version. */
export interface NamedVersion {
	id: string;
	name: string;
	summary: string;
	hash: string;
}

/** Store the version of some conditions, unless it is there. Secrets are part of it. */
export function freezeConditions(db: Db, conditions: Conditions): NamedVersion {
	const { id, name, summary } = conditions;
	const hash = conditionsHash(conditions);
	sql(db, 'INSERT OR IGNORE INTO conditions_version (hash, body) VALUES (?, ?)').run(
		hash,
		conditionsFingerprint(conditions)
	);
	return { id, name, summary, hash };
}

export function thawConditions(db: Db, { id, name, summary, hash }: NamedVersion): Conditions {
	const row = sql<{ body: string }>(db, 'SELECT body FROM conditions_version WHERE hash = ?').get(hash);
	if (!row) throw new Error(`The frozen conditions ${hash} are missing from the database.`);
	return completeConditions({
		...(JSON.parse(row.body) as Omit<Conditions, 'id' | 'name' | 'summary'>),
		id,
		name,
		summary
	});
}
