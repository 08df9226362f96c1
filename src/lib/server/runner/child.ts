/** Web's side of the lab process: start it, start it again when it ends. */
import { spawn, type ChildProcess } from 'node:child_process';
import { join } from 'node:path';
import { ROOT } from '../settings';

const RESTART_AFTER_MS = 1000;

let child: ChildProcess | null = null;
let stopped = false;

/** Keep one runner alive for as long as this process lives. The channel between them ends the runner with us. */
export function keepRunner(): void {
	if (child || stopped) return;
	child = spawn(process.execPath, ['--import', 'tsx', join(ROOT, 'src/runner.ts')], {
		cwd: ROOT,
		stdio: ['ignore', 'inherit', 'inherit', 'ipc']
	});
	child.on('exit', () => {
		child = null;
		if (!stopped) setTimeout(keepRunner, RESTART_AFTER_MS);
	});
}

export function endRunner(): void {
	stopped = true;
	child?.kill('SIGTERM');
}
