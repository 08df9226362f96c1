/**
 * How busy the machine was with something else: from samples of it to a track beside the load, and to the one rule by
 * which a load counts as disturbed. Nothing here looks at the page's figures.
 */
import type { BusyShares, CalmTrack } from '../record/record';

/** Processor time within one sample, ms, over all processors. */
export interface CalmSample {
	/** Epoch ms at which the sample ended. */
	atMs: number;
	spanMs: number;
	busyMs: number;
	/** Wanted by this machine and given to another by the host; null where the machine does not tell. */
	stolenMs: number | null;
	/** Of processes that have nothing to do with the load; null where the machine does not tell. */
	foreignMs: number | null;
	/** A process that works for the load was stopped from outside. */
	stopped: boolean;
	/** Time in which something waited for a processor (Linux, pressure stall information); null where not shown. */
	pressureMs: number | null;
}

/** When a machine is too busy to measure on (house; settings). */
export interface CalmLimits {
	/** Largest stolen and foreign share of the processor time wanted over the load; 0 to 1. */
	share: number;
	/** The same within any half second of the load. */
	burst: number;
	/** Longest wait for a calm machine before a load, ms. */
	waitMs: number;
	/** Rest of the browser before a load, at least, ms; 0 for none, where times do not matter. */
	restMs: number;
}

export const CALM_LIMITS: CalmLimits = { share: 0.1, burst: 0.3, waitMs: 60_000, restMs: 400 };

/** Length of a burst (house). */
export const BURST_MS = 500;
/** Samples come a few ms early or late. */
const WHOLE_BURST_MS = BURST_MS * 0.9;
/** How long the machine must have been calm before a load (house). */
export const CALM_FOR_MS = 300;
/**
 * A window in which the machine wanted next to nothing has no share: less than this part of one processor counts as
 * this much (house). Ticks of 10 ms would else make a burst of a single one.
 */
const LEAST_WANTED = 0.25;

const othersMs = ({ stolenMs, foreignMs }: Pick<CalmSample, 'stolenMs' | 'foreignMs'>) =>
	(stolenMs ?? 0) + (foreignMs ?? 0);

/** Stolen and foreign share of what was wanted, 0 to 1; null when nothing is known. */
export function othersShare(samples: readonly CalmSample[]): number | null {
	const measured = samples.filter(({ stolenMs, foreignMs }) => stolenMs !== null || foreignMs !== null);
	if (!measured.length) return null;
	const spanMs = sum(measured, ({ spanMs: ms }) => ms);
	const wantedMs = sum(measured, ({ busyMs, stolenMs }) => busyMs + (stolenMs ?? 0));
	return Math.min(1, sum(measured, othersMs) / Math.max(wantedMs, spanMs * LEAST_WANTED));
}

/** Shares over samples of a load. Null without samples, or when nothing was wanted. */
export function busyShares(samples: readonly CalmSample[]): BusyShares | null {
	const stolenMs = sum(samples, (sample) => sample.stolenMs ?? 0);
	const wantedMs = sum(samples, ({ busyMs }) => busyMs) + stolenMs;
	if (wantedMs <= 0) return null;
	return {
		stolen: stolenMs / wantedMs,
		foreign: Math.min(1, sum(samples, (sample) => sample.foreignMs ?? 0) / wantedMs),
		samples: samples.length,
		stopped: samples.filter((sample) => sample.stopped).length
	};
}

/**
 * Whether the machine has been calm for the last CALM_FOR_MS.
 * @returns null when it does not tell, false too while it has not been watched for so long
 */
export function isCalm(samples: readonly CalmSample[], limits: CalmLimits): boolean | null {
	const last = samples.at(-1);
	if (!last) return false;
	const recent = samples.filter(({ atMs }) => atMs > last.atMs - CALM_FOR_MS);
	if (sum(recent, ({ spanMs }) => spanMs) < CALM_FOR_MS * 0.9) return false;
	const share = othersShare(recent);
	return share === null ? null : share <= limits.share;
}

/** A machine at rest does less than this part of one processor's work for the load (house). */
const RESTING = 0.25;
/** Shorter spans are a few ticks of 10 ms: between two of them a busy browser seems at rest (house). */
const REST_SEEN_MS = 80;
/** Whether what works for the load, the browser above all, is at rest; true where nothing is known of the machine. */
export function isResting(samples: readonly CalmSample[]): boolean {
	let spanMs = 0;
	let ownMs = 0;
	for (let at = samples.length - 1; at >= 0 && spanMs < REST_SEEN_MS; at--) {
		spanMs += samples[at]!.spanMs;
		ownMs += samples[at]!.busyMs - (samples[at]!.foreignMs ?? 0);
	}
	return ownMs <= spanMs * RESTING;
}

/** The largest share within BURST_MS, 0 to 1; the share of all when they span less; null when nothing is known. */
export function worstBurst(samples: readonly CalmSample[]): number | null {
	let worst: number | null = null;
	samples.forEach((sample, end) => {
		let from = end;
		let { spanMs } = sample;
		while (from > 0 && spanMs < WHOLE_BURST_MS) spanMs += samples[--from]!.spanMs;
		if (spanMs < WHOLE_BURST_MS && end < samples.length - 1) return;
		const share = othersShare(samples.slice(from, end + 1));
		if (share !== null) worst = Math.max(worst ?? 0, share);
	});
	return worst;
}

export interface Disturbance {
	/** Stolen and foreign share over the load, and in its worst half second; 0 to 1. */
	share: number;
	burst: number;
	disturbed: boolean;
}

/**
 * The one rule for a disturbed load (house): more than `share` of what was wanted over the load, or more than `burst`
 * of it within any half second, went to others.
 * @param samples between the navigation and the moment at which the page had settled
 * @returns null when the machine does not tell
 */
export function disturbanceOf(samples: readonly CalmSample[], limits: CalmLimits): Disturbance | null {
	const share = othersShare(samples);
	const burst = worstBurst(samples);
	if (share === null || burst === null) return null;
	return { share, burst, disturbed: share > limits.share || burst > limits.burst };
}

/** Samples that overlap a span of epoch ms. */
export function samplesWithin(samples: readonly CalmSample[], fromMs: number, toMs: number): CalmSample[] {
	return samples.filter(({ atMs, spanMs }) => atMs > fromMs && atMs - spanMs < toMs);
}

/** As a record keeps it: whole ms, in step, from the first sample on. @param zeroMs epoch ms of the navigation */
export function trackOf(samples: readonly CalmSample[], zeroMs: number): CalmTrack {
	const column = (pick: (sample: CalmSample) => number | null) =>
		samples.some((sample) => pick(sample) === null) ? null : samples.map((sample) => Math.round(pick(sample)!));
	return {
		endsMs: samples.map(({ atMs }) => Math.round(atMs - zeroMs)),
		busyMs: column(({ busyMs }) => busyMs)!,
		stolenMs: column(({ stolenMs }) => stolenMs),
		foreignMs: column(({ foreignMs }) => foreignMs),
		pressureMs: column(({ pressureMs }) => pressureMs)
	};
}

function sum<Item>(items: readonly Item[], value: (item: Item) => number): number {
	return items.reduce((total, item) => total + value(item), 0);
}
