/** A process under the watchdog: it lives, hangs, does not end its job, or loses its parent. */
import { startWatchdog } from '../../src/lib/server/runner/watchdog';

const [what] = process.argv.slice(2);
const watchdog = startWatchdog(what === 'orphan' ? process.ppid : null, {
	silentMs: what === 'orphan' ? 60_000 : 1500,
	lateMs: 300,
	orphanMs: 300,
	lookMs: 100
});
setInterval(() => watchdog.beat(), 100);
// The thread's module is compiled first: what follows is timed from then on.
setTimeout(() => {
	process.send?.('ready');
	process.stdout.write('ready\n');
	if (what === 'late') watchdog.expect(100);
	if (what === 'silent' || what === 'orphan') for (;;);
}, 1000);
setTimeout(() => process.exit(7), 8000);
