/** Starts a process that outlives it, says which, and ends. */
import { spawn } from 'node:child_process';

const child = spawn(process.execPath, ['--import', 'tsx', 'test/support/watched.ts', 'orphan'], {
	stdio: ['ignore', 'pipe', 'ignore'],
	detached: true
});
child.stdout.once('data', () => {
	process.stdout.write(`${child.pid}\n`);
	process.kill(process.pid, 'SIGKILL');
});
