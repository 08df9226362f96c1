/** How far the files of an audit are looked through. */
import type { Db } from '../../../base/db/connection';
import { findDerived, saveDerived } from '../../../base/queue/derived';

export interface SavingsProgress {
	done: number;
	total: number;
}

const keyOf = (auditId: number) =>
	({ subject: { kind: 'audit', id: auditId }, kind: 'savings', version: '1', fingerprint: '' }) as const;

export const findSavingsProgress = (db: Db, auditId: number): SavingsProgress | null =>
	findDerived<SavingsProgress>(db, keyOf(auditId))?.body ?? null;

export const saveSavingsProgress = (db: Db, auditId: number, body: SavingsProgress): void =>
	saveDerived(db, { ...keyOf(auditId), body });
