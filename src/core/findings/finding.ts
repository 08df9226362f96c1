/** What an audited load shows to be slow, heavy or broken: the exact resource, its cost, and when it is done. */
import type { MetricId } from '../metrics/catalogue';

export const RULE_IDS = [
	'server-wait',
	'redirects',
	'page-cache-miss',
	'text-plain-sent',
	'text-weakly-packed',
	'short-lifetime',
	'old-protocol',
	'cookie-weight',
	'style-in-the-way',
	'script-in-the-way',
	'style-chain',
	'largest-late-found',
	'largest-lazy',
	'largest-without-priority',
	'largest-faded-in',
	'connection-late',
	'text-hidden',
	'picture-too-large',
	'picture-old-format',
	'picture-poorly-packed',
	'picture-without-room',
	'picture-early',
	'animation-as-picture',
	'picture-same-twice',
	'media-preloaded',
	'font-format',
	'font-unused-signs',
	'font-not-drawn',
	'font-many',
	'font-far',
	'icons-as-font',
	'task-long',
	'script-never-run',
	'style-never-matched',
	'not-minified',
	'library-twice',
	'for-old-browsers',
	'style-recalculated',
	'inline-weight',
	'writes-document',
	'shift-by-font',
	'shift-by-picture',
	'shift-by-insertion',
	'slot-empty',
	'step-slow',
	'press-lost',
	'going-back-slow',
	'third-party-cost',
	'third-party-unconfirmed',
	'starts-unasked',
	'works-late',
	'broken-request',
	'console-error',
	'large-page'
] as const;
export type RuleId = (typeof RULE_IDS)[number];

/** Who can mend it: editor, developer, host, or the owner of a third party. */
export type Mender = 'editor' | 'developer' | 'host' | 'third-party';
/** A usual effort, which the analyst changes: about an hour, about a day, more. */
export type Effort = 'hour' | 'day' | 'more';

export interface Resource {
	kind: 'address' | 'selector' | 'owner' | 'page';
	/** Address, selector or owner as it was seen in this load. */
	name: string;
	/** The same on every page and in every load: path without a version, selector, owner. */
	key: string;
}

/** Counted in the load, never promised. Null where a load does not tell. */
export interface Cost {
	bytes: number | null;
	/** Main-thread time, ms. */
	threadMs: number | null;
	/** Stands in the way of this metric, by the record's own timings. */
	metric: MetricId | null;
	/** By so much, in the metric's unit. */
	delay: number | null;
}

export const NO_COST: Cost = { bytes: null, threadMs: null, metric: null, delay: null };

/** Where in the load it is seen. */
export interface Evidence {
	/** Id of a request of the record. */
	request: string | null;
	selector: string | null;
	/** Time since the navigation, ms. */
	atMs: number | null;
}

export const NO_EVIDENCE: Evidence = { request: null, selector: null, atMs: null };

/** What a later load is held against: at most `most` of what the rule counts; 0 where it must be gone. */
export interface Limit {
	most: number;
	unit: 'ms' | 'bytes' | 'share' | 'times' | 'count' | 'unitless';
}

export interface Finding {
	rule: RuleId;
	resource: Resource;
	cost: Cost;
	evidence: Evidence;
	/** Bytes that computing found to be saved; null where nothing was computed. */
	saving: { bytes: number } | null;
	limit: Limit;
	/** What the words need. */
	values: Record<string, string | number>;
}

export interface RuleFacts {
	who: Mender;
	effort: Effort;
	/** Standard or publication that the rule rests on; null for common practice. */
	source: string | null;
}

const rule = (who: Mender, effort: Effort, source: string | null = null): RuleFacts => ({ who, effort, source });

/** Sources as the design names them. */
export const RULES: Readonly<Record<RuleId, RuleFacts>> = {
	'server-wait': rule('host', 'day', 'web.dev, Time to First Byte'),
	redirects: rule('developer', 'hour', 'RFC 9110, section 15.4'),
	'page-cache-miss': rule('host', 'hour', 'RFC 9211'),
	'text-plain-sent': rule('host', 'hour', 'RFC 9110, section 8.4'),
	'text-weakly-packed': rule('host', 'hour', 'RFC 7932'),
	'short-lifetime': rule('host', 'hour', 'RFC 9111'),
	'old-protocol': rule('host', 'day', 'RFC 9113'),
	'cookie-weight': rule('developer', 'hour', 'RFC 6265'),
	'style-in-the-way': rule('developer', 'day', 'HTML; CSS coverage'),
	'script-in-the-way': rule('developer', 'hour', 'HTML, the script element'),
	'style-chain': rule('developer', 'hour', 'CSS Cascade 5'),
	'largest-late-found': rule('developer', 'hour', 'web.dev, parts of LCP'),
	'largest-lazy': rule('developer', 'hour', 'HTML, lazy loading'),
	'largest-without-priority': rule('developer', 'hour', 'Fetch, request priority'),
	'largest-faded-in': rule('developer', 'hour'),
	'connection-late': rule('developer', 'hour', 'Resource Hints'),
	'text-hidden': rule('developer', 'hour', 'CSS Fonts 4, font-display'),
	'picture-too-large': rule('editor', 'hour', 'CSS Images; HTML, srcset'),
	'picture-old-format': rule('editor', 'hour', 'AVIF 1.1; WebP, RFC 9649'),
	'picture-poorly-packed': rule('editor', 'hour'),
	'picture-without-room': rule('developer', 'hour', 'HTML, aspect-ratio of images'),
	'picture-early': rule('developer', 'hour', 'HTML, lazy loading'),
	'animation-as-picture': rule('developer', 'hour'),
	'picture-same-twice': rule('developer', 'hour'),
	'media-preloaded': rule('developer', 'hour', 'HTML, preload attribute'),
	'font-format': rule('developer', 'hour', 'WOFF File Format 2.0'),
	'font-unused-signs': rule('developer', 'day', 'CSS Fonts 4, unicode-range'),
	'font-not-drawn': rule('developer', 'hour'),
	'font-many': rule('developer', 'hour', 'CSS Fonts 4'),
	'font-far': rule('developer', 'hour'),
	'icons-as-font': rule('developer', 'day'),
	'task-long': rule('developer', 'more', 'Long Tasks; Long Animation Frames'),
	'script-never-run': rule('developer', 'day', 'Script coverage'),
	'style-never-matched': rule('developer', 'day', 'CSS coverage'),
	'not-minified': rule('developer', 'hour'),
	'library-twice': rule('developer', 'day'),
	'for-old-browsers': rule('developer', 'day'),
	'style-recalculated': rule('developer', 'day', 'Long Animation Frames'),
	'inline-weight': rule('developer', 'day'),
	'writes-document': rule('developer', 'hour', 'HTML, document.write()'),
	'shift-by-font': rule('developer', 'hour', 'Layout Instability'),
	'shift-by-picture': rule('developer', 'hour', 'Layout Instability'),
	'shift-by-insertion': rule('developer', 'hour', 'Layout Instability'),
	'slot-empty': rule('third-party', 'hour'),
	'step-slow': rule('developer', 'more', 'Event Timing'),
	'press-lost': rule('developer', 'day'),
	'going-back-slow': rule('developer', 'day', 'HTML, back/forward cache'),
	'third-party-cost': rule('third-party', 'day'),
	'third-party-unconfirmed': rule('editor', 'hour'),
	'starts-unasked': rule('developer', 'day'),
	'works-late': rule('developer', 'day'),
	'broken-request': rule('developer', 'hour', 'RFC 9110, section 15'),
	'console-error': rule('developer', 'hour'),
	'large-page': rule('developer', 'more')
};
