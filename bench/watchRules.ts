/**
 * How often a watch is wrong, and what it sees: seeded worlds of a year with five metrics, two devices, five loads and
 * fifteen more of a page that may have moved.
 */
import type { MetricId } from '$core/metrics/catalogue';
import { eventsOf, findInHistory, lastCalled, type Change } from '$core/watch/history';
import { USUAL_WATCH, watchWorld, type WatchWorld } from '../test/support/watchWorlds';
import { tallies } from './pool';
import { percent, printTable } from './table';

const WORLDS = Number(process.env.WATCH_WORLDS ?? 1000);
/** Of eight pages a world takes eight times as long. */
const LARGE_WORLDS = Math.ceil(WORLDS / 5);
const QUARTER = 13;

interface Cell {
	name: string;
	worlds: number;
	/** Chances of a hit, and hits. */
	run(seed: number): { tries: number; hits: number };
	limit: string;
	holds(share: number): boolean;
}
interface Tally {
	tries: number;
	hits: number;
}

const callsIn = (world: WatchWorld, seed: number) => {
	const { histories, weeks } = watchWorld(world, seed);
	const options = { metrics: world.metrics, margins: null, readingsAQuarter: QUARTER };
	return { changes: findInHistory(histories, options).changes, weeks };
};
const isTold = (event: readonly Change[]) => event.some(({ verdict }) => verdict !== 'same' && verdict !== 'undecided');
const isLcp = ({ page, condition, metric }: Change) => page === 1 && condition === 'phone' && metric === 'lcp';

/** Share of quarters with any notice, where nothing happened. The first has no history to call from. */
const alarm = (name: string, changes: Partial<WatchWorld>): Cell => ({
	name: `false notice: ${name}`,
	worlds: (changes.pages ?? 1) > 1 ? LARGE_WORLDS : Math.ceil(WORLDS / 2),
	run(seed) {
		const { changes: found, weeks } = callsIn({ ...USUAL_WATCH, ...changes }, seed);
		const calls = eventsOf(found).filter(isTold);
		const quarters = new Set(calls.map((event) => Math.floor(weeks[event[0]!.calledAt - 1]! / QUARTER)));
		return { tries: 3, hits: [...quarters].filter((quarter) => quarter > 0).length };
	},
	limit: 'at most 5 % a quarter',
	holds: (share) => share <= 0.05
});

const STEADY = { missing: 0, tail: 0 };
/** LCP of the first page on the phone moves by 15 % from a week on. */
const sees = (
	name: string,
	changes: Partial<WatchWorld>,
	week: number,
	readings: number,
	least: number | null
): Cell => ({
	name: `15 % at 12 % noise: ${name}`,
	worlds: (changes.pages ?? 1) > 1 ? LARGE_WORLDS : WORLDS,
	run(seed) {
		const world = { ...USUAL_WATCH, ...STEADY, ...changes, weeks: week + readings, step: { week, by: 0.15 } };
		const found = callsIn(world, seed).changes.some(
			(change) => isLcp(change) && lastCalled(change) > week && change.shift.estimate > 0
		);
		return { tries: 1, hits: Number(found) };
	},
	limit: least === null ? '' : `at least ${percent(least, 0)}`,
	holds: (share) => least === null || share >= least
});

const badWeek = (by: number, metrics: readonly MetricId[]): Cell => ({
	name: `one bad week, ${percent(by, 0)} worse, ${metrics.length} metrics: called`,
	worlds: WORLDS,
	run(seed) {
		const step = { week: 25, by, until: 26, all: true };
		const { changes } = callsIn({ ...USUAL_WATCH, missing: 0, metrics, weeks: 35, step }, seed);
		return { tries: 1, hits: Number(changes.some(({ page, after }) => page === 1 && Math.abs(after - 26) <= 1)) };
	},
	limit: 'at most 5 %',
	holds: (share) => share <= 0.05
});

const back: Cell = {
	name: 'up 15 % and back after three weeks: return called within four readings',
	worlds: WORLDS,
	run(seed) {
		const step = { week: 25, by: 0.15, until: 28 };
		const calls = callsIn({ ...USUAL_WATCH, ...STEADY, weeks: 32, step }, seed).changes.filter(isLcp);
		const isUp = calls.some(({ shift }) => shift.estimate > 0);
		return { tries: Number(isUp), hits: Number(isUp && calls.some(({ shift }) => shift.estimate < 0)) };
	},
	limit: 'at least 80 % of those called',
	holds: (share) => share >= 0.8
};

