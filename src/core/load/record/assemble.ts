/** Putting a record together from the evidence of a load: pure, for the lab and for imported files alike. */
import type { Span } from '../requests/coverage';
import type { MetricId } from '../../metrics/catalogue';
import { LAB_RECIPE, scoreOf } from '../../metrics/score';
import type { PageFacts, Since } from './pageFacts';
import type { FrameRecord, HeldBackRecord, PostponedRecord, LoadRecord, RequestRecord, StepRecord } from './record';
import { cumulativeLayoutShift, fullyLoaded, interactionToNextPaint, totalBlockingTime } from '../vitals/vitals';
import { stepFigures } from '../vitals/stepFigures';
import { speedIndex, visuallyComplete } from '../vitals/visual';
import { weightsOf } from '../requests/weights';

/** Script that never ran and style that matched nothing, in characters: in all, and by the address of the file. */
export interface UnusedBytes {
	script: number;
	style: number;
	byUrl: ReadonlyMap<string, number>;
	/** What of each was of no use. */
	spans?: ReadonlyMap<string, Span[]>;
}

/** What the page reported once it had come to rest. */
export interface PageEvidence {
	facts: PageFacts;
	/**
	 * How long after the record's time zero the page's own clock began, ms; more than 0 when the page moved on by
	 * itself.
	 */
	offsetMs: number;
	finalUrl: string;
	redirects: string[];
	consoleErrors: string[];
}

/** What came after the page had settled: by a nudge, or by itself while the lab waited on. Times are epoch ms. */
export interface LateEvidence {
	/** When the nudge was given, or the wait began. */
	atEpochMs: number;
	/** When the page had settled again, or the wait ended. */
	endEpochMs: number;
	scriptMs: number;
	seen: Since;
	/** The record's time zero. */
	zeroEpochMs: number;
}

export interface JourneyEvidence {
	steps: StepRecord[];
	/** Durations of all interactions, ms. */
	interactions: number[];
}

export interface LoadEvidence {
	requests: RequestRecord[];
	frames: { records: FrameRecord[]; startRenderMs: number | null };
	/** Null for a load that ended before its page had settled. */
	page: PageEvidence | null;
	unused: UnusedBytes | null;
	nudge: LateEvidence | null;
	patience: LateEvidence | null;
	journey: JourneyEvidence | null;
}

export const NO_EVIDENCE: LoadEvidence = {
	requests: [],
	frames: { records: [], startRenderMs: null },
	page: null,
	unused: null,
	nudge: null,
	patience: null,
	journey: null
};

/**
 * @param begun what is known from the start: address, conditions, environment, whether the load was capped
 * @returns a new record; `begun` stays as it is
 */
export function assembleLoad(begun: LoadRecord, evidence: LoadEvidence): LoadRecord {
	const { requests, frames, page, unused, nudge, patience, journey } = evidence;
	const weighed = { ...begun, ...weighedRequests(begun, requests, unused), frames: frames.records };
	const settled = page ? withPage(weighed, page, frames.startRenderMs) : weighed;
	const record = journey ? withJourney(settled, journey) : settled;
	return {
		...record,
		heldBack: nudge && heldBackBy(record, nudge),
		postponed: patience && postponedBy(record, patience)
	};
}

function weighedRequests(begun: LoadRecord, requests: readonly RequestRecord[], unused: UnusedBytes | null) {
	const isCode = ({ type }: RequestRecord) => type === 'script' || type === 'stylesheet';
	const covered = unused
		? requests.map((request) =>
				isCode(request) ? { ...request, unused: unused.byUrl.get(request.url) ?? null } : request
			)
		: [...requests];
	const figures = { ...begun.figures, ...weightsOf(covered, 0) };
	if (unused) Object.assign(figures, { unusedJs: unused.script, unusedCss: unused.style });
	return { requests: covered, figures };
}

/** Figures, shifts and tasks from what the page reported, on the record's clock. */
function withPage(record: LoadRecord, page: PageEvidence, startRenderMs: number | null): LoadRecord {
	const { facts, offsetMs, finalUrl, redirects, consoleErrors } = page;
	const later = (ms: number) => ms + offsetMs;
	const reported = {
		lcp: facts.lcp && { ...facts.lcp, atMs: later(facts.lcp.atMs) },
		shifts: facts.shifts.map((shift) => ({ ...shift, atMs: later(shift.atMs) })),
		longTasks: facts.longTasks.map((task) => ({ ...task, startMs: later(task.startMs) })),
		longFrames: facts.longFrames.map((frame) => ({
			...frame,
			startMs: later(frame.startMs),
			scripts: frame.scripts.map((script) => ({ ...script, startMs: later(script.startMs) }))
		})),
		marks: facts.marks.map((mark) => ({ ...mark, atMs: later(mark.atMs) })),
		shown: record.shown.map((element) => {
			const seen = facts.shown.find(({ selector }) => selector === element.selector)?.atMs ?? null;
			return { ...element, atMs: seen === null ? null : later(seen) };
		}),
		requests: record.requests.map((request) =>
			facts.renderBlocking.includes(request.url) ? { ...request, renderBlocking: 'blocking' } : request
		),
		page: { ...facts.page, consoleErrors },
		finalUrl,
		redirects
	};
	return withFigures({ ...record, ...reported }, page, startRenderMs);
}

