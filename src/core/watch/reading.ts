/** What a reading holds of one page under one set of conditions. */
import { METRIC_IDS, type MetricId } from '../metrics/catalogue';

/** What must be the same for two readings to tell of the page. */
export interface Setting {
	browser: string;
	/** Hash of the frozen conditions. */
	conditions: string;
	recipe: string;
	/** Which lab, by its machine. */
	lab: string;
}

export type SettingPart = keyof Setting;
export const SETTING_PARTS: readonly SettingPart[] = ['browser', 'conditions', 'recipe', 'lab'];

/** Figures of the loads that count, by metric and in the order of the rounds; null where a load has none. */
export type ReadingFigures = Partial<Record<MetricId | TimingKey, (number | null)[]>>;

/** Key of a mark or measure of the page's own, or of a named element, beside the metrics of the catalogue. */
export type TimingKey = `timing:${string}`;
const TIMING = 'timing:';
export const timingKey = (name: string): TimingKey => `${TIMING}${name}`;

/** @returns null for the key of a metric */
export const timingIn = (key: string): string | null => (key.startsWith(TIMING) ? key.slice(TIMING.length) : null);

export const measured = (figures: readonly (number | null)[] = []): number[] =>
	figures.filter((figure) => figure !== null);

export interface PageReading {
	/** Number of the reading. */
	reading: number;
	/** UTC ISO: when its block began. */
	at: string;
	/** Null where no load succeeded. */
	setting: Setting | null;
	figures: ReadingFigures;
	/** Of the control page in the same block; null without one. */
	control: ReadingFigures | null;
}

/** All readings of one page under one set of conditions, oldest first. */
export interface PageHistory {
	/** Number of the watched page. */
	page: number;
	/** Key of the conditions: `phone`. */
	condition: string;
	readings: PageReading[];
}

/** @returns which parts differ; empty where both can be compared */
export function settingParts(a: Setting | null, b: Setting | null): SettingPart[] {
	if (!a || !b) return [];
	return SETTING_PARTS.filter((part) => a[part] !== b[part]);
}

/** The figures of some loads by metric; a metric that no load has is left out. */
export function figuresByMetric(loads: readonly Partial<Record<MetricId, number | null>>[]): ReadingFigures {
	const figures: ReadingFigures = {};
	for (const metric of METRIC_IDS) {
		const own = loads.map((load) => load[metric] ?? null);
		if (measured(own).length) figures[metric] = own;
	}
	return figures;
}
