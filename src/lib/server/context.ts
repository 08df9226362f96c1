/** The one database and the settings of this web process. */
import { importDemo } from './demo/demo';
import { openDatabase, WEB_WAITS_MS, type Db } from './db/connection';
import { readSettings, type Settings } from './settings';

let settings: Settings | null = null;
let db: Db | null = null;

export function getSettings(): Settings {
	return (settings ??= readSettings());
}

export function getDb(): Db {
	if (!db) {
		db = openDatabase(getSettings().dataFolder, WEB_WAITS_MS);
		if (process.env.ZAFRA_DEMO === 'on') importDemo(db);
	}
	return db;
}
