/** Presses a control while its page is still loading. */
import type { Conditions } from '$core/load/conditions/conditions';
import { EFFECT_WITHIN_MS, type Tap, type TapRecord } from '$core/load/journey/tap';
import { since } from './actions';
import { press } from './acts';
import type { Aim } from './page/inPage';
import { epochNow, wait, type Visit } from './visit';

/** Between aiming and pressing (house: a quick hand). */
const REACTION_MS = 200;
const LOOK_EVERY_MS = 25;
/** A control has moved away when it lies further from where it was aimed at, CSS pixels. */
const MOVED_FROM_PX = 10;

/** Times are epoch ms while the load runs. */
export type TapSeen = Omit<TapRecord, 'atMs'> & { atEpochMs: number | null };

/**
 * Press where the control was seen a moment before, as a hand does, so long after the first contentful paint; then wait
 * for its effect. Begins to listen at once: call it before the navigation.
 */
export async function tapEarly(visit: Visit, tap: Tap, { device, capMs }: Conditions): Promise<TapSeen> {
	const paintedAt = await visit.firstPaint(capMs);
	const blank: TapSeen = {
		selector: tap.selector,
		afterMs: tap.afterMs,
		atEpochMs: null,
		state: 'missing',
		movedPx: 0,
		effectMs: null,
		responseMs: null
	};
	if (paintedAt === null) return blank;
	await wait(Math.max(0, paintedAt + tap.afterMs - REACTION_MS - performance.now()));
	const aimed = await look(visit, tap.selector, null);
	if (!aimed) return blank;
	await wait(Math.max(0, paintedAt + tap.afterMs - performance.now()));
	const now = await look(visit, tap.selector, aimed);
	const atEpochMs = epochNow();
	// A page whose main thread is busy answers the press late, or never: nobody waits for that here.
	void press(visit.session, aimed.x, aimed.y, device.touch).catch(() => undefined);
	const movedPx = now ? Math.round(Math.hypot(now.x - aimed.x, now.y - aimed.y)) : 0;
	const effectMs = await effectOf(visit, tap, atEpochMs);
	const [longest] = (await since(visit, atEpochMs)).interactions.toSorted((a, b) => b - a);
	return { ...blank, atEpochMs, movedPx, state: controlState(now, movedPx), effectMs, responseMs: longest ?? null };
}

function controlState(now: Aim | null, movedPx: number): TapRecord['state'] {
	if (!now) return 'moved';
	if (now.hits) return 'there';
	return movedPx > MOVED_FROM_PX ? 'moved' : 'covered';
}

/** Where the control is, and whether it lies at a point (its own middle without one); null when it is not there. */
const look = (visit: Visit, selector: string, at: Aim | null): Promise<Aim | null> =>
	visit.call('aim', selector, at).catch(() => null);

async function effectOf(visit: Visit, { effect, effectIs }: Tap, fromEpochMs: number): Promise<number | null> {
	while (epochNow() - fromEpochMs < EFFECT_WITHIN_MS) {
		const problem = await visit.call('problem', { [effectIs]: effect }).catch(() => 'the page was just changing');
		if (problem === null) return Math.round(epochNow() - fromEpochMs);
		await wait(LOOK_EVERY_MS);
	}
	return null;
}

/** On the record's clock. */
export function tapRecord({ atEpochMs, ...seen }: TapSeen, zeroEpochMs: number): TapRecord {
	return { ...seen, atMs: atEpochMs === null ? null : Math.round(atEpochMs - zeroEpochMs) };
}
