/** Web's side of the thread for heavy work. */
import { join } from 'node:path';
import { pathToFileURL } from 'node:url';
import { Worker } from 'node:worker_threads';
import { getSettings } from '../context';
import { NotPossible } from '../http/refusal';
import { ROOT } from '../settings';
import type { HeavyArgs, HeavyName, HeavyReply, HeavyResult } from './heavyCalls';

let worker: Worker | null = null;
let next = 1;
const waiting = new Map<number, { resolve(result: unknown): void; reject(error: Error): void }>();

/** Do a piece of heavy work away from the thread that serves pages. @throws NotPossible as the work itself does */
export function heavily<Name extends HeavyName>(name: Name, ...args: HeavyArgs<Name>): Promise<HeavyResult<Name>> {
	worker ??= start();
	const id = next++;
	return new Promise((resolve, reject) => {
		waiting.set(id, { resolve: resolve as (result: unknown) => void, reject });
		worker!.postMessage({ id, name, args });
	});
}

function start(): Worker {
	const entry = pathToFileURL(join(ROOT, 'src/lib/server/work/heavyWorker.ts')).href;
	const thread = new Worker(join(ROOT, 'src/lab/thread.mjs'), {
		workerData: { entry, folder: getSettings().dataFolder }
	});
	thread.unref();
	thread.on('message', settle);
	thread.on('error', (error) => {
		worker = null;
		for (const { reject } of waiting.values()) reject(error);
		waiting.clear();
	});
	return thread;
}

function settle(reply: HeavyReply): void {
	const call = waiting.get(reply.id);
	waiting.delete(reply.id);
	if (!call) return;
	if ('result' in reply) call.resolve(reply.result);
	else if ('refused' in reply)
		call.reject(new NotPossible(reply.refused.status, reply.refused.message, reply.refused.path));
	else call.reject(Object.assign(new Error(reply.error), { code: reply.code }));
}
