/** Seeded worlds of visitors with a known truth: days with luck of their own, drift, and a release. */
import { histogramOf, type FieldMetric } from '$core/field/histogram';
import { DEVICE_CLASSES } from '$core/field/reading';
import { addDays } from '$core/field/windows';
import type { DayOfVisits } from '$core/field/effect/byDays';
import { normalFrom, seededRandom, type Random } from '$core/stats/random';

export const RELEASE = '2026-10-05';

export interface WorldPlan {
	metric: FieldMetric;
	/** What the release does: a factor on each visit. */
	factor: number;
	/** Drift of page and control alike, per day, log scale. */
	drift: number;
	/** Standard deviation of a day's luck that page and control share, and of each one's own; log scale. */
	sharedLuck: number;
	ownLuck: number;
	visitsPerDay: number;
	days: number;
}

export const USUAL: WorldPlan = {
	metric: 'lcp',
	factor: 0.9,
	drift: 0,
	sharedLuck: 0.04,
	ownLuck: 0.03,
	visitsPerDay: 150,
	days: 28
};

const MIDDLE = { phone: 2100, desktop: 1250 };
const SPREAD = 0.45;
/** Page views by weekday from Sunday, and phones' share at the weekend and else. */
const WEEK = [1.3, 0.85, 0.85, 0.9, 0.95, 1, 1.15];

export interface World {
	page: DayOfVisits[];
	control: DayOfVisits[];
}

export function worldOf(seed: number, changes: Partial<WorldPlan> = {}): World {
	const plan = { ...USUAL, ...changes };
	const random = seededRandom(seed);
	const world: World = { page: [], control: [] };
	for (let i = -plan.days; i <= plan.days; i++) {
		const shared = plan.drift * i + plan.sharedLuck * normalFrom(random);
		const day = addDays(RELEASE, i);
		for (const side of ['page', 'control'] as const) {
			const own = shared + plan.ownLuck * normalFrom(random);
			const log = own + (side === 'page' && i >= 0 ? Math.log(plan.factor) : 0);
			world[side].push(...dayOf(day, log, plan, random));
		}
	}
	return world;
}

function dayOf(day: string, log: number, plan: WorldPlan, random: Random): DayOfVisits[] {
	const weekday = new Date(`${day}T00:00:00Z`).getUTCDay();
	const phones = weekday % 6 === 0 ? 0.75 : 0.6;
	return DEVICE_CLASSES.map((device) => {
		const count = Math.round(plan.visitsPerDay * WEEK[weekday]! * (device === 'phone' ? phones : 1 - phones));
		const scale = plan.metric === 'cls' ? 1e-5 : 1;
		const values = Array.from(
			{ length: count },
			() => scale * MIDDLE[device] * Math.exp(log + SPREAD * normalFrom(random))
		);
		return { day, device, histogram: histogramOf(plan.metric, values) };
	});
}
