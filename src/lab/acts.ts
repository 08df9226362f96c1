/** What each kind of step does to a page. */
import type { CDPSession } from 'playwright-core';
import type { Conditions } from '$core/load/conditions/conditions';
import {
	EXPECT_WITHIN_MS,
	kindOfStep,
	WAIT_WITHIN_MS,
	type Key,
	type Step,
	type StepState
} from '$core/load/journey/steps';
import { isWebUrl } from '$core/load/requests/address';
import { within } from './browser/deadlines';
import { LoadFailure } from './failure';
import type { Point } from './page/inPage';
import { wait, type Visit } from './visit';

const LOOK_EVERY_MS = 20;
/** For what a form sets off to be on its way, ms (house). */
const SENDING_MS = 800;

/** A step that could not be carried out, or an expectation that was not met. */
class StepProblem extends Error {}

type Kind = ReturnType<typeof kindOfStep>;
type StepOf<Verb extends Kind> = Extract<Step, Record<Verb, unknown>>;

interface Act<Verb extends Kind, Target> {
	/** Look for what will be acted on: the visitor's act begins once it is found. @throws StepProblem */
	aim?: (visit: Visit, step: StepOf<Verb>) => Target | Promise<Target>;
	/** @throws StepProblem */
	run: (visit: Visit, step: StepOf<Verb>, target: Target, conditions: Conditions) => void | Promise<void>;
}

type Run = () => void | Promise<void>;
type Prepare<Verb extends Kind> = (visit: Visit, step: StepOf<Verb>, conditions: Conditions) => Promise<Run>;

const act =
	<Verb extends Kind, Target = undefined>({ aim, run }: Act<Verb, Target>): Prepare<Verb> =>
	async (visit, step, conditions) => {
		const target = (await aim?.(visit, step)) as Target;
		return () => run(visit, step, target, conditions);
	};

const ACTS: { [Verb in Kind]: Prepare<Verb> } = {
	open: act<'open', URL>({
		aim: (visit, { open }) => {
			const url = new URL(open, visit.page.url());
			if (!isWebUrl(url)) throw new StepProblem('only http and https addresses are opened');
			return url;
		},
		run: async ({ session }, _step, { href }, { capMs }) => {
			const { errorText } = await within(session.send('Page.navigate', { url: href }), capMs);
			if (errorText) throw new StepProblem(`the address did not open (${errorText.replace('net::', '')})`);
		}
	}),
	click: act<'click', Point>({
		aim: (visit, { click }) => pointOf(visit, click),
		run: ({ session }, _step, { x, y }, { device }) => press(session, x, y, device.touch)
	}),
	type: act<'type', Point>({
		aim: (visit, { into }) => pointOf(visit, into),
		run: async ({ session }, { type }, { x, y }, { device }) => {
			await press(session, x, y, device.touch);
			for (const text of type) {
				await session.send('Input.dispatchKeyEvent', { type: 'keyDown', text, key: text });
				await session.send('Input.dispatchKeyEvent', { type: 'keyUp', key: text });
			}
		}
	}),
	press: act<'press'>({ run: ({ session }, { press: key }) => pressKey(session, key) }),
	scroll: act<'scroll'>({
		run: async (visit, { scroll }) => {
			const problem = await visit.call('scroll', scroll);
			if (problem) throw new StepProblem(problem);
		}
	}),
	wait: act<'wait'>({
		run: (visit, step) =>
			typeof step.wait === 'number' ? wait(step.wait) : untilHolds(visit, step.wait, step.within ?? WAIT_WITHIN_MS)
	}),
	expect: act<'expect'>({
		run: (visit, step) => untilHolds(visit, step.expect, step.within ?? EXPECT_WITHIN_MS)
	}),
	trySend: act<'trySend'>({
		run: async (visit, { trySend }) => {
			const held = await visit.hold('all').catch((error: Error) => {
				throw new StepProblem(error.message);
			});
			const before = held.stopped.length;
			await visit.world.addTools();
			const { problem, isHandled } = await visit.call('tryToSend', trySend);
			await wait(problem ? 0 : SENDING_MS);
			// What the page asks for is answered again; what would send is not, for as long as the page is there.
			held.hold('sending');
			if (problem) throw new StepProblem(problem);
			if (!isHandled && held.stopped.length === before) throw new StepProblem('nothing was sent off');
		}
	}),
	mark: act<'mark'>({ run: () => undefined })
};

