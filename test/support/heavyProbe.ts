/** A thread for heavy work whose calls hang, end it, or answer. */
import { parentPort } from 'node:worker_threads';
import type { HeavyNews } from '../../src/lib/server/runner/heavyCalls';

const say = (news: HeavyNews) => parentPort!.postMessage(news);

parentPort!.on('message', async (call: { id: number; name: string; args: unknown[] } | 'alive?') => {
	if (call === 'alive?') return say({ alive: true });
	say({ id: call.id, begun: true });
	if (call.name === 'spin') for (;;);
	if (call.name === 'wait') return;
	if (call.name === 'fill') for (const full: unknown[] = []; ;) full.push(new Array<number>(1e5).fill(1));
	say({ id: call.id, result: call.args[0] });
});
