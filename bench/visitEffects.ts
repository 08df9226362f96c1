/** Effects of releases in 500 seeded worlds of each kind: is the truth in the interval, is drift called an effect? */
import { effectByDays } from '$core/field/effect/byDays';
import { effectByWindows } from '$core/field/effect/byWindows';
import type { EffectAnswer } from '$core/field/effect/types';
import { addDays, windowEnds } from '$core/field/windows';
import { normalFrom, seededRandom } from '$core/stats/random';
import { RELEASE, USUAL, worldOf, type WorldPlan } from '../test/support/fieldWorlds';
import { percent, printTable, type Row } from './table';

const WORLDS = Number(process.env.EFFECT_WORLDS ?? 500);

interface Told {
	worlds: number;
	holds: number;
	called: number;
	/** Mean width of the interval, as a share of the figure before. */
	width: number;
}

function tallyWorlds(factor: number, answerOf: (seed: number) => EffectAnswer): Told {
	const tally: Told = { worlds: 0, holds: 0, called: 0, width: 0 };
	for (let seed = 1; seed <= WORLDS; seed++) {
		const answer = answerOf(seed);
		if ('tooSoon' in answer) continue;
		const { before, low, high } = answer.effect;
		const truth = before * (factor - 1);
		tally.worlds++;
		tally.holds += Number(low <= truth && truth <= high) / WORLDS;
		const isNone = answer.effect.verdict === 'none';
		tally.called += Number(!isNone && (low > 0 || high < 0)) / WORLDS;
		tally.width += (high - low) / before / WORLDS;
	}
	return tally;
}

function rowsOf(name: string, isNull: boolean, { worlds, holds, called, width }: Told, isHanging = false): Row[] {
	if (!worlds)
		return [{ what: `${name}: withheld, too few independent days`, measured: 'always', limit: '', holds: true }];
	const share = holds * (WORLDS / worlds);
	const rate = called * (WORLDS / worlds);
	const given = worlds < WORLDS ? `, given in ${percent(worlds / WORLDS)}` : '';
	return [
		{
			what: `${name}: interval holds the truth (its width ${percent(width)}${given})`,
			measured: percent(share),
			limit: isHanging ? 'at least 92 %' : 'at least 90 %',
			holds: share >= (isHanging ? 0.92 : 0.9)
		},
		isNull
			? {
					what: `${name}: called an effect`,
					measured: percent(rate),
					// What the bar of the intervals leaves.
					limit: isHanging ? 'at most 8 %' : 'at most 5 %',
					holds: rate <= (isHanging ? 0.08 : 0.05)
				}
			: { what: `${name}: found`, measured: percent(rate), limit: 'at least 80 %', holds: rate >= 0.8 }
	];
}

const days = (changes: Partial<WorldPlan>): Told =>
	tallyWorlds(changes.factor ?? USUAL.factor, (seed) => {
		const { page, control, kinds } = worldOf(seed, changes);
		return effectByDays('lcp', page, control, RELEASE, seed, kinds);
	});

/** The page rises by itself, and the release does nothing. */
function rising(what: string, changes: Partial<WorldPlan>, isBar = true): Row {
	const { called, worlds } = days({ ...changes, factor: 1, rise: 0.016 / 7 });
	const share = called * (WORLDS / Math.max(1, worlds));
	return isBar
		? { what, measured: percent(share), limit: 'at most 10 %', holds: share <= 0.1 }
		: { what, measured: percent(share), limit: 'none: four weeks show no slope', holds: true };
}

const ENDS = windowEnds('2026-11-22', 13, 7);
/** Days before the first window's end that it holds. */
const FIRST = addDays(ENDS[0]!, -27);

