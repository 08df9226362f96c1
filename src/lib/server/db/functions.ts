/** Functions of ours that SQL of migrations and queries can call. */
import { createHash } from 'node:crypto';
import type Database from 'better-sqlite3';
import { completeConditions, type Conditions } from '$core/load/conditions';
import { conditionsFingerprint } from '$core/load/sameConditions';

/** Hexadecimal SHA-256. */
export function sha256(bytes: Uint8Array | string): string {
	return createHash('sha256').update(bytes).digest('hex');
}

/** The part of conditions that changes what is measured, as JSON: what a frozen version holds. */
export function conditionsBody(conditions: Conditions): string {
	return conditionsFingerprint(conditions);
}

export function conditionsHash(conditions: Conditions): string {
	return sha256(conditionsBody(conditions));
}

const parsed = (json: string) => completeConditions(JSON.parse(json) as Conditions);

export function defineFunctions(db: Database.Database): void {
	const define = (name: string, run: (value: never) => string) =>
		db.function(name, { deterministic: true }, run as (value: unknown) => string);
	define('sha256', (bytes: Buffer | string) => sha256(bytes));
	define('conditions_body', (json: string) => conditionsBody(parsed(json)));
	define('conditions_hash', (json: string) => conditionsHash(parsed(json)));
}
