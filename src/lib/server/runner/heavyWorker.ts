/** The thread for heavy work. */
import { setPriority } from 'node:os';
import { parentPort, workerData } from 'node:worker_threads';
import { openDatabase } from '../base/db/connection';
import { NotPossible } from '../base/refusal';
import { HEAVY, type HeavyCall, type HeavyNews, type HeavyReply } from './heavyCalls';

/** On Linux a priority belongs to the thread: the pages that web serves keep theirs. */
if (process.platform === 'linux')
	try {
		setPriority(0, 15);
	} catch {
		// A system that does not allow it: the work is as quick as any other.
	}

const db = openDatabase((workerData as { folder: string }).folder);

const say = (news: HeavyNews) => parentPort!.postMessage(news);

parentPort!.on('message', async (call: HeavyCall | 'alive?') => {
	if (call === 'alive?') return say({ alive: true });
	const { id, name, args } = call;
	say({ id, begun: true });
	say(await replyTo(id, name, args));
});

async function replyTo(id: number, name: HeavyCall['name'], args: unknown[]): Promise<HeavyReply> {
	try {
		const call = HEAVY[name] as (...all: unknown[]) => unknown;
		return { id, result: await call(db, ...args) };
	} catch (error) {
		if (error instanceof NotPossible)
			return { id, refused: { status: error.status, message: error.message, path: error.path } };
		return { id, error: (error as Error).message, code: (error as { code?: string }).code ?? null };
	}
}
