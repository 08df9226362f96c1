/** What a visitor does to a page: the nudge, and the steps of a journey. */
import type { CDPSession } from 'playwright-core';
import type { Conditions } from '$core/load/conditions/conditions';
import type { StepRecord } from '$core/load/record/record';
import { awaitedAfter, type Awaited } from '$core/load/vitals/stepFigures';
import { kindOfStep, wordsOfStep, type Step } from '$core/load/journey/steps';
import { cumulativeLayoutShift, interactionToNextPaint } from '$core/load/vitals/vitals';
import { parseSince, type Since } from '$core/load/record/pageFacts';
import { prepareAct, problemOf, shownAt, stateShown } from './acts';
import { LoadFailure } from './failure';
import { epochNow, wait, type Visit } from './visit';

/** Move the pointer, scroll, press a key that does nothing: enough for whatever waits for a sign of life. */
export async function nudge(session: CDPSession, { device }: Conditions): Promise<void> {
	const x = Math.round(device.width / 2);
	const y = Math.round(device.height / 2);
	for (const share of [0.3, 0.6, 1])
		await session.send('Input.dispatchMouseEvent', {
			type: 'mouseMoved',
			x: Math.round(x * share),
			y: Math.round(y * share)
		});
	if (device.touch)
		await session.send('Input.synthesizeScrollGesture', {
			x,
			y,
			yDistance: -Math.round(device.height / 2),
			gestureSourceType: 'touch',
			speed: 1600
		});
	else
		await session.send('Input.dispatchMouseEvent', {
			type: 'mouseWheel',
			x,
			y,
			deltaX: 0,
			deltaY: Math.round(device.height / 2)
		});
	for (const type of ['keyDown', 'keyUp'] as const)
		await session.send('Input.dispatchKeyEvent', { type, key: 'Shift', code: 'ShiftLeft', windowsVirtualKeyCode: 16 });
}

/** Times are epoch ms while the journey runs; the load knows its zero only at the end. */
export interface JourneyStep extends Omit<StepRecord, 'atMs'> {
	atEpochMs: number;
}

export interface Journey {
	steps: JourneyStep[];
	/** Durations of all interactions, ms. */
	interactions: number[];
	picture: { step: number; image: Buffer } | null;
}

export function emptyJourney(): Journey {
	return { steps: [], interactions: [], picture: null };
}

/**
 * Carry out steps one after another; after one has failed the rest is skipped.
 * @param journey filled as it goes, so that a load that is ended in the middle keeps what it saw
 * @throws LoadFailure when the page no longer answers
 */
export async function runSteps(
	visit: Visit,
	steps: readonly Step[],
	conditions: Conditions,
	journey: Journey
): Promise<Journey> {
	for (const [index, step] of steps.entries()) {
		const awaited = awaitedAfter(steps, index);
		const blank = blankStep(step, index + 1, awaited !== null);
		if (journey.picture) journey.steps.push({ ...blank, status: 'skipped', atEpochMs: epochNow() });
		else await runStep(visit, { step, conditions, journey, blank, awaited });
	}
	return journey;
}

type BlankStep = Omit<JourneyStep, 'status' | 'atEpochMs'>;

function blankStep(step: Step, number: number, awaited: boolean): BlankStep {
	return {
		number,
		kind: kindOfStep(step),
		words: wordsOfStep(step),
		message: null,
		durationMs: null,
		quietMs: null,
		awaited,
		shownMs: null,
		navigated: false,
		requests: 0,
		wireBytes: 0,
		cls: 0,
		inp: null
	};
}

async function runStep(
	visit: Visit,
	{
		step,
		conditions,
		journey,
		blank,
		awaited
	}: { step: Step; conditions: Conditions; journey: Journey; blank: BlankStep; awaited: Awaited | null }
): Promise<void> {
	visit.network.phase = `step ${blank.number}`;
	const documents = visit.documents;
	// What is there already does not tell when it came.
	const isThere = awaited !== null && (await problemOf(visit, awaited.state)) === null;
	let atEpochMs = epochNow();
	try {
		const run = await prepareAct(visit, step, conditions);
		if (awaited && !isThere) await stateShown(visit, awaited.state);
		atEpochMs = epochNow();
		await run();
		const durationMs = epochNow() - atEpochMs;
		let isOver = false;
		const watching = awaited && !isThere ? shownAt(visit, awaited.state, () => isOver).catch(() => null) : null;
		const outcome = await outcomeOf(visit, { step, conditions, atEpochMs, journey });
		const shownAtMs = watching && (await Promise.race([watching, wait(awaited!.withinMs).then(() => null)]));
		isOver = true;
		const shownMs = shownAtMs === null ? null : shownAtMs - atEpochMs;
		const navigated = visit.documents > documents;
		journey.steps.push({ ...blank, ...outcome, status: 'ok', atEpochMs, durationMs, shownMs, navigated });
	} catch (error) {
		const isLoadFailure = error instanceof LoadFailure;
		const words = isLoadFailure ? error.reason.message : `${(error as Error).message}.`;
		const message = `Step ${blank.number}, ${blank.words}: ${words}`;
		journey.steps.push({ ...blank, status: 'failed', message, atEpochMs });
		if (isLoadFailure) throw error;
		journey.picture = { step: blank.number, image: (await visit.picture()) ?? Buffer.alloc(0) };
	}
}

/** What a step set off, once the page is quiet again. */
async function outcomeOf(
	visit: Visit,
	{ step, conditions, atEpochMs, journey }: { step: Step; conditions: Conditions; atEpochMs: number; journey: Journey }
) {
	const acts = !('expect' in step) && !('mark' in step) && !('trySend' in step);
	const capped = acts ? (await visit.answering(performance.now() + conditions.capMs)).capped : false;
	const seen = await since(visit, atEpochMs);
	const traffic = visit.network.since(atEpochMs);
	const ends = [
		traffic.lastEndEpochMs ?? 0,
		...seen.tasks.map((task) => task.startMs + task.durationMs),
		...seen.shifts.map((shift) => shift.atMs)
	];
	const inp = interactionToNextPaint(seen.interactions);
	journey.interactions.push(...seen.interactions);
	return {
		message: capped ? `The page was still busy ${conditions.capMs / 1000} s after this step.` : null,
		quietMs: acts ? Math.max(inp ?? 0, Math.max(0, ...ends) - atEpochMs) : null,
		requests: traffic.requests,
		wireBytes: traffic.wireBytes,
		cls: cumulativeLayoutShift(seen.shifts),
		inp
	};
}

/** What the page's document has seen since a moment (epoch ms). */
export async function since(visit: Visit, epochMs: number): Promise<Since> {
	// Entries of the Event Timing API are handed over after the next frame.
	await wait(50);
	return parseSince(await visit.call('since', epochMs));
}
