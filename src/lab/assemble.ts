/** Putting a record together from what was collected. */
import { noFigures } from '../core/metrics/catalogue';
import { LAB_RECIPE, scoreOf } from '../core/metrics/score';
import type { Conditions } from '../core/load/conditions';
import type { FailureReason, LoadRecord, RequestRecord } from '../core/load/record';
import {
	cumulativeLayoutShift,
	fullyLoaded,
	interactionToNextPaint,
	totalBlockingTime
} from '../core/load/vitals';
import { speedIndex, visuallyComplete } from '../core/load/visual';
import type { PageFacts } from './collect/pageFacts';
import type { DevelopedFrames } from './frames/develop';

/** A record of a load about which nothing is known but why it failed. */
export function failedRecord(url: string, conditions: Conditions, startedAt: Date, reason: FailureReason): LoadRecord {
	return {
		format: 'zafra-load',
		version: 1,
		url,
		finalUrl: url,
		conditions,
		startedAt: startedAt.toISOString(),
		status: 'failed',
		failure: reason,
		capped: false,
		settledMs: null,
		labMs: 0,
		recipe: LAB_RECIPE.version,
		figures: noFigures(),
		lcp: null,
		shifts: [],
		longTasks: [],
		requests: [],
		redirects: [],
		frames: [],
		page: null,
		environment: {
			browser: 'unknown',
			userAgent: '',
			machineSpeed: { before: null, after: null },
			slowdown: 1,
			reachedSpeed: null,
			notes: []
		}
	};
}

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
		full: onload === null ? null : fullyLoaded(record.requests, onload),
		elements: facts.page.elements,
		depth: facts.page.depth
	});
	record.figures.score = scoreOf(record.figures, LAB_RECIPE).value;
}

/** Weights are known for failed loads too, as far as they came. */
export function fillWeights(record: LoadRecord, requests: RequestRecord[]): void {
	record.requests = requests;
	const sent = requests.filter((request) => !request.fromCache);
	record.figures.wire = sent.reduce((sum, request) => sum + request.wireBytes, 0);
	record.figures.decoded = sent.reduce((sum, request) => sum + request.decodedBytes, 0);
	record.figures.requests = sent.length;
}

/** The end of the last thing that kept the page busy. */
function settledAt(record: LoadRecord, onload: number): number {
	const ends = record.requests.map((request) => request.endMs ?? 0);
	const tasks = record.longTasks.map((task) => task.startMs + task.durationMs);
	return Math.max(onload, ...ends, ...tasks);
}
