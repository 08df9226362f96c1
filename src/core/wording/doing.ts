/** What a lab is doing now. */
import type { LoadPlace } from '../trial/design/place';
import type { TrialDesign } from '../trial/types';

export const LONE_LOAD = 'a load outside a trial';

/** "Pages that bring bookings, load 12 of 80" */
export const describeReading = (name: string, { done, total }: { done: number; total: number }): string =>
	`${name}, load ${Math.min(done + 1, total)} of ${total}`;

/** "With chat, Phone, round 3 of 10" */
export function describeTrialLoad(design: TrialDesign, place: LoadPlace, isSettling: boolean): string {
	const arm = design.arms.find(({ id }) => id === place.armId);
	const conditions = design.conditions.find(({ id }) => id === place.conditionId);
	return `${arm?.name ?? 'a page'}, ${conditions?.name ?? ''}, ${describeRound(design, place, isSettling)}`;
}

function describeRound({ warmups, rounds }: TrialDesign, { warmup, round }: LoadPlace, isSettling: boolean): string {
	if (isSettling) return 'waiting for the page to be stable';
	return warmup ? `warm-up ${round} of ${warmups}` : `round ${round} of ${rounds}`;
}
