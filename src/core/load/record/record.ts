/**
 * The LoadRecord: everything known of one page load. The one big type of the house: this schema is the type, the door
 * for
 * records from outside, and the published JSON Schema.
 */
import * as v from 'valibot';
import { METRIC_IDS, type MetricId } from '../../metrics/catalogue';
import { ConditionsRecord } from './conditionsRecord';
import type { KeptBodies } from './bodies';
import { about } from './described';
import { EnvironmentRecord } from './environmentRecord';
import { Box, PageRecord } from './pageRecord';
import { SideChecks } from '../journey/sideChecks';
import { SurveyRecord } from '../journey/survey';
import { TapRecord } from '../journey/tap';

export type { BusyShares, CalmRecord, CalmTrack, EnvironmentRecord, PathRecord } from './environmentRecord';
export type { Box, EmptySlot, FontFact, ImageFact, PageRecord } from './pageRecord';

const Figures = v.object(
	Object.fromEntries(METRIC_IDS.map((id) => [id, v.nullable(v.number())])) as Record<
		MetricId,
		v.NullableSchema<v.NumberSchema<undefined>, undefined>
	>
);
const STEP = v.custom<`step ${number}`>((value) => typeof value === 'string' && /^step \d+$/.test(value));

export const FailureCode = v.picklist([
	'bad-url',
	'unresolvable',
	'refused',
	'private-address',
	'certificate',
	'http-status',
	'download',
	'redirect-loop',
	'time-out',
	'no-answer',
	'crash',
	'browser-missing',
	'browser-start',
	'browser-killed',
	'browser-blind',
	'nothing-painted',
	'error-page',
	'visitor-state',
	'network',
	'internal'
]);
export type FailureCode = v.InferOutput<typeof FailureCode>;

/** Why a load failed: a code for programs, words for people. */
export const FailureReason = v.object({
	code: FailureCode,
	detail: about('What its sentence names: a host, an address, a status, a time.', v.optional(v.string())),
	message: about('What happened and why.', v.optional(v.string(), '')),
	advice: about('What to do about it.', v.optional(v.string(), ''))
});
export type FailureReason = v.InferOutput<typeof FailureReason>;

/** What a text body is like. */
export const BodyFact = v.object({
	hash: about('First 16 hex digits of its SHA-256: two bodies with the same are the same.', v.string()),
	bytes: about('Size of the decoded text in UTF-8, and what gzip (level 6) makes of it.', v.number()),
	gzipBytes: v.number()
});
export type BodyFact = v.InferOutput<typeof BodyFact>;

/** `step 2` is the second step of a journey. */
export const RequestPhase = v.union([v.literal('load'), v.literal('nudge'), v.literal('patience'), STEP]);
export type RequestPhase = v.InferOutput<typeof RequestPhase>;

export const RequestRecord = v.object({
	id: v.string(),
	url: v.string(),
	host: v.string(),
	method: v.string(),
	type: about(
		'Resource type as the browser names it, lower case: document, script, stylesheet, image, font, fetch, ...',
		v.string()
	),
	status: v.nullable(v.number()),
	statusText: v.string(),
	protocol: v.nullable(v.string()),
	mimeType: v.nullable(v.string()),
	priority: v.nullable(v.string()),
	startMs: about('ms since the navigation began.', v.number()),
	responseMs: about('First byte of the response; null when none came.', v.nullable(v.number())),
	endMs: about('Last byte, or the failure; null while unfinished.', v.nullable(v.number())),
	timing: about(
		'Parts of the time in ms; null where the browser did not say or the part did not occur.',
		v.object({
			queue: v.nullable(v.number()),
			dns: v.nullable(v.number()),
			connect: v.nullable(v.number()),
			tls: v.nullable(v.number()),
			send: v.nullable(v.number()),
			wait: v.nullable(v.number()),
			receive: v.nullable(v.number())
		})
	),
	wireBytes: about(
		'Headers and body as they crossed the wire; null when the source does not say (an imported HAR).',
		v.nullable(v.number())
	),
	decodedBytes: about('Body after decoding.', v.nullable(v.number())),
	unused: about(
		'Characters of a script that never ran, or of a style sheet that matched nothing; null when not counted.',
		v.nullable(v.number())
	),
	body: about('Facts about a text body, which itself is not kept; null when it was not read.', v.nullable(BodyFact)),
	sentBytes: about('Headers that went up with it; absent where the browser did not say.', v.optional(v.number())),
	cookieBytes: about('Cookies among them.', v.optional(v.number())),
	fromCache: v.boolean(),
	fromServiceWorker: about('Answered by the page’s service worker.', v.boolean()),
	during: about(
		'`load` until the page had settled; then what the nudge or a step set off, or what began while the lab waited on.',
		RequestPhase
	),
	renderBlocking: v.nullable(v.string()),
	initiatorType: about('What asked for it: parser, script, preload, other.', v.string()),
	initiatorUrl: v.nullable(v.string()),
	initiatorChain: about(
		'Addresses of the scripts on the way from the page to this request, nearest first.',
		v.array(v.string())
	),
	failed: v.nullable(v.string()),
	redirectTo: v.nullable(v.string()),
	requestHeaders: v.array(v.tuple([v.string(), v.string()])),
	responseHeaders: v.array(v.tuple([v.string(), v.string()])),
	remoteAddress: v.nullable(v.string()),
	connectionId: v.nullable(v.string())
});
export type RequestRecord = v.InferOutput<typeof RequestRecord>;

