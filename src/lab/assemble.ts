/** Putting a record together from what was collected. */
import type { MetricId } from '$core/metrics/catalogue';
import { LAB_RECIPE, scoreOf } from '$core/metrics/score';
import type { LoadRecord, RequestRecord } from '$core/load/record';
import { cumulativeLayoutShift, fullyLoaded, interactionToNextPaint, totalBlockingTime } from '$core/load/vitals';
import { speedIndex, visuallyComplete } from '$core/load/visual';
import type { UnusedBytes } from './collect/coverage';
import type { PageFacts, Since } from './collect/pageFacts';
import type { DevelopedFrames } from './frames/develop';

/**
 * Figures, shifts and tasks from what the page reported.
 * @param offsetMs how long after the record's time zero the page's own clock began; more than 0 when the page moved on
 * to another document by itself
 */
export function fillFromPage(
	record: LoadRecord,
	facts: PageFacts,
	frames: DevelopedFrames,
	offsetMs: number,
	capMs: number
): void {
	const later = (ms: number) => ms + offsetMs;
	record.lcp = facts.lcp && { ...facts.lcp, atMs: later(facts.lcp.atMs) };
	record.shifts = facts.shifts.map((shift) => ({ ...shift, atMs: later(shift.atMs) }));
	record.longTasks = facts.longTasks.map((task) => ({ ...task, startMs: later(task.startMs) }));
	record.longFrames = facts.longFrames.map((frame) => ({
		...frame,
		startMs: later(frame.startMs),
		scripts: frame.scripts.map((script) => ({ ...script, startMs: later(script.startMs) }))
	}));
	record.marks = facts.marks.map((mark) => ({ ...mark, atMs: later(mark.atMs) }));
	record.frames = frames.records;
	for (const request of record.requests)
		if (facts.renderBlocking.includes(request.url)) request.renderBlocking = 'blocking';

	const onload = facts.onload > 0 ? later(facts.onload) : null;
	const fcp = facts.fcp === null ? null : later(facts.fcp);
	record.settledMs = record.capped ? capMs : settledAt(record, onload ?? 0);
	Object.assign(record.figures, {
		ttfb: facts.responseStart > 0 ? later(facts.responseStart) : null,
		fcp,
		lcp: record.lcp?.atMs ?? null,
		cls: cumulativeLayoutShift(record.shifts),
		inp: interactionToNextPaint(facts.interactions),
		tbt: fcp === null ? null : totalBlockingTime(record.longTasks, fcp, record.settledMs),
		start: frames.startRenderMs,
		si: frames.startRenderMs === null ? null : speedIndex(frames.records),
		vc: frames.startRenderMs === null ? null : visuallyComplete(frames.records),
		dcl: facts.domContentLoaded > 0 ? later(facts.domContentLoaded) : null,
		onload,
		full:
			onload === null
				? null
				: fullyLoaded(
						record.requests.filter((request) => request.during === 'load'),
						onload
					),
		elements: facts.page.elements,
		depth: facts.page.depth
	});
	record.figures.score = scoreOf(record.figures, LAB_RECIPE).value;
}

/** Weights of what came until the page had settled; known for failed loads too, as far as they came. */
export function fillWeights(record: LoadRecord, requests: RequestRecord[]): void {
	record.requests = requests;
	const sent = requests.filter(countsAsSent);
	record.figures.wire = sent.reduce((sum, request) => sum + (request.wireBytes ?? 0), 0);
	record.figures.decoded = sent.reduce((sum, request) => sum + (request.decodedBytes ?? 0), 0);
	record.figures.requests = sent.length;
}

/** Went to the network while the page loaded. */
const countsAsSent = (request: RequestRecord) =>
	!request.fromCache && !request.fromServiceWorker && request.during === 'load';

/** Script that never ran, style that matched nothing: in all, and of each file. */
export function fillUnused(record: LoadRecord, unused: UnusedBytes): void {
	record.figures.unusedJs = unused.script;
	record.figures.unusedCss = unused.style;
	for (const request of record.requests)
		if (request.type === 'script' || request.type === 'stylesheet')
			request.unused = unused.byUrl.get(request.url) ?? null;
}

export interface Nudged {
	atEpochMs: number;
	settledEpochMs: number;
	scriptMs: number;
	seen: Since;
}

/** What began only after the nudge, and the score had it been done before: its blocking time and shifts are added. */
export function fillHeldBack(
	record: LoadRecord,
	{ atEpochMs, settledEpochMs, scriptMs, seen }: Nudged,
	zeroEpochMs: number
): void {
	const late = record.requests.filter((request) => request.during === 'nudge' && !request.fromCache);
	const sum = (field: 'wireBytes' | 'decodedBytes') => late.reduce((all, request) => all + (request[field] ?? 0), 0);
	const figures = { ...record.figures };
	const add = (metric: MetricId, amount: number) =>
		(figures[metric] = figures[metric] === null ? null : figures[metric] + amount);
	add('tbt', totalBlockingTime(seen.tasks, 0, Infinity));
	figures.cls =
		figures.cls === null ? null : cumulativeLayoutShift([...record.shifts, ...lateShifts(seen, zeroEpochMs)]);
	add('wire', sum('wireBytes'));
	add('decoded', sum('decodedBytes'));
	add('requests', late.length);
	figures.score = scoreOf(figures, LAB_RECIPE).value;
	record.heldBack = {
		nudgedAtMs: Math.round(atEpochMs - zeroEpochMs),
		settledMs: Math.round(settledEpochMs - zeroEpochMs),
		requests: late.length,
		wireBytes: sum('wireBytes'),
		decodedBytes: sum('decodedBytes'),
		scriptMs: Math.round(scriptMs),
		figuresWith: figures
	};
}

/** Shifts after the nudge on the record's clock: the windows are formed over all shifts of the visit together. */
function lateShifts({ shifts }: Since, zeroEpochMs: number): Since['shifts'] {
	return shifts.map((shift) => ({ ...shift, atMs: shift.atMs - zeroEpochMs }));
}

/** The end of the last thing that kept the page busy while it loaded. */
function settledAt(record: LoadRecord, onload: number): number {
	const ends = record.requests.filter((request) => request.during === 'load').map((request) => request.endMs ?? 0);
	const tasks = record.longTasks.map((task) => task.startMs + task.durationMs);
	return Math.max(onload, ...ends, ...tasks);
}
