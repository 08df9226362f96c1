/** One lab on a data folder at a time: a lock on a file, which the system takes back when its process ends. */
import { join } from 'node:path';
import Database from 'better-sqlite3';
import { isBusy } from '../base/db/connection';

export interface LabLock {
	release(): void;
}

/**
 * SQLite's own file lock is used, since Node has none. A lab that is stopped (SIGSTOP) keeps it: nobody else measures
 * until it goes on or ends.
 * @returns null while another process holds it
 */
export function takeLabLock(dataFolder: string): LabLock | null {
	const file = new Database(join(dataFolder, 'lab.lock'), { timeout: 0 });
	try {
		file.pragma('journal_mode = DELETE');
		file.exec('BEGIN EXCLUSIVE');
	} catch (error) {
		file.close();
		if (isBusy(error)) return null;
		throw error;
	}
	return { release: () => void file.close() };
}
