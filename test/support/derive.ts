/** What a lab derives between loads, done at once. */
import { openDatabase, type Db } from '../../src/lib/server/base/db/connection';
import { deriveEvidence } from '../../src/lib/server/rooms/trials/evidence';
import { deriveJudgement } from '../../src/lib/server/rooms/trials/judgement';

export async function deriveAll(db: Db): Promise<void> {
	const trials = db.prepare("SELECT id FROM trial WHERE status NOT IN ('draft', 'queued')").all() as { id: number }[];
	for (const { id } of trials) {
		deriveJudgement(db, id);
		await deriveEvidence(db, id);
	}
}

/** In a data folder that no app uses. */
export async function deriveAllIn(folder: string): Promise<void> {
	const db = openDatabase(folder);
	await deriveAll(db);
	db.close();
}
