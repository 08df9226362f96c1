/** Worker threads: a file of the build, or TypeScript where nothing was built. */
import { Worker, type WorkerOptions } from 'node:worker_threads';

/** True in what the build makes; see `scripts/processes.mjs`. */
declare const ZAFRA_IS_BUILT: boolean | undefined;

export const isBuilt = typeof ZAFRA_IS_BUILT !== 'undefined' && ZAFRA_IS_BUILT;

/** @param entry file to run @param data what it finds in `workerData` beside `entry` */
export function startThread(entry: URL, data: object = {}, options: WorkerOptions = {}): Worker {
	// A thread does not inherit what reads TypeScript: it puts it in place before the first file.
	const first = entry.pathname.endsWith('.ts') ? new URL('./sourceThread.mjs', import.meta.url) : entry;
	const worker = new Worker(first, { ...options, workerData: { ...data, entry: entry.href } });
	worker.unref();
	return worker;
}