/** Windows as panels count them: the percentile of all page views of 28 days, each day with a luck of its own. */
function windowWorld(seed: number, factor: number, drift: number, release: string, memory: number) {
	const random = seededRandom(seed);
	const luck = {
		shared: new Map<string, number>(),
		page: new Map<string, number>(),
		control: new Map<string, number>()
	};
	for (let day = FIRST, i = 0; day <= ENDS.at(-1)!; day = addDays(day, 1), i++) {
		luck.shared.set(day, drift * i + 0.03 * normalFrom(random));
		for (const side of ['page', 'control'] as const) {
			const before = luck[side].get(addDays(day, -1)) ?? 0.02 * normalFrom(random);
			luck[side].set(day, memory * before + Math.sqrt(1 - memory ** 2) * 0.02 * normalFrom(random));
		}
	}
	const windowsOf = (side: 'page' | 'control') =>
		ENDS.map((until) => {
			const middles = Array.from({ length: 28 }, (_, i) => {
				const day = addDays(until, -i);
				const step = side === 'page' && day >= release ? Math.log(factor) : 0;
				return luck.shared.get(day)! + luck[side].get(day)! + step;
			});
			return { until, p75: Math.round(2000 * Math.exp(mixturePercentile(middles))) };
		});
	return { page: windowsOf('page'), control: windowsOf('control') };
}

const SPREAD = 0.42;

/** By halving: the mixture of a month of log-normal days has no closed form. */
function mixturePercentile(middles: readonly number[]): number {
	let [low, high] = [-3, 3];
	for (let i = 0; i < 40; i++) {
		const at = (low + high) / 2;
		const below = middles.reduce((sum, middle) => sum + logistic((at - middle) / SPREAD), 0) / middles.length;
		if (below < 0.75) low = at;
		else high = at;
	}
	return (low + high) / 2;
}

/** Near enough to a normal distribution, and quick; its own shape does not matter here. */
const logistic = (z: number) => 1 / (1 + Math.exp(-1.702 * z));

const windows = (factor: number, drift: number, release: string, memory = 0): Told =>
	tallyWorlds(factor, (seed) => {
		const { page, control } = windowWorld(seed, factor, drift, release, memory);
		return effectByWindows('lcp', page, control, release);
	});

/** After it a fifth more of the visitors have slow lines; the page is as it was. */
function campaigns(): Row[] {
	const row = (what: string, tally: Told, limit: number, isMost: boolean): Row => {
		const share = tally.called * (WORLDS / Math.max(1, tally.worlds));
		const holds = isMost ? share <= limit : share >= limit;
		return { what, measured: percent(share), limit: `${isMost ? 'at most' : 'at least'} ${percent(limit, 0)}`, holds };
	};
	const plan = { slow: 0.15 };
	return [
		row('a campaign with slow visitors, called an effect', days({ ...plan, factor: 1, campaign: 0.2 }), 0.05, true),
		row('no campaign, 10 % less, seen', days({ ...plan, factor: 0.9 }), 0.8, false),
		row('no campaign, no effect, called', days({ ...plan, factor: 1 }), 0.05, true)
	];
}

printTable(`Effects of releases, ${WORLDS} worlds of each kind`, [
	...rowsOf('days, 10 % less', false, days({})),
	...rowsOf('days, no effect', true, days({ factor: 1 })),
	...rowsOf('days, no effect, 6 % drift a month', true, days({ factor: 1, drift: 0.002 })),
	...rowsOf('days, 10 % less, twelve weeks before', false, days({ history: 84 })),
	rising('days, it rose by 1.6 % a week for twelve weeks before: called an effect', { history: 84 }),
	rising('days, the same for eight weeks before: called an effect', { history: 56 }),
	rising('days, the same for four weeks before: called an effect', {}, false),
	...rowsOf('days, two weeks a side, no effect', true, days({ factor: 1, days: 14 })),
	...rowsOf('windows, 14 % less', false, windows(0.86, 0, '2026-09-20')),
	...rowsOf('windows, no effect', true, windows(1, 0, '2026-09-20')),
	...rowsOf('windows, no effect, 3 % drift a month', true, windows(1, 0.001, '2026-09-20')),
	...rowsOf('windows, 14 % less three weeks ago', false, windows(0.86, 0.001, '2026-11-01')),
	...[0.4, 0.6, 0.8].flatMap((memory) =>
		rowsOf(`days that have ${memory} in common, no effect`, true, days({ factor: 1, memory }), true)
	),
	...rowsOf('windows over such days of 0.8, no effect', true, windows(1, 0, '2026-09-20', 0.8), true),
	...campaigns()
]);