const ramp = (by: number, weeks: number): Cell => ({
	name: `a ramp of ${percent(by, 0)} a week over ${weeks} weeks: told more than once`,
	worlds: Math.ceil(WORLDS / 2),
	run(seed) {
		const world = { ...USUAL_WATCH, missing: 0, weeks: 45, ramp: { week: 20, by, weeks } };
		const calls = eventsOf(callsIn(world, seed).changes.filter(isLcp)).length;
		return { tries: 1, hits: Number(calls > 1) };
	},
	limit: 'at most 10 %',
	holds: (share) => share <= 0.1
});

const FIVE = USUAL_WATCH.metrics;
const CELLS: Cell[] = [
	...[0, 0.005, 0.02].map((bytes) =>
		sees(`by the second reading, bytes vary by ${percent(bytes)}`, { bytes }, 40, 2, 0.8)
	),
	sees('the same after 20 readings', { bytes: 0.01 }, 20, 2, null),
	sees('the same, eight pages', { pages: 8, bytes: 0.01 }, 30, 2, null),
	sees(
		'updates every 4 weeks, within five readings',
		{ bytes: 0.01, updates: { every: 4, spread: 0.03, own: 0.01 } },
		30,
		5,
		0.6
	),
	sees(
		'updates every 8 weeks, within five readings',
		{ bytes: 0.01, updates: { every: 8, spread: 0.03, own: 0.01 } },
		30,
		5,
		0.8
	),
	alarm('one page', { bytes: 0.01 }),
	alarm('eight pages, bytes vary by 1 %', { pages: 8, bytes: 0.01 }),
	alarm('eight pages, bytes vary by 2 %, one page by 10 % in all', { pages: 8, bytes: 0.02, restless: 0.1 }),
	alarm('one page that varies by 10 % in all', { bytes: 0.02, restless: 0.1 }),
	alarm('drift 6 % that stays', { drift: 0.06, stays: 0.9, bytes: 0.01 }),
	alarm('readings of a page differ by 3 %', { own: 0.03, bytes: 0.01 }),
	alarm('updates every 4 weeks, each page by 2 % of its own', {
		bytes: 0.01,
		updates: { every: 4, spread: 0.03, own: 0.02 }
	}),
	// What was taken off over an update is least certain where the lab drifts and the drift stays.
	alarm('updates every 4 weeks, drift 6 % that stays', {
		bytes: 0.01,
		drift: 0.06,
		stays: 0.9,
		updates: { every: 4, spread: 0.03, own: 0.01 }
	}),
	// 15 % is about where a bad week passes most easily.
	...[0.15, 0.2, 0.4].flatMap((by) => [badWeek(by, ['lcp']), badWeek(by, FIVE)]),
	back,
	ramp(0.05, 6),
	ramp(0.03, 10)
];

const wanted = process.env.BENCH_CELLS ? new RegExp(process.env.BENCH_CELLS) : null;
const indices = [...CELLS.keys()].filter((index) => !wanted || wanted.test(CELLS[index]!.name));
const found = await tallies(import.meta.url, indices, (index): Tally => {
	const { worlds, run } = CELLS[index]!;
	const tally = { tries: 0, hits: 0 };
	for (let seed = 1; seed <= worlds; seed++) {
		const { tries, hits } = run(seed);
		tally.tries += tries;
		tally.hits += hits;
	}
	return tally;
});
if (found) {
	printTable(
		`Watches: changes beyond the noise, ${WORLDS} seeded worlds (of eight pages ${LARGE_WORLDS})`,
		indices.map((index) => {
			const [{ name, limit, holds }, { tries, hits }] = [CELLS[index]!, found.get(index)!];
			const share = hits / Math.max(1, tries);
			const error = Math.sqrt((share * (1 - share)) / Math.max(1, tries));
			return { what: name, measured: `${percent(share)} (± ${percent(error)})`, limit, holds: holds(share) };
		})
	);
	process.exit();
}
