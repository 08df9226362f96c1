/** The sampler's own thread: the lab's work never delays a sample. */
import { existsSync } from 'node:fs';
import { parentPort, workerData } from 'node:worker_threads';
import type { CalmSample } from '$core/load/vitals/calm';
import { LinuxSampler, PlainSampler, type Sampler } from './sampler';

export const SAMPLE_EVERY_MS = 100;

export type WatchOrder = 'start' | 'look' | 'stop';
/** `last` answers a stop. */
export type WatchNews = { sample: CalmSample; last: boolean };

let sampler: Sampler | null = null;
let timer: NodeJS.Timeout | null = null;

function openSampler(): Sampler {
	const { roots } = workerData as { roots: number[] };
	return existsSync('/proc/stat') ? new LinuxSampler(roots) : new PlainSampler();
}

const sendSample = (last: boolean) => parentPort!.postMessage({ sample: sampler!.sample(), last } satisfies WatchNews);

parentPort?.on('message', (order: WatchOrder) => {
	if (order === 'look') return void (sampler && sendSample(false));
	if (timer) clearInterval(timer);
	timer = null;
	if (order === 'start') {
		sampler = openSampler();
		timer = setInterval(() => sendSample(false), SAMPLE_EVERY_MS);
		return;
	}
	if (sampler) sendSample(true);
	sampler = null;
});
