/** What the history of a watch says, as it is stored. */
import type { MetricId } from '$core/metrics/catalogue';
import type { Change, HistoryFindings } from '$core/watch/history';
import type { Period } from '$core/watch/since';
import type { PageTrouble } from '$core/watch/trouble';
import type { ShiftResult } from '$core/trial/types';

/** Of one page under one set of conditions, as lists show it. */
export interface PageState {
	page: number;
	condition: string;
	/** Number and start of the newest reading with figures; null before the first. */
	reading: number | null;
	at: string | null;
	middles: Partial<Record<MetricId, number>>;
	loads: number;
	/** Readings that are still missing before a change of every figure can be told. */
	missing: number;
	disturbed: number;
	loadId: number | null;
	/** Of the newest reading, with figures or without. */
	trouble: PageTrouble | null;
	since: Partial<Record<Period, { at: string; results: ShiftResult[] }>>;
}

export interface WatchHistory extends HistoryFindings {
	readings: number;
	states: PageState[];
	/** Sentences by the key of a change. */
	causes: Record<string, string[]>;
}

/** By which its causes are known. */
export const changeKey = ({ page, condition, metric, after }: Change) => `${page}/${condition}/${metric}/${after}`;

/** Of all changes of one event, each sentence once. */
export const causesOf = ({ causes }: Pick<WatchHistory, 'causes'>, changes: readonly Change[]): string[] => [
	...new Set(changes.flatMap((change) => causes[changeKey(change)] ?? []))
];
