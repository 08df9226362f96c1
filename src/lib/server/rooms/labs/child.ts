/** Web's side of the lab process: start it, start it again when it ends, and end it when it hangs. */
import { spawn, type ChildProcess } from 'node:child_process';
import type { Db } from '../../base/db/connection';
import { HungWatch } from './hungWatch';
import { findLabOfProcess } from './labs';
import { builtOr } from '../../base/built';
import { ROOT } from '../../base/settings';

const RESTART_AFTER_MS = 1000;
const LOOK_EVERY_MS = 5000;
/** A lab whose load does not end, or that has not been heard of, is ended after this long. */
const PATIENCE_MS = 60_000;

let child: ChildProcess | null = null;
let stopped = false;
let watch: NodeJS.Timeout | null = null;
const hung = new HungWatch(PATIENCE_MS);

/** Keep one runner alive for as long as this process lives. The channel between them ends the runner with us. */
export function keepRunner(db: Db): void {
	if (child || stopped) return;
	const entry = builtOr('processes/runner.mjs', 'src/runner.ts');
	child = spawn(process.execPath, [...(entry.endsWith('.ts') ? ['--import', 'tsx'] : []), entry], {
		cwd: ROOT,
		env: { ...process.env, ZAFRA_PARENT: 'web' },
		stdio: ['ignore', 'inherit', 'inherit', 'ipc']
	});
	child.on('exit', () => {
		child = null;
		if (!stopped) setTimeout(() => keepRunner(db), RESTART_AFTER_MS);
	});
	watch ??= setInterval(() => endIfHung(db), LOOK_EVERY_MS);
	watch.unref();
}

/** Its own watchdog ends a load; this ends a lab whose watchdog does not come to its turn. */
function endIfHung(db: Db): void {
	try {
		const lab = child?.pid ? findLabOfProcess(db, child.pid) : null;
		if (lab && hung.isHung(lab)) child?.kill('SIGKILL');
	} catch {
		// The database is locked: asked again at the next look.
	}
}

export function endRunner(): void {
	stopped = true;
	child?.kill('SIGTERM');
}
