/** What one patient load, or one with an interaction, showed of the work that comes late: small enough to keep by. */
import { rollups, sum } from 'd3-array';
import type { LoadRecord, RequestRecord } from '../../load/record/record';
import type { Figures, MetricId } from '../../metrics/catalogue';

/** `postponed` comes by itself after the page had settled, `held-back` only after an input. */
export const LATE_KINDS = ['postponed', 'held-back'] as const;
export type LateKind = (typeof LATE_KINDS)[number];

/** Metrics that late work adds to. */
export const LATE_METRICS = ['score', 'cls', 'tbt', 'wire', 'decoded', 'requests'] as const satisfies MetricId[];

export interface HostTraffic {
	host: string;
	/** Until the page had settled. */
	loadRequests: number;
	loadBytes: number;
	lateRequests: number;
	lateBytes: number;
	/** Start of the first late request, ms since the navigation; null without one. */
	lateMs: number | null;
}

export interface LateFacts {
	kind: LateKind;
	requests: number;
	wireBytes: number;
	scriptMs: number;
	/** When the late work began: its first request, or the input; ms since the navigation. */
	fromMs: number;
	/** When the page had settled, ms since the navigation. */
	settledMs: number | null;
	/** What the late work adds to each figure; null where it is unknown. */
	added: Partial<Record<MetricId, number | null>>;
	/** As loaded. */
	figures: Pick<Figures, 'wire' | 'score'>;
	hosts: HostTraffic[];
}

/** Null of a load in which the lab neither waited on nor made an input. */
export function lateFacts(record: LoadRecord): LateFacts | null {
	const { heldBack, postponed, figures, settledMs } = record;
	const work = postponed ?? heldBack;
	if (!work) return null;
	const { requests, wireBytes, scriptMs, figuresWith } = work;
	return {
		kind: postponed ? 'postponed' : 'held-back',
		requests,
		wireBytes,
		scriptMs,
		fromMs: postponed ? (postponed.firstMs ?? postponed.fromMs) : heldBack!.nudgedAtMs,
		settledMs,
		added: Object.fromEntries(LATE_METRICS.map((id) => [id, difference(figuresWith[id], figures[id])])),
		figures: { wire: figures.wire, score: figures.score },
		hosts: trafficByHost(record.requests, postponed ? 'patience' : 'nudge')
	};
}

function difference(later: number | null, sooner: number | null): number | null {
	return later === null || sooner === null ? null : later - sooner;
}

function trafficByHost(requests: readonly RequestRecord[], phase: 'patience' | 'nudge'): HostTraffic[] {
	const sent = requests.filter((request) => !request.fromCache);
	return rollups(
		sent,
		(all) => {
			const [loaded, late] = (['load', phase] as const).map((name) => all.filter(({ during }) => during === name));
			return {
				loadRequests: loaded!.length,
				loadBytes: sum(loaded!, ({ wireBytes }) => wireBytes ?? 0),
				lateRequests: late!.length,
				lateBytes: sum(late!, ({ wireBytes }) => wireBytes ?? 0),
				lateMs: late!.length ? Math.min(...late!.map(({ startMs }) => startMs)) : null
			};
		},
		({ host }) => host
	).map(([host, traffic]) => ({ host, ...traffic }));
}
