/** The one database and the settings of this web process. */
import { importDemo } from './demo/demo';
import { importDemoHistory } from './demo/history';
import { importDemoVisits } from './demo/visits';
import { openDatabase, WEB_WAITS_MS, type Db } from './db/connection';
import { VisitDoor } from './visits/accept';
import { openVisits } from './visits/store';
import { VisitWriter } from './visits/writer';
import { signingKey, type SigningKey } from './reports/signing';
import { readSettings, type Settings } from './settings';

let settings: Settings | null = null;
let db: Db | null = null;
let visits: Visits | null = null;

/** Where page views of real visitors come in. */
export interface Visits {
	db: Db;
	door: VisitDoor;
}

export function getSettings(): Settings {
	return (settings ??= readSettings());
}

/** With which bundles of reports are signed. */
export function getSigningKey(): SigningKey {
	return signingKey(getSettings().dataFolder);
}

export function getDb(): Db {
	if (!db) {
		db = openDatabase(getSettings().dataFolder, WEB_WAITS_MS);
		if (process.env.ZAFRA_DEMO === 'on') {
			importDemo(db);
			importDemoHistory(db);
		}
	}
	return db;
}

let damage: string | null = null;

/** What is wrong with the database file, as far as it has been looked at; null while nothing is known. */
export const getDamage = (): string | null => damage;

export function noteDamage(problem: string | null): void {
	damage = problem;
}

export function getVisits(): Visits {
	if (!visits) {
		const own = openVisits(getSettings().dataFolder);
		if (process.env.ZAFRA_DEMO === 'on') importDemoVisits(getDb(), own, process.env.ZAFRA_DEMO_VISITS);
		visits = { db: own, door: new VisitDoor(getDb(), own, new VisitWriter(own), getSettings().visitsAMinute) };
	}
	return visits;
}