export const ShiftRecord = v.object({
	atMs: v.number(),
	value: v.number(),
	recentInput: v.boolean(),
	elements: v.array(
		v.object({
			selector: v.string(),
			from: Box,
			to: Box
		})
	)
});
export type ShiftRecord = v.InferOutput<typeof ShiftRecord>;

export const LcpRecord = v.object({
	atMs: v.number(),
	size: about('Painted area in CSS pixels squared.', v.number()),
	selector: v.nullable(v.string()),
	tag: v.nullable(v.string()),
	url: v.nullable(v.string()),
	box: about('Where it lies on the finished page; null when it is gone.', v.nullable(Box)),
	text: about('First words of the element, for people.', v.nullable(v.string()))
});
export type LcpRecord = v.InferOutput<typeof LcpRecord>;

export const TaskRecord = v.object({
	startMs: v.number(),
	durationMs: v.number()
});
export type TaskRecord = v.InferOutput<typeof TaskRecord>;

/** A distinct frame of the screencast; the picture itself is stored beside the record. */
export const FrameRecord = v.object({
	atMs: v.number(),
	progress: about('Visual progress, 0 to 1.', v.number())
});
export type FrameRecord = v.InferOutput<typeof FrameRecord>;

/** A script's part of a long animation frame. */
export const ScriptRecord = v.object({
	url: about('Address of the script; empty for what has none.', v.string()),
	invoker: about('What called it: an event, a timer, the parser.', v.string()),
	functionName: v.string(),
	startMs: v.number(),
	durationMs: v.number(),
	layoutMs: about('Style and layout that the script forced, within its duration.', v.number())
});
export type ScriptRecord = v.InferOutput<typeof ScriptRecord>;

/** W3C Long Animation Frames. */
export const LongFrameRecord = v.object({
	startMs: v.number(),
	durationMs: v.number(),
	blockingMs: v.number(),
	scripts: v.array(ScriptRecord)
});
export type LongFrameRecord = v.InferOutput<typeof LongFrameRecord>;

/** User Timing. */
export const MarkRecord = v.object({
	name: v.string(),
	atMs: about('When the mark was set, or the measure began.', v.number()),
	durationMs: about('Of a measure; null for a mark.', v.nullable(v.number()))
});
export type MarkRecord = v.InferOutput<typeof MarkRecord>;

/** What came late, and what it would have made of the figures. */
const LATE_WORK = {
	requests: v.number(),
	wireBytes: v.number(),
	decodedBytes: v.number(),
	scriptMs: about('Time of its scripts, from the browser’s own count.', v.number()),
	figuresWith: about('Figures had it been done before: its blocking time and shifts are added.', Figures)
};

/** What began only after somebody moved, scrolled or pressed a key. */
export const HeldBackRecord = v.object({
	nudgedAtMs: about('When the lab nudged the page.', v.number()),
	settledMs: v.number(),
	...LATE_WORK
});
export type HeldBackRecord = v.InferOutput<typeof HeldBackRecord>;

/** What began only after the page had settled, by itself, while the lab waited on. */
export const PostponedRecord = v.object({
	fromMs: about('When the lab began to wait on.', v.number()),
	untilMs: v.number(),
	firstMs: about('Start of the first request that came then; null without any.', v.nullable(v.number())),
	...LATE_WORK
});
export type PostponedRecord = v.InferOutput<typeof PostponedRecord>;

