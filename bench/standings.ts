/** Places that a standing tells, in seeded worlds of pages whose true order is known: 1,000 of each kind. */
import { normalFrom, seededRandom, type Random } from '$core/stats/random';
import type { MetricId } from '$core/metrics/catalogue';
import { rankRun, type Contest, type Ranked } from '$core/standings/ranks';
import { percent, printTable, type Row } from './table';

const WORLDS = Number(process.env.STANDING_WORLDS ?? 1000);
const ROUNDS = 10;
const METRICS: readonly MetricId[] = ['lcp', 'score', 'cls', 'tbt', 'wire'];
const TWELVE: readonly MetricId[] = [...METRICS, 'ttfb', 'fcp', 'start', 'si', 'onload', 'full', 'requests'];

interface World {
	/** Of each page, its true level as a factor; pages of one level are tied. */
	levels: readonly number[];
	/** Noise of each page's loads, log scale. */
	noise: (page: number) => number;
	/** What all pages of a round have in common, log scale. */
	shared: number;
	/** What the standing is asked about, on how many devices. */
	metrics: readonly MetricId[];
	devices: number;
	/** Some loads take half as long again: noise that leans to one side. */
	isSkewed: boolean;
}

const usual = (levels: readonly number[], changes: Partial<World> = {}): World => ({
	levels,
	noise: () => 0.08,
	shared: 0.05,
	isSkewed: false,
	metrics: METRICS,
	devices: 2,
	...changes
});

const tied = (pages: number, changes: Partial<World> = {}) => usual(new Array<number>(pages).fill(1), changes);

function figure(metric: MetricId, factor: number, random: Random): number {
	switch (metric) {
		case 'score':
			return Math.round(80 - 40 * Math.log(factor));
		case 'cls':
			// Mostly exact, now and then one shift more.
			return random() < 0.7 ? 0.02 * (factor > 1.05 || factor < 0.95 ? factor : 1) : 0.06;
		case 'requests':
			return Math.round(60 + 10 * Math.log(factor));
		case 'wire':
			return Math.round(400_000 * (1 + 0.01 * Math.log(factor)));
		default:
			return (metric === 'tbt' ? 180 : 2000) * factor;
	}
}

/** Metrics of one load hang together: they have one luck, and a third of their own. */
function runOf({ levels, noise, shared, isSkewed, metrics, devices }: World, seed: number): Contest[] {
	const random = seededRandom(seed);
	const contests = Array.from({ length: devices }, () =>
		metrics.map((metric) => ({
			metric,
			isJudged: true,
			contestants: levels.map((_, page) => ({ page, byRound: [] as number[] }))
		}))
	).flat();
	for (let device = 0; device < devices; device++)
		for (let round = 0; round < ROUNDS; round++) {
			const common = shared * normalFrom(random);
			levels.forEach((level, page) => {
				const slow = isSkewed && random() < 0.15 ? Math.log(1.5) : 0;
				const luck = common + noise(page) * normalFrom(random) + slow;
				metrics.forEach((metric, i) => {
					const own = luck + 0.3 * noise(page) * normalFrom(random);
					const byRound = contests[device * metrics.length + i]!.contestants[page]!.byRound;
					byRound.push(figure(metric, level * Math.exp(own), random));
				});
			});
		}
	return contests;
}

interface Told {
	/** Runs in which any two pages stand in an order that is not theirs. */
	falseOrder: number;
	/** Runs in which a page is first by itself, of several that are tied in front. */
	falseFirst: number;
	/** Of the largest paint: pages whose place is told exactly. */
	exact: number;
}

function tallyRuns(world: World): Told {
	const tally: Told = { falseOrder: 0, falseFirst: 0, exact: 0 };
	const best = Math.min(...world.levels);
	const isShared = world.levels.filter((level) => level === best).length > 1;
	for (let seed = 1; seed <= WORLDS; seed++) {
		const contests = runOf(world, seed);
		const ranked = rankRun(contests, seed);
		tally.falseOrder += Number(ranked.some((own) => hasFalseOrder(own, world.levels))) / WORLDS;
		tally.falseFirst +=
			Number(isShared && ranked.some((own) => own.some(({ from, to }) => from === 1 && to === 1))) / WORLDS;
		const paint = ranked[0]!;
		tally.exact += paint.filter(({ from, to }) => from === to).length / paint.length / WORLDS;
	}
	return tally;
}

/** Surely before a page that is as good, or better. */
const hasFalseOrder = (ranked: readonly Ranked[], levels: readonly number[]): boolean =>
	ranked.some((a) => ranked.some((b) => a.to! < b.from! && levels[a.page]! >= levels[b.page]!));

const within = (what: string, share: number): Row => ({
	what,
	measured: `${percent(share)} (± ${percent(Math.sqrt((share * (1 - share)) / WORLDS))})`,
	limit: 'at most 5 %',
	holds: share <= 0.05
});

function ties(what: string, world: World): Row[] {
	const { falseOrder, falseFirst } = tallyRuns(world);
	return [within(`${what}: any false order`, falseOrder), within(`${what}: a tied page is first`, falseFirst)];
}

function places(what: string, world: World): Row[] {
	const { falseOrder, exact } = tallyRuns(world);
	const shown = {
		what: `${what}: places of the largest paint told exactly`,
		measured: percent(exact),
		limit: 'shown',
		holds: true
	};
	return [within(`${what}: any false order`, falseOrder), shown];
}

printTable(
	`Standings: five metrics on two devices where nothing else is said, ${ROUNDS} rounds, ${WORLDS} runs of each kind`,
	[
		...ties('two pages alike', tied(2)),
		...ties('four pages alike', tied(4)),
		...ties('eight pages alike', tied(8)),
		...ties('five sites alike in twelve metrics on one device', tied(5, { metrics: TWELVE, devices: 1 })),
		...ties('four alike, one with four times the noise', tied(4, { noise: (page) => (page === 0 ? 0.2 : 0.05) })),
		...ties('four alike, noise that leans to one side', tied(4, { isSkewed: true })),
		...ties('four alike, the noise all shared by a round', tied(4, { noise: () => 0.01, shared: 0.15 })),
		...ties('one 25 % slower, three alike', usual([1, 1, 1, 1.25])),
		...ties(
			'one 25 % slower and restless, three alike',
			usual([1, 1, 1, 1.25], { noise: (page) => (page === 3 ? 0.2 : 0.06) })
		),
		...places('three, 15 % apart each', usual([1, 1.15, 1.32])),
		...places('two, 10 % apart', usual([1, 1.1]))
	]
);
