/** Watches the machine while nothing is measured: a minute at a time. */
import { existsSync } from 'node:fs';
import { othersShare, type CalmSample } from '$core/load/vitals/calm';
import { LinuxSampler, PlainSampler, type Sampler } from '../../../lab/calm/sampler';

const MINUTE_MS = 60_000;

export class QuietWatch {
	#sampler: Sampler | null = null;
	#samples: CalmSample[] = [];

	/** @param roots processes of Zafra's: their work is none of the others' */
	constructor(private readonly roots: readonly number[]) {}

	/** Look at the machine. @returns the share that others took once a whole minute was quiet; undefined before */
	look(): number | null | undefined {
		if (!this.#sampler) {
			this.#sampler = existsSync('/proc/stat') ? new LinuxSampler(this.roots) : new PlainSampler();
			return undefined;
		}
		this.#samples.push(this.#sampler.sample());
		const watchedMs = this.#samples.reduce((sum, { spanMs }) => sum + spanMs, 0);
		if (watchedMs < MINUTE_MS) return undefined;
		const share = othersShare(this.#samples);
		this.#samples = [];
		return share;
	}

	/** Something is measured now: what was begun is no quiet minute. */
	stop(): void {
		this.#sampler = null;
		this.#samples = [];
	}
}
