/** Seeded worlds of visitors with a known truth: days with luck of their own, drift, and a release. */
import { histogramOf, type FieldMetric } from '$core/field/histogram';
import { DEVICE_CLASSES } from '$core/field/reading';
import { addDays } from '$core/field/windows';
import type { DayOfVisits } from '$core/field/effect/byDays';
import type { DayOfKind } from '$core/field/effect/mix';
import type { VisitKind } from '$core/field/tallies';
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
	/** Days before the release; as many as after it where none are named. */
	history?: number;
	/** What the page alone does per day, log scale, long before the release and after it. */
	rise: number;
	/** What a day's own luck has of the day before. */
	memory: number;
	/** Share of visitors with slow lines, whose times are longer by half, and how many more of them come after it. */
	slow: number;
	campaign: number;
}

export const USUAL: WorldPlan = {
	metric: 'lcp',
	factor: 0.9,
	drift: 0,
	sharedLuck: 0.04,
	ownLuck: 0.03,
	visitsPerDay: 150,
	days: 28,
	rise: 0,
	memory: 0,
	slow: 0,
	campaign: 0
};

const MIDDLE = { phone: 2100, desktop: 1250 };
const SPREAD = 0.45;
/** Page views by weekday from Sunday, and phones' share at the weekend and else. */
const WEEK = [1.3, 0.85, 0.85, 0.9, 0.95, 1, 1.15];

export interface World {
	page: DayOfVisits[];
	control: DayOfVisits[];
	/** The page's visits by kind, in worlds with slow lines. */
	kinds: DayOfKind[];
}

const SLOWER = 1.5;

export function worldOf(seed: number, changes: Partial<WorldPlan> = {}): World {
	const plan = { ...USUAL, ...changes };
	const random = seededRandom(seed);
	const world: World = { page: [], control: [], kinds: [] };
	const luck = { page: 0, control: 0 };
	for (let i = -(plan.history ?? plan.days); i <= plan.days; i++) {
		const shared = plan.drift * i + plan.sharedLuck * normalFrom(random);
		const day = addDays(RELEASE, i);
		for (const side of ['page', 'control'] as const) {
			luck[side] = plan.memory * luck[side] + Math.sqrt(1 - plan.memory ** 2) * plan.ownLuck * normalFrom(random);
			const own = shared + luck[side] + (side === 'page' ? plan.rise * i : 0);
			const log = own + (side === 'page' && i >= 0 ? Math.log(plan.factor) : 0);
			const slow = plan.slow + (side === 'page' && i >= 0 ? plan.campaign : 0);
			const days = dayOf(day, log, plan, slow, random);
			world[side].push(...days.map(({ day: date, device, histogram }) => ({ day: date, device, histogram })));
			if (side === 'page') world.kinds.push(...days.flatMap(({ kinds }) => kinds));
		}
	}
	return world;
}

function dayOf(day: string, log: number, plan: WorldPlan, slow: number, random: Random) {
	const weekday = new Date(`${day}T00:00:00Z`).getUTCDay();
	const phones = weekday % 6 === 0 ? 0.75 : 0.6;
	return DEVICE_CLASSES.map((device) => {
		const count = Math.round(plan.visitsPerDay * WEEK[weekday]! * (device === 'phone' ? phones : 1 - phones));
		const scale = plan.metric === 'cls' ? 1e-5 : 1;
		const visits = Array.from({ length: count }, () => {
			const isSlow = slow > 0 && random() < slow;
			const value = scale * MIDDLE[device] * Math.exp(log + SPREAD * normalFrom(random));
			return { kind: isSlow ? ('slow/new' as const) : ('fast/new' as const), value: value * (isSlow ? SLOWER : 1) };
		});
		const of = (kind: VisitKind | null) =>
			histogramOf(
				plan.metric,
				visits.filter((visit) => kind === null || visit.kind === kind).map(({ value }) => value)
			);
		const kinds = plan.slow
			? (['slow/new', 'fast/new'] as const).map((kind) => ({ day, device, kind, histogram: of(kind) }))
			: [];
		return { day, device, histogram: of(null), kinds };
	});
}