export const StepRecord = v.object({
	number: about('From 1.', v.number()),
	kind: v.string(),
	words: about('The step in words: "Click #menu".', v.string()),
	status: v.picklist(['ok', 'failed', 'skipped']),
	message: about('What went wrong, with step and selector; null otherwise.', v.nullable(v.string())),
	atMs: v.number(),
	durationMs: about(
		'From the step until its effect was there: the wait was over, the expectation met.',
		v.nullable(v.number())
	),
	quietMs: about(
		'From the step until the page was quiet again: the end of its last request, long task or shift.',
		v.nullable(v.number())
	),
	awaited: about('The next step says what must come of this one.', v.boolean()),
	shownMs: about(
		'From an act until what the next step awaits was there; null where nothing is awaited, or it was there before.',
		v.nullable(v.number())
	),
	navigated: about('The step brought a new document.', v.boolean()),
	requests: v.number(),
	wireBytes: v.number(),
	cls: v.number(),
	inp: v.nullable(v.number())
});
export type StepRecord = v.InferOutput<typeof StepRecord>;

const RewritingRecord = v.object({
	done: about(
		'Each rewrite in words, and how often it was done.',
		v.array(v.object({ words: v.string(), times: v.number() }))
	),
	twin: about('Whether the page was answered as it had come once.', v.boolean()),
	requests: about('That went through the rewriting server.', v.number()),
	fromTwin: v.number(),
	workMs: about('The server’s own work, without waiting for hosts.', v.number()),
	notes: v.array(v.string())
});
export type RewritingRecord = v.InferOutput<typeof RewritingRecord>;

export const LoadRecord = v.object({
	format: v.literal('zafra-load'),
	version: v.literal(1),
	url: v.string(),
	finalUrl: v.string(),
	conditions: about('null when not known: an imported HAR.', v.nullable(ConditionsRecord)),
	startedAt: about('UTC, ISO.', v.string()),
	status: v.picklist(['ok', 'failed']),
	failure: v.nullable(FailureReason),
	capped: about('The load hit its time cap before it settled.', v.boolean()),
	settledMs: v.nullable(v.number()),
	labMs: about('What the lab spent on this load in all, ms.', v.number()),
	recipe: v.string(),
	figures: Figures,
	lcp: v.nullable(LcpRecord),
	shifts: v.array(ShiftRecord),
	longTasks: v.array(TaskRecord),
	longFrames: v.array(LongFrameRecord),
	marks: v.array(MarkRecord),
	requests: v.array(RequestRecord),
	redirects: v.array(v.string()),
	source: about(
		'Where the record comes from: the lab, or a HAR from elsewhere, of which much is unknown.',
		v.picklist(['lab', 'har'])
	),
	firstVisit: about('The first visit’s figures when this is a repeat visit.', v.nullable(Figures)),
	heldBack: v.nullable(HeldBackRecord),
	postponed: about('null when the lab did not wait on.', v.nullable(PostponedRecord)),
	selectors: about(
		'Elements that were counted on the settled page; null for a selector that cannot be read.',
		v.array(v.object({ selector: v.string(), count: v.nullable(v.number()) }))
	),
	shown: about(
		'When elements that somebody named were first seen in the first screen, ms; null for one that never was.',
		v.array(v.object({ name: v.string(), selector: v.string(), atMs: v.nullable(v.number()) }))
	),
	tap: about('A control that was pressed while the page loaded; null when none was.', v.nullable(TapRecord)),
	sideChecks: about('Accessibility and what the head says; null where nobody asked.', v.nullable(SideChecks)),
	survey: about('What can be picked and checked on the page; null where nobody asked.', v.nullable(SurveyRecord)),
	rewriting: about(
		'What the lab changed of the page on its way, in a rehearsal; absent in any other load.',
		v.optional(RewritingRecord)
	),
	steps: v.array(StepRecord),
	frames: v.array(FrameRecord),
	page: v.nullable(PageRecord),
	environment: EnvironmentRecord
});
export type LoadRecord = v.InferOutput<typeof LoadRecord>;

/** What the lab returns: the record and the pictures, which are stored apart from it. */
export interface MeasuredLoad {
	record: LoadRecord;
	/** WebP, in step with `record.frames`. */
	frames: Uint8Array[];
	/** WebP of the finished page's viewport. */
	picture: Uint8Array | null;
	/** WebP of the moment at which a step failed. */
	stepPicture?: { step: number; image: Uint8Array } | null;
	/** WebP of the first screens, and of each check that was tried. */
	survey?: { picture: Uint8Array | null; checkPictures: (Uint8Array | null)[] } | null;
	/** What came, where it was asked for; files in step with `kept.files`. */
	bodies?: { kept: KeptBodies; files: Uint8Array[] } | null;
}
