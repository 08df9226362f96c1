/** The LoadRecord: everything known of one page load. The one big type of the house. */
import type { Figures } from '../metrics/catalogue';
import type { BusyShares } from './calm';
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
	| 'browser-start'
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

/** What a text body is like. */
export interface BodyFact {
	/** First 16 hex digits of its SHA-256: two bodies with the same are the same. */
	hash: string;
	/** Size of the decoded text in UTF-8, and what gzip (level 6) makes of it. */
	bytes: number;
	gzipBytes: number;
}

/** `step 2` is the second step of a journey. */
export type RequestPhase = 'load' | 'nudge' | `step ${number}`;

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
	/** Headers and body as they crossed the wire; null when the source does not say (an imported HAR). */
	wireBytes: number | null;
	/** Body after decoding. */
	decodedBytes: number | null;
	/** Characters of a script that never ran, or of a style sheet that matched nothing; null when not counted. */
	unused: number | null;
	/** Facts about a text body, which itself is not kept; null when it was not read. */
	body: BodyFact | null;
	fromCache: boolean;
	/** Answered by the page's service worker. */
	fromServiceWorker: boolean;
	/** `load` until the page had settled; then what the nudge or a step set off. */
	during: RequestPhase;
	renderBlocking: string | null;
	/** What asked for it: parser, script, preload, other. */
	initiatorType: string;
	initiatorUrl: string | null;
	/** Addresses of the scripts on the way from the page to this request, nearest first. */
	initiatorChain: string[];
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
	/** Connections open at once, and what the line carried in each direction, TLS and all; null when not known. */
	network: { mostConnections: number; upBytes: number; downBytes: number } | null;
	/** Whether the page ran in Chromium's sandbox; null when not known. */
	sandboxed: boolean | null;
	/** How busy the machine was with something else during the load; null where it does not tell. */
	busy: BusyShares | null;
	/** What the lab has to say about this load. */
	notes: string[];
}

/** A script's part of a long animation frame. */
export interface ScriptRecord {
	/** Address of the script; empty for what has none. */
	url: string;
	/** What called it: an event, a timer, the parser. */
	invoker: string;
	functionName: string;
	startMs: number;
	durationMs: number;
	/** Style and layout that the script forced, within its duration. */
	layoutMs: number;
}

/** W3C Long Animation Frames. */
export interface LongFrameRecord {
	startMs: number;
	durationMs: number;
	blockingMs: number;
	scripts: ScriptRecord[];
}

/** User Timing. */
export interface MarkRecord {
	name: string;
	/** When the mark was set, or the measure began. */
	atMs: number;
	/** Of a measure; null for a mark. */
	durationMs: number | null;
}

export interface ImageFact {
	url: string;
	selector: string;
	/** Pixels of the file; 0 while not loaded. */
	naturalWidth: number;
	naturalHeight: number;
	/** CSS pixels on the page. */
	shownWidth: number;
	shownHeight: number;
	lazy: boolean;
	/** Width and height, or a ratio, are set, so that nothing moves when it comes. */
	roomReserved: boolean;
	/** Within the viewport before any scrolling. */
	inView: boolean;
}

export interface FontFact {
	family: string;
	weight: string;
	status: string;
	/** The font-display in force. */
	display: string;
}

/** Room that the page keeps and shows nothing in. */
export interface EmptySlot {
	selector: string;
	box: Box;
}

export interface PageRecord {
	title: string;
	language: string | null;
	/** Content of the viewport meta; null without one. */
	viewport: string | null;
	elements: number | null;
	depth: number | null;
	/** Selector steps from the document to the deepest element. */
	deepestPath: string | null;
	widestParent: { selector: string; children: number } | null;
	images: ImageFact[];
	fonts: FontFact[];
	emptySlots: EmptySlot[];
	/** Visible words of the page, for telling whether two pages say the same. */
	text: string;
	/** A layer over the page that asks for consent or hides the rest; null without one. */
	overlay: { selector: string; box: Box; text: string } | null;
	consoleErrors: string[];
}

/** What began only after somebody moved, scrolled or pressed a key. */
export interface HeldBackRecord {
	/** When the lab nudged the page. */
	nudgedAtMs: number;
	settledMs: number;
	requests: number;
	wireBytes: number;
	decodedBytes: number;
	/** Time of scripts after the nudge, from the browser's own count. */
	scriptMs: number;
	/** Figures had the work after the nudge been done before: its blocking time and shifts are added. */
	figuresWith: Figures;
}

export interface StepRecord {
	/** From 1. */
	number: number;
	kind: string;
	/** The step in words: "Click #menu". */
	words: string;
	status: 'ok' | 'failed' | 'skipped';
	/** What went wrong, with step and selector; null otherwise. */
	message: string | null;
	atMs: number;
	/** From the step until its effect was there: the wait was over, the expectation met. */
	durationMs: number | null;
	/** From the step until the page was quiet again: the end of its last request, long task or shift. */
	quietMs: number | null;
	/** The step brought a new document. */
	navigated: boolean;
	requests: number;
	wireBytes: number;
	cls: number;
	inp: number | null;
}

export interface LoadRecord {
	format: 'zafra-load';
	version: 1;
	url: string;
	finalUrl: string;
	/** null when not known: an imported HAR. */
	conditions: Conditions | null;
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
	longFrames: LongFrameRecord[];
	marks: MarkRecord[];
	requests: RequestRecord[];
	redirects: string[];
	/** Where the record comes from: the lab, or a HAR from elsewhere, of which much is unknown. */
	source: 'lab' | 'har';
	/** The first visit's figures when this is a repeat visit. */
	firstVisit: Figures | null;
	heldBack: HeldBackRecord | null;
	steps: StepRecord[];
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
	/** WebP of the moment at which a step failed. */
	stepPicture?: { step: number; image: Uint8Array } | null;
}
