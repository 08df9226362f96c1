/**
 * Records the demonstration trials: the real lab, real Chromium, pages of the simulated web.
 * `npm run demo:record -- 01` records only those whose file begins with 01.
 */
import { mkdirSync, mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import pino from 'pino';
import { hostTimes } from '../demo-web/hosts';
import * as v from 'valibot';
import { NewTrialInput } from '$core/trial/design/input';
import { Lab } from '../src/lab/lab';
import { findClientByName } from '../src/lib/server/rooms/clients/queries/clients';
import { openDatabase } from '../src/lib/server/base/db/connection';
import { findTrial } from '../src/lib/server/rooms/trials/trial';
import { insertScenario } from '../src/lib/server/demo/clients';
import { exportTrial } from '../src/lib/server/demo/demo';
import { createTrial, startTrial } from '../src/lib/server/rooms/trials/commands';
import { addStep, decideStep, endLog } from '../src/lib/server/rooms/trials/steps';
import { startRunner } from '../src/lib/server/runner/loop';
import { startDemoWeb } from '../test/support/world';
import { RECORDINGS, type LogStep } from './recordings';

const ROUNDS = Number(process.env.RECORD_ROUNDS ?? 8);
const MOST_BYTES = 4_000_000;

const wanted = process.argv[2] ?? '';
const CHOSEN = RECORDINGS.filter(({ file }) => file.startsWith(wanted));
const folder = mkdtempSync(join(tmpdir(), 'zafra-record-'));
const world = await startDemoWeb();
const db = openDatabase(folder);
insertScenario(db);
const ids = CHOSEN.map(({ client, log: _log, file: _file, ...order }) =>
	createTrial(
		db,
		v.parse(NewTrialInput, {
			rounds: ROUNDS,
			conditions: ['phone', 'desktop'],
			warmups: 1,
			...order,
			clientId: findClientByName(db, client)
		})
	)
);
for (const id of ids) startTrial(db, id);
const runner = startRunner({
	db,
	lab: new Lab({ hostMap: world.rules, hostTimes: hostTimes(), trustedKeys: [world.keyHash] }),
	log: pino({ level: 'info' })
});
for (const [index, { log = [] }] of CHOSEN.entries()) await takeSteps(ids[index]!, log);
while (ids.some((id) => findTrial(db, id)!.status !== 'done')) await new Promise((next) => setTimeout(next, 500));
runner.stop();
await runner.finished;

mkdirSync('demo/trials', { recursive: true });
for (const [index, { file }] of CHOSEN.entries()) {
	const packed = exportTrial(db, ids[index]!);
	if (packed.length > MOST_BYTES) throw new Error(`${file} has ${packed.length} bytes: too many to ship.`);
	writeFileSync(`demo/trials/${file}.ndjson.br`, packed);
	console.log(`${file}: ${packed.length} bytes`);
}
world.close();
db.close();
rmSync(folder, { recursive: true, force: true });
process.exit(0);

/** Each step once the stage before is measured, as an analyst takes it. */
async function takeSteps(id: number, log: readonly LogStep[]): Promise<void> {
	const waits = async () => {
		while (findTrial(db, id)!.status !== 'waiting') await new Promise((next) => setTimeout(next, 500));
	};
	for (const { words, host, change, takesBack = false, file, decision } of log) {
		await waits();
		world.store.change(host, change, 'published');
		const stage = addStep(db, id, {
			words,
			takesBack,
			fileName: file?.name ?? null,
			file: file?.text ?? null,
			checks: []
		});
		await waits();
		if (decision) decideStep(db, id, stage, decision);
	}
	if (log.length) endLog(db, id);
}
