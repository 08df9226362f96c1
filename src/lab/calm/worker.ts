/** The sampler's own thread: the lab's work never delays a sample. */
import { parentPort, workerData } from 'node:worker_threads';
import type { BusySample } from '$core/load/calm';
import { CalmSampler } from './sampler';

const SAMPLE_EVERY_MS = 100;

let samples: BusySample[] = [];
let sampler: CalmSampler | null = null;
let timer: NodeJS.Timeout | null = null;

parentPort?.on('message', (message: 'start' | 'stop') => {
	if (timer) clearInterval(timer);
	timer = null;
	if (message === 'start') {
		samples = [];
		sampler = new CalmSampler((workerData as { roots: number[] }).roots);
		timer = setInterval(() => samples.push(sampler!.sample()), SAMPLE_EVERY_MS);
		return;
	}
	if (sampler) samples.push(sampler.sample());
	sampler = null;
	parentPort!.postMessage(samples);
});
