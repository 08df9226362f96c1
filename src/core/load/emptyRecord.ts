/** A record about which nothing is known yet: what is missing stays unknown, never zero. */
import { noFigures, type Figures } from '../metrics/catalogue';
import { LAB_RECIPE, scoreOf } from '../metrics/score';
import { completeConditions, type Conditions } from './conditions';
import type { FailureReason, LoadRecord, PageRecord } from './record';

/** @param startedAt UTC, ISO */
export function emptyRecord(
	url: string,
	conditions: Conditions | null,
	startedAt: string,
	failure: FailureReason | null
): LoadRecord {
	return {
		format: 'zafra-load',
		version: 1,
		url,
		finalUrl: url,
		conditions,
		startedAt,
		status: failure ? 'failed' : 'ok',
		failure,
		capped: false,
		settledMs: null,
		labMs: 0,
		recipe: LAB_RECIPE.version,
		figures: noFigures(),
		lcp: null,
		shifts: [],
		longTasks: [],
		longFrames: [],
		marks: [],
		requests: [],
		redirects: [],
		source: 'lab',
		firstVisit: null,
		heldBack: null,
		postponed: null,
		selectors: [],
		tap: null,
		steps: [],
		frames: [],
		page: null,
		environment: {
			browser: 'unknown',
			userAgent: '',
			machineSpeed: { before: null, after: null },
			slowdown: 1,
			reachedSpeed: null,
			network: null,
			sandboxed: null,
			busy: null,
			calm: null,
			paths: [],
			switches: [],
			notes: []
		}
	};
}

/** A page of which nothing but its title is known. */
export function emptyPage(title: string): PageRecord {
	return {
		title,
		language: null,
		viewport: null,
		elements: null,
		depth: null,
		deepestPath: null,
		widestParent: null,
		images: [],
		fonts: [],
		emptySlots: [],
		text: '',
		overlay: null,
		consoleErrors: []
	};
}

/** Records from before a field existed, brought to today's shape. */
export function completeRecord(stored: Partial<LoadRecord> & Pick<LoadRecord, 'url' | 'startedAt'>): LoadRecord {
	const blank = emptyRecord(stored.url, null, stored.startedAt, null);
	const page = stored.page ? { ...emptyPage(''), ...stored.page } : null;
	// Records of today's shape stay as they are: a copy of thousands of requests is not free.
	const known = stored.requests ?? [];
	const requests = known.every((request) => request.initiatorChain !== undefined)
		? known
		: known.map((request) => ({ ...REQUEST_SINCE, ...request }));
	const conditions = stored.conditions ? completeConditions(stored.conditions) : null;
	const record = {
		...blank,
		...stored,
		conditions,
		page,
		requests,
		environment: { ...blank.environment, ...stored.environment }
	};
	return record.recipe === LAB_RECIPE.version ? record : scoredAnew(record);
}

/** Scores by an earlier recipe never stand beside those of today's. */
function scoredAnew(record: LoadRecord): LoadRecord {
	const rescore = <Some extends Figures | null>(figures: Some): Some =>
		figures && { ...figures, score: figures.score === null ? null : scoreOf(figures).value };
	const { heldBack, postponed } = record;
	return {
		...record,
		recipe: LAB_RECIPE.version,
		figures: rescore(record.figures),
		firstVisit: rescore(record.firstVisit),
		heldBack: heldBack && { ...heldBack, figuresWith: rescore(heldBack.figuresWith) },
		postponed: postponed && { ...postponed, figuresWith: rescore(postponed.figuresWith) }
	};
}

const REQUEST_SINCE = {
	unused: null,
	body: null,
	fromServiceWorker: false,
	during: 'load' as const,
	initiatorChain: []
};
