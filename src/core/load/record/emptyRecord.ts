/** A record about which nothing is known yet: what is missing stays unknown, never zero. */
import { noFigures, type Figures } from '../../metrics/catalogue';
import { LAB_RECIPE, scoreOf } from '../../metrics/score';
import { completeConditions, type Conditions } from '../conditions/conditions';
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
		shown: [],
		tap: null,
		sideChecks: null,
		survey: null,
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
			visitor: null,
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
		inline: [],
		text: '',
		overlay: null,
		consoleErrors: [],
		signature: []
	};
}

/** Records from before a field existed, brought to today's shape. */
export function completeRecord(stored: Partial<LoadRecord> & Pick<LoadRecord, 'url' | 'startedAt'>): LoadRecord {
	const blank = emptyRecord(stored.url, null, stored.startedAt, null);
	const page = stored.page ? { ...emptyPage(''), ...stored.page } : null;
	// Records of today's shape stay as they are: a copy of thousands of requests is not free.
	const sent = stored.requests ?? [];
	const requests = sent.every((request) => request.initiatorChain !== undefined)
		? sent
		: sent.map((request) => ({ ...REQUEST_SINCE, ...request }));
	const conditions = stored.conditions ? completeConditions(stored.conditions) : null;
	const record = {
		...blank,
		...stored,
		conditions,
		page,
		requests,
		steps: (stored.steps ?? []).map((step) => ({ ...STEP_SINCE, ...step })),
		environment: { ...blank.environment, ...stored.environment }
	};
	const whole =
		'stepQuiet' in record.figures ? record : withFigures(record, (figures) => ({ ...noFigures(), ...figures }));
	return whole.recipe === LAB_RECIPE.version ? whole : scoredAnew(whole);
}

/** Scores by an earlier recipe never stand beside those of today's. */
function scoredAnew(record: LoadRecord): LoadRecord {
	const rescored = withFigures(record, (figures) => ({
		...figures,
		score: figures.score === null ? null : scoreOf(figures).value
	}));
	return { ...rescored, recipe: LAB_RECIPE.version };
}

/** The same record with all its figures made anew. */
function withFigures(record: LoadRecord, anew: (figures: Figures) => Figures): LoadRecord {
	const { figures, firstVisit, heldBack, postponed } = record;
	return {
		...record,
		figures: anew(figures),
		firstVisit: firstVisit && anew(firstVisit),
		heldBack: heldBack && { ...heldBack, figuresWith: anew(heldBack.figuresWith) },
		postponed: postponed && { ...postponed, figuresWith: anew(postponed.figuresWith) }
	};
}

const STEP_SINCE = { awaited: false, shownMs: null };
const REQUEST_SINCE = {
	unused: null,
	body: null,
	fromServiceWorker: false,
	during: 'load' as const,
	initiatorChain: []
};
