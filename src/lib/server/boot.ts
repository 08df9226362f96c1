/** Opens what a web process works with, and fills a new folder of the demonstration; requests carry it in `locals`. */
import { openDatabase, WEB_WAITS_MS, type Db } from './base/db/connection';
import { readSettings, type Settings } from './base/settings';
import { importDemoAudits } from './demo/audits';
import { importDemo } from './demo/demo';
import { importDemoHistory } from './demo/history';
import { importDemoVisits } from './demo/visits';
import { signingKey, type SigningKey } from './rooms/reports/signing';
import type { JudgeElsewhere } from './rooms/trials/judgement';
import { VisitDoor } from './rooms/visits/accept';
import { openVisits } from './rooms/visits/store';
import { VisitWriter } from './rooms/visits/writer';
import { heavyWork, type RunHeavy } from './runner/heavy';

/** Where page views of real visitors come in. */
export interface Visits {
	db: Db;
	door: VisitDoor;
}

export interface Booted {
	db: Db;
	settings: Settings;
	/** Opened when it is first asked for. */
	visits(): Visits;
	/** With which bundles of reports are signed; made when it is first asked for. */
	signingKey(): SigningKey;
	/** Work that takes longer than a page may block. */
	runHeavy: RunHeavy;
	judgeElsewhere: JudgeElsewhere;
	/** What is wrong with the database file, as far as it has been looked at; null while nothing is known. */
	damage(): string | null;
	noteDamage(problem: string | null): void;
}

export function boot(settings = readSettings()): Booted {
	const isDemo = process.env.ZAFRA_DEMO === 'on';
	const db = openDatabase(settings.dataFolder, WEB_WAITS_MS);
	if (isDemo) {
		importDemo(db);
		importDemoHistory(db);
		importDemoAudits(db);
	}
	const runHeavy = heavyWork(settings.dataFolder);
	let visits: Visits | null = null;
	let damage: string | null = null;
	return {
		db,
		settings,
		visits: () => (visits ??= openOwnVisits(db, settings, isDemo)),
		signingKey: () => signingKey(settings.dataFolder),
		runHeavy,
		judgeElsewhere: (trialId) => runHeavy('judgeTrial', trialId),
		damage: () => damage,
		noteDamage: (problem) => (damage = problem)
	};
}

function openOwnVisits(db: Db, { dataFolder, visitsAMinute }: Settings, isDemo: boolean): Visits {
	const own = openVisits(dataFolder);
	if (isDemo) importDemoVisits(db, own, process.env.ZAFRA_DEMO_VISITS);
	return { db: own, door: new VisitDoor(db, own, new VisitWriter(own), visitsAMinute) };
}
