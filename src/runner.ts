/** Entry of the lab process. Started by web over a channel, or alone with `npm run runner`. */
import pino from 'pino';
import { profileLabel } from './lab/browser/profiles';
import { Lab } from './lab/lab';
import { openDatabase } from './lib/server/db/connection';
import { startRunner } from './lib/server/runner/run';
import { readSettings } from './lib/server/settings';

const log = pino({ name: 'runner', level: process.env.ZAFRA_LOG ?? 'warn' });
const settings = readSettings();
const db = openDatabase(settings.dataFolder);
const lab = new Lab({ ...settings, profileLabel: profileLabel(settings.dataFolder) });
const runner = startRunner({ db, lab, log });

/** Asked nicely, it gives up the load under way: the next runner begins it again. */
let ending = false;
async function end(): Promise<void> {
	if (ending) return;
	ending = true;
	runner.stop();
	setTimeout(() => process.exit(0), 3000).unref();
	await lab.close();
	await runner.finished;
	process.exit(0);
}

for (const signal of ['SIGINT', 'SIGTERM'] as const) process.on(signal, () => void end());
process.on('disconnect', () => void end());
void runner.finished.then(() => process.exit(ending ? 0 : 1));