function withFigures(record: LoadRecord, { facts, offsetMs }: PageEvidence, startRenderMs: number | null): LoadRecord {
	const moment = (ms: number) => (ms > 0 ? ms + offsetMs : null);
	const onload = moment(facts.onload);
	const fcp = facts.fcp === null ? null : facts.fcp + offsetMs;
	const settledMs = record.capped ? (record.conditions?.capMs ?? null) : settledAt(record, onload ?? 0);
	const whileLoading = record.requests.filter((request) => request.during === 'load');
	const figures = {
		...record.figures,
		ttfb: moment(facts.responseStart),
		fcp,
		lcp: record.lcp?.atMs ?? null,
		cls: cumulativeLayoutShift(record.shifts),
		inp: interactionToNextPaint(facts.interactions),
		tbt: fcp === null ? null : totalBlockingTime(record.longTasks, fcp, settledMs ?? Infinity),
		start: startRenderMs,
		si: startRenderMs === null ? null : speedIndex(record.frames),
		vc: startRenderMs === null ? null : visuallyComplete(record.frames),
		dcl: moment(facts.domContentLoaded),
		onload,
		full: onload === null ? null : fullyLoaded(whileLoading, onload),
		elements: facts.page.elements,
		depth: facts.page.depth
	};
	return { ...record, settledMs, figures: { ...figures, score: scoreOf(figures, LAB_RECIPE).value } };
}

function withJourney(record: LoadRecord, { steps, interactions }: JourneyEvidence): LoadRecord {
	const inp = interactionToNextPaint(interactions) ?? record.figures.inp;
	return { ...record, steps, figures: { ...record.figures, inp, ...stepFigures(steps) } };
}

/** The requests of a late phase, and the figures had its work been done before: its blocking and shifts are added. */
function lateWork(record: LoadRecord, phase: 'nudge' | 'patience', { scriptMs, seen, zeroEpochMs }: LateEvidence) {
	const late = record.requests.filter((request) => request.during === phase && !request.fromCache);
	const sum = (field: 'wireBytes' | 'decodedBytes') => late.reduce((all, request) => all + (request[field] ?? 0), 0);
	const plus = (metric: MetricId, amount: number) =>
		record.figures[metric] === null ? null : record.figures[metric] + amount;
	// The windows are formed over all shifts of the visit together.
	const shifts = seen.shifts.map((shift) => ({ ...shift, atMs: shift.atMs - zeroEpochMs }));
	const figures = {
		...record.figures,
		tbt: plus('tbt', totalBlockingTime(seen.tasks, 0, Infinity)),
		cls: record.figures.cls === null ? null : cumulativeLayoutShift([...record.shifts, ...shifts]),
		wire: plus('wire', sum('wireBytes')),
		decoded: plus('decoded', sum('decodedBytes')),
		requests: plus('requests', late.length)
	};
	const work = {
		requests: late.length,
		wireBytes: sum('wireBytes'),
		decodedBytes: sum('decodedBytes'),
		scriptMs: Math.round(scriptMs),
		figuresWith: { ...figures, score: scoreOf(figures, LAB_RECIPE).value }
	};
	return { late, work };
}

function heldBackBy(record: LoadRecord, nudge: LateEvidence): HeldBackRecord {
	return {
		nudgedAtMs: Math.round(nudge.atEpochMs - nudge.zeroEpochMs),
		settledMs: Math.round(nudge.endEpochMs - nudge.zeroEpochMs),
		...lateWork(record, 'nudge', nudge).work
	};
}

function postponedBy(record: LoadRecord, patience: LateEvidence): PostponedRecord {
	const { late, work } = lateWork(record, 'patience', patience);
	return {
		fromMs: Math.round(patience.atEpochMs - patience.zeroEpochMs),
		untilMs: Math.round(patience.endEpochMs - patience.zeroEpochMs),
		firstMs: late.length ? Math.min(...late.map((request) => request.startMs)) : null,
		...work
	};
}

/** The end of the last thing that kept the page busy while it loaded. */
function settledAt(record: LoadRecord, onload: number): number {
	const ends = record.requests.filter((request) => request.during === 'load').map((request) => request.endMs ?? 0);
	const tasks = record.longTasks.map((task) => task.startMs + task.durationMs);
	return Math.max(onload, ...ends, ...tasks);
}
