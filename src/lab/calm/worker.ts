/** The sampler's own thread: the lab's work never delays a sample. */
import { parentPort, workerData } from 'node:worker_threads';
import { CalmSampler, type CalmSample } from './sampler';

const SAMPLE_EVERY_MS = 100;

let samples: CalmSample[] = [];
let sampler: CalmSampler | null = null;
let timer: NodeJS.Timeout | null = null;

parentPort?.on('message', (message: 'start' | 'stop') => {
	if (timer) clearInterval(timer);
	timer = null;
	if (message === 'start') {
		samples = [];
		sampler = new CalmSampler((workerData as { roots: number[] }).roots);
		timer = setInterval(() => samples.push(sampler!.sample(Date.now())), SAMPLE_EVERY_MS);
		return;
	}
	if (sampler) samples.push(sampler.sample(Date.now()));
	sampler = null;
	parentPort!.postMessage(samples);
});
