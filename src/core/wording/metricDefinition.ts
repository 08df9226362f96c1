/** What each metric is, in a sentence of the analyst. */
import type { MetricId } from '../metrics/metric';

const DEFINITIONS: Record<MetricId, string> = {
	score: '0 to 100, from the metrics by a versioned recipe',
	lcp: 'When the largest image or text block was painted: the last candidate before the first input or the end of the load',
	cls: 'Largest session window of layout shifts without recent input; a window ends at a gap of 1 s or a length of 5 s',
	tbt: 'Sum over long tasks of the part beyond 50 ms, tasks clipped to the time from FCP until the page settled',
	wire: 'Headers and bodies of all responses as they crossed the wire',
	inp: 'The worst interaction, leaving out one per 50 interactions',
	ttfb: 'Until the first byte of the document arrived',
	fcp: 'When the first text or image was painted',
	start: 'First frame that differs from the blank page',
	si: 'Integral over time of the share of the page that is not yet painted, by colour-histogram distance to the last frame',
	vc: 'First frame from which visual progress stays at 99 % or more',
	dcl: 'The document was parsed and its deferred scripts had run',
	onload: 'The load event began',
	full: 'End of the last response before the network was quiet for 2 s after the load event',
	decoded: 'Bodies of all responses after decoding',
	requests: 'Requests that the page sent to the network',
	elements: 'Elements in the finished document',
	depth: 'Longest chain of nested elements',
	unusedJs: 'Script bytes that had not run when the page settled',
	unusedCss: 'Style bytes that matched nothing when the page settled',
	stepShown:
		'From an act of the steps (open, click, type, press, scroll) until what the next step awaits was there, over all of them',
	stepQuiet: 'From an act of the steps until the last request, long task or shift that it set off, over all of them'
};

export const metricDefinition = (id: MetricId): string => DEFINITIONS[id];
