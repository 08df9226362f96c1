/** Entry of the lab process. Started by web over a channel, or alone with `npm run runner`. */
import { join } from 'node:path';
import { TWINS } from './lib/server/rooms/trials/twins';
import { profileLabel } from './lab/browser/profiles';
import { CONTROL_URL } from './core/watch/control';
import { serveControlPage } from './lab/controlPage';
import { Lab } from './lab/lab';
import { openDatabase } from './lib/server/base/db/connection';
import { startRunner } from './lib/server/runner/loop';
import { startWatchdog } from './lib/server/runner/watchdog';
import { builtOr } from './lib/server/base/built';
import { logOf } from './lib/server/base/log';
import { readSettings } from './lib/server/base/settings';

const log = logOf('runner');
const settings = readSettings();
const db = openDatabase(settings.dataFolder);
// Web works for the analyst who watches a load.
const web = process.env.ZAFRA_PARENT === 'web' ? [process.ppid] : [];
const helpers = [...settings.helpers, ...web];
const control = await serveControlPage(builtOr('client/control', 'static/control'));
const lab = new Lab({
	...settings,
	// First, since the first match wins: no rule of the analyst's may lead it elsewhere.
	hostMap: [control.rule, ...settings.hostMap],
	helpers,
	twinsFolder: join(settings.dataFolder, TWINS),
	warmUrl: settings.warms ? CONTROL_URL : null,
	profileLabel: profileLabel(settings.dataFolder)
});
const watchdog = startWatchdog(process.env.ZAFRA_PARENT === 'web' ? process.ppid : null);
const { panel } = settings;
const runner = startRunner({ db, lab, log, helpers, outward: settings, panel, hostLook: settings, watchdog });

/** Closing a browser that hangs takes some seconds. */
const END_WITHIN_MS = 8000;

/** Asked nicely, it gives up the load under way: the next runner begins it again. */
let ending = false;
async function end(): Promise<void> {
	if (ending) return;
	ending = true;
	runner.stop();
	setTimeout(() => {
		runner.sweep();
		process.exit(0);
	}, END_WITHIN_MS).unref();
	await lab.close();
	await runner.finished;
	process.exit(0);
}

for (const signal of ['SIGINT', 'SIGTERM'] as const) process.on(signal, () => void end());
process.on('disconnect', () => void end());
// Web may have gone while this process was still starting: nobody would tell it any more.
if (process.env.ZAFRA_PARENT === 'web' && !process.connected) void end();
void runner.finished.then(() => {
	// While it is ending, `end` exits once the browser and its profile are gone.
	if (!ending) process.exit(1);
});
