/** Made-up histories: readings of one page with its control, from a seeded world whose truth is known. */
import type { MetricId } from '$core/metrics/catalogue';
import { normalFrom, seededRandom } from '$core/stats/random';
import type { PageHistory, PageReading, Setting } from '$core/watch/reading';

export const SETTING: Setting = { browser: 'Chromium 140', conditions: 'a', recipe: 'zafra-2', lab: 'here' };

export interface HistoryWorld {
	readings: number;
	/** Middle of the page's figure, and its noise as a share of it. */
	level?: number;
	noise?: number;
	/** Share by which it moves, from the reading on. */
	step?: { at: number; by: number };
	/** Spread of what the lab itself drifts, as a share, from reading to reading. */
	drift?: number;
	loads?: number;
	hasControl?: boolean;
	metric?: MetricId;
	seed?: number;
	page?: number;
	settingAt?: (reading: number) => Setting;
}

const WEEK_MS = 7 * 86_400_000;
const START = Date.parse('2026-01-05T04:10:00Z');

export function historyOf({
	readings,
	level = 2000,
	noise = 0.12,
	step,
	drift = 0,
	loads = 5,
	hasControl = true,
	metric = 'lcp',
	seed = 1,
	page = 1,
	settingAt = () => SETTING
}: HistoryWorld): PageHistory {
	const random = seededRandom(seed);
	const loadsOf = (middle: number, count: number) =>
		Array.from({ length: count }, () => middle * Math.exp(noise * normalFrom(random)));
	const all = Array.from({ length: readings }, (_, i): PageReading => {
		const lab = Math.exp(drift * normalFrom(random));
		const moved = step && i + 1 >= step.at ? 1 + step.by : 1;
		return {
			reading: i + 1,
			at: new Date(START + i * WEEK_MS).toISOString(),
			setting: settingAt(i + 1),
			figures: { [metric]: loadsOf(level * lab * moved, loads) },
			control: hasControl ? { [metric]: loadsOf(600 * lab, 2 * loads) } : null
		};
	});
	return { page, condition: 'phone', readings: all };
}
