/** Whether the arm still does what the baseline does: errors, requests, steps and the look of the finished page. */
import type { LoadDigest } from './digest';

export interface Regressions {
	/** Console errors in most loads of the arm and in none of the baseline. */
	newErrors: string[];
	/** Requests that fail in most loads of the arm and never in the baseline. */
	newFailures: string[];
	/** Requests that most loads of the baseline send and none of the arm: gone on purpose, or lost. */
	vanished: string[];
	/** Step checks: loads in which all went well, of those with steps; and which step failed first. */
	steps: { before: [ok: number, of: number]; after: [ok: number, of: number]; failed: string | null };
	/** Share of the picture that differs beyond what differs from load to load anyway, 0 to 1; null when not compared. */
	pictureShare: number | null;
	/** Something that the verdict line must say. */
	broken: boolean;
}

/** A difference of less than this share of the picture is hardly seen (house). */
export const PICTURE_WITHIN = 0.03;

/** Addresses, numbers and hashes in an error differ from load to load. */
const blurred = (message: string) =>
	message
		.replace(/https?:\/\/[^/\s]+/g, '')
		.replace(/\?[^\s)]*/g, '')
		.replace(/[0-9a-f]{6,}|\d+/gi, '#');

function inMost(
	loads: readonly LoadDigest[],
	pick: (load: LoadDigest) => readonly string[],
	blur = (name: string) => name
): Map<string, string> {
	const counts = new Map<string, { n: number; words: string }>();
	for (const load of loads)
		for (const [key, words] of new Map(pick(load).map((name) => [blur(name), name]))) {
			const existing = counts.get(key) ?? { n: 0, words };
			existing.n++;
			counts.set(key, existing);
		}
	return new Map([...counts].filter(([, { n }]) => n > loads.length / 2).map(([key, { words }]) => [key, words]));
}

export function findRegressions(
	before: readonly LoadDigest[],
	after: readonly LoadDigest[],
	pictureShare: number | null
): Regressions {
	const ever = (pick: (load: LoadDigest) => readonly string[], blur = (name: string) => name) =>
		new Set(before.flatMap((load) => pick(load).map(blur)));
	const errors = (load: LoadDigest) => load.facts.consoleErrors;
	const failures = (load: LoadDigest) => load.facts.failedRequests;
	const oldErrors = ever(errors, blurred);
	const oldFailures = ever(failures);
	const newErrors = [...inMost(after, errors, blurred)]
		.filter(([key]) => !oldErrors.has(key))
		.map(([, words]) => words);
	const newFailures = [...inMost(after, failures)].filter(([key]) => !oldFailures.has(key)).map(([key]) => key);
	const files = (load: LoadDigest) => load.files.map(({ key }) => key);
	const stillSent = new Set(after.flatMap(files));
	const vanished = [...inMost(before, files).keys()].filter((key) => !stillSent.has(key));
	const went = (loads: readonly LoadDigest[]): [number, number] => {
		const run = loads.filter((load) => load.facts.stepsRun > 0);
		return [run.filter((load) => load.facts.failedStep === null).length, run.length];
	};
	const [stepsBefore, stepsAfter] = [went(before), went(after)];
	const worse =
		stepsAfter[1] > 0 &&
		stepsAfter[0] / stepsAfter[1] < 0.8 &&
		(stepsBefore[1] === 0 || stepsBefore[0] / stepsBefore[1] > stepsAfter[0] / stepsAfter[1]);
	return {
		newErrors,
		newFailures,
		vanished: after.length ? vanished : [],
		steps: {
			before: stepsBefore,
			after: stepsAfter,
			failed: worse ? (after.find((load) => load.facts.failedStep)?.facts.failedStep ?? null) : null
		},
		pictureShare,
		broken: worse || newErrors.length > 0 || newFailures.length > 0
	};
}