/** @returns the visitor's act, ready to begin @throws StepProblem where there is nothing to act on */
export const prepareAct = (visit: Visit, step: Step, conditions: Conditions): Promise<Run> =>
	ACTS[kindOfStep(step)](visit, step as never, conditions);

export async function press(session: CDPSession, x: number, y: number, touch: boolean): Promise<void> {
	if (touch) {
		await session.send('Input.dispatchTouchEvent', { type: 'touchStart', touchPoints: [{ x, y }] });
		await session.send('Input.dispatchTouchEvent', { type: 'touchEnd', touchPoints: [] });
		return;
	}
	await session.send('Input.dispatchMouseEvent', { type: 'mouseMoved', x, y });
	for (const type of ['mousePressed', 'mouseReleased'] as const)
		await session.send('Input.dispatchMouseEvent', { type, x, y, button: 'left', clickCount: 1 });
}

/** What a key is to the browser: its code, its number, and what it writes. */
const KEY_FACTS: Readonly<Record<Key, { key?: string; windowsVirtualKeyCode: number; text?: string }>> = {
	Enter: { windowsVirtualKeyCode: 13, text: '\r' },
	Tab: { windowsVirtualKeyCode: 9 },
	Escape: { windowsVirtualKeyCode: 27 },
	Space: { key: ' ', windowsVirtualKeyCode: 32, text: ' ' },
	ArrowLeft: { windowsVirtualKeyCode: 37 },
	ArrowUp: { windowsVirtualKeyCode: 38 },
	ArrowRight: { windowsVirtualKeyCode: 39 },
	ArrowDown: { windowsVirtualKeyCode: 40 }
};

async function pressKey(session: CDPSession, key: Key): Promise<void> {
	const facts = { key, code: key, ...KEY_FACTS[key] };
	await session.send('Input.dispatchKeyEvent', { type: facts.text ? 'keyDown' : 'rawKeyDown', ...facts });
	await session.send('Input.dispatchKeyEvent', { type: 'keyUp', ...facts, text: undefined });
}

async function pointOf(visit: Visit, selector: string): Promise<Point> {
	const deadline = performance.now() + EXPECT_WITHIN_MS;
	for (;;) {
		const point = await visit.call('point', selector);
		if (!('problem' in point)) return point;
		if (performance.now() > deadline) throw new StepProblem(point.problem);
		await wait(LOOK_EVERY_MS);
	}
}

async function untilHolds(visit: Visit, state: StepState, withinMs: number): Promise<void> {
	const deadline = performance.now() + withinMs;
	for (;;) {
		const problem = await problemOf(visit, state);
		if (problem === null) return;
		if (performance.now() > deadline) throw new StepProblem(`${problem} (after ${withinMs} ms)`);
		await wait(LOOK_EVERY_MS);
	}
}

/** What of a state is missing, in words; null when it holds. */
export async function problemOf(visit: Visit, state: StepState): Promise<string | null> {
	try {
		const asked = await visit.world.callBetween('problem', state);
		return asked ? asked.answer : CHANGING;
	} catch (error) {
		if (isFinal(error as Error)) throw error;
		return CHANGING;
	}
}

const CHANGING = 'the page was just changing';
/** What the document itself cannot answer, as while it is being made, it may answer a moment later. */
const isFinal = (error: Error) => error instanceof LoadFailure || /not a valid selector/.test(error.message);

/**
 * Whether a state has come to hold, and when, epoch ms: the document looks in every frame from the first asking on. A
 * new document has not been asked yet.
 */
export async function stateShown(visit: Visit, state: StepState): Promise<number | null> {
	try {
		return (await visit.world.callBetween('stateShown', state))?.answer ?? null;
	} catch (error) {
		if (isFinal(error as Error)) throw error;
		return null;
	}
}

/** Whoever asks stops asking by ending the load, or by no longer waiting. */
export async function shownAt(visit: Visit, state: StepState, isOver: () => boolean): Promise<number | null> {
	while (!isOver()) {
		const atEpochMs = await stateShown(visit, state);
		if (atEpochMs !== null) return atEpochMs;
		await wait(LOOK_EVERY_MS);
	}
	return null;
}
