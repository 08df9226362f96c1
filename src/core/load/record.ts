/** The LoadRecord: everything known of one page load. The one big type of the house. */
import type { Figures } from '../metrics/catalogue';
import type { Conditions } from './conditions';

export type FailureCode =
	| 'bad-url'
	| 'unresolvable'
	| 'refused'
	| 'private-address'
	| 'certificate'
	| 'http-status'
	| 'download'
	| 'redirect-loop'
	| 'time-out'
	| 'no-answer'
	| 'crash'
	| 'browser-missing'
	| 'browser-killed'
	| 'network'
	| 'internal';

/** Why a load failed: a code for programs, words for people. */
export interface FailureReason {
	code: FailureCode;
	/** What happened and why. */
	message: string;
	/** What to do about it. */
	advice: string;
}

/** A rectangle in CSS pixels of the viewport. */
export interface Box {
	x: number;
	y: number;
	width: number;
	height: number;
}

export interface RequestRecord {
	id: string;
	url: string;
	host: string;
	method: string;
	/** Resource type as the browser names it, lower case: document, script, stylesheet, image, font, fetch, ... */
	type: string;
	status: number | null;
	statusText: string;
	protocol: string | null;
	mimeType: string | null;
	priority: string | null;
	/** ms since the navigation began. */
	startMs: number;
	/** First byte of the response; null when none came. */
	responseMs: number | null;
	/** Last byte, or the failure; null while unfinished. */
	endMs: number | null;
	/** Parts of the time in ms; null where the browser did not say or the part did not occur. */
	timing: {
		queue: number | null;
		dns: number | null;
		connect: number | null;
		tls: number | null;
		send: number | null;
		wait: number | null;
		receive: number | null;
	};
	/** Headers and body as they crossed the wire. */
	wireBytes: number;
	/** Body after decoding. */
	decodedBytes: number;
	fromCache: boolean;
	renderBlocking: string | null;
	/** What asked for it: parser, script, preload, other. */
	initiatorType: string;
	initiatorUrl: string | null;
	failed: string | null;
	redirectTo: string | null;
	requestHeaders: [name: string, value: string][];
	responseHeaders: [name: string, value: string][];
	remoteAddress: string | null;
	connectionId: string | null;
}

export interface ShiftRecord {
	atMs: number;
	value: number;
	recentInput: boolean;
	elements: { selector: string; from: Box; to: Box }[];
}

export interface LcpRecord {
	atMs: number;
	/** Painted area in CSS pixels squared. */
	size: number;
	selector: string | null;
	tag: string | null;
	url: string | null;
	/** Where it lies on the finished page; null when it is gone. */
	box: Box | null;
	/** First words of the element, for people. */
	text: string | null;
}

export interface TaskRecord {
	startMs: number;
	durationMs: number;
}

/** A distinct frame of the screencast; the picture itself is stored beside the record. */
export interface FrameRecord {
	atMs: number;
	/** Visual progress, 0 to 1. */
	progress: number;
}

export interface EnvironmentRecord {
	browser: string;
	userAgent: string;
	/** Rounds of the calibration loop per ms, without slowdown, before and after the load. */
	machineSpeed: { before: number | null; after: number | null };
	/** CPU slowdown that was applied; 1 is none. */
	slowdown: number;
	/** Speed reached under that slowdown. */
	reachedSpeed: number | null;
	/** What the lab has to say about this load. */
	notes: string[];
}

export interface PageRecord {
	title: string;
	language: string | null;
	elements: number | null;
	depth: number | null;
	consoleErrors: string[];
}

export interface LoadRecord {
	format: 'zafra-load';
	version: 1;
	url: string;
	finalUrl: string;
	conditions: Conditions;
	/** UTC, ISO. */
	startedAt: string;
	status: 'ok' | 'failed';
	failure: FailureReason | null;
	/** The load hit its time cap before it settled. */
	capped: boolean;
	settledMs: number | null;
	/** What the lab spent on this load in all, ms. */
	labMs: number;
	recipe: string;
	figures: Figures;
	lcp: LcpRecord | null;
	shifts: ShiftRecord[];
	longTasks: TaskRecord[];
	requests: RequestRecord[];
	redirects: string[];
	frames: FrameRecord[];
	page: PageRecord | null;
	environment: EnvironmentRecord;
}

/** What the lab returns: the record and the pictures, which are stored apart from it. */
export interface MeasuredLoad {
	record: LoadRecord;
	/** WebP, in step with `record.frames`. */
	frames: Uint8Array[];
	/** WebP of the finished page's viewport. */
	picture: Uint8Array | null;
}
