/** Functions of ours that SQL of migrations and queries can call. */
import { createHash } from 'node:crypto';
import type Database from 'better-sqlite3';
import { completeConditions, type Conditions } from '$core/load/conditions/conditions';
import { conditionsFingerprint } from '$core/load/conditions/sameConditions';
import { pageKey } from '$core/pages/address';

/** Hexadecimal SHA-256. */
export function sha256(bytes: Uint8Array | string): string {
	return createHash('sha256').update(bytes).digest('hex');
}

/** Name of a frozen version: the hash of what it holds, the part of conditions that changes what is measured. */
export function conditionsHash(conditions: Conditions): string {
	return sha256(conditionsFingerprint(conditions));
}

const parsed = (json: string) => completeConditions(JSON.parse(json) as Conditions);

export function defineFunctions(db: Database.Database): void {
	const define = (name: string, run: (value: never) => string) =>
		db.function(name, { deterministic: true }, run as (value: unknown) => string);
	define('page_key', (url: string) => (URL.canParse(url) ? pageKey(url) : url));
	define('sha256', (bytes: Buffer | string) => sha256(bytes));
	define('conditions_body', (json: string) => conditionsFingerprint(parsed(json)));
	define('conditions_hash', (json: string) => conditionsHash(parsed(json)));
}
