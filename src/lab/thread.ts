/** Worker threads that run TypeScript. */
import { Worker } from 'node:worker_threads';

/** @param entry file to run @param data what it finds in `workerData` beside `entry` */
export function startThread(entry: URL, data: object = {}): Worker {
	const worker = new Worker(new URL('./thread.mjs', import.meta.url), { workerData: { ...data, entry: entry.href } });
	worker.unref();
	return worker;
}
