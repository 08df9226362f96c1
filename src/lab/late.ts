/** What a page does only after it has settled. */
import type { LateEvidence } from '$core/load/record/assemble';
import type { Conditions } from '$core/load/conditions/conditions';
import { PATIENCE } from '$core/load/record/limits';
import { nudge, since } from './actions';
import { epochNow, type Visit } from './visit';

/** As long as the record's zero is not known. */
type LateSeen = Omit<LateEvidence, 'zeroEpochMs'>;

/** A second kind of load: once the page has settled, somebody moves; what starts only then was held back. */
export function nudgeSettled(visit: Visit, conditions: Conditions): Promise<LateSeen> {
	return seenAfter(visit, 'nudge', async () => {
		await nudge(visit.session, conditions);
		await visit.answering(performance.now() + conditions.capMs);
		return conditions.quietMs;
	});
}

/** A third kind: nobody moves and the lab waits on; what starts only then was postponed. */
export function waitOn(visit: Visit): Promise<LateSeen> {
	return seenAfter(visit, 'patience', async () => {
		await visit.waitOn(PATIENCE);
		return 0;
	});
}

/** @param act what happens after settling; says how long before its end the page was quiet, ms */
async function seenAfter(visit: Visit, phase: 'nudge' | 'patience', act: () => Promise<number>): Promise<LateSeen> {
	const before = await visit.scriptMs();
	visit.network.phase = phase;
	const atEpochMs = epochNow();
	const quietMs = await act();
	const endEpochMs = epochNow() - quietMs;
	const after = await visit.scriptMs();
	return { atEpochMs, endEpochMs, scriptMs: Math.max(0, after - before), seen: await since(visit, atEpochMs) };
}
