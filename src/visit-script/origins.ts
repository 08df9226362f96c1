import type { MetricWithAttribution } from 'web-vitals/attribution';
import { cut, round, type View } from './view';

/** The element that a metric came from, the file it waited for, and the parts of its time; null for other metrics. */
export function originOf({ name, attribution }: MetricWithAttribution): View['origins'][string] | null {
	if (name === 'LCP') {
		const { target, url, timeToFirstByte, resourceLoadDelay, resourceLoadDuration, elementRenderDelay } = attribution;
		const parts = [timeToFirstByte, resourceLoadDelay, resourceLoadDuration, elementRenderDelay].map(round);
		return { target: cut(target), ...(url ? { url: cut(url.split('?')[0]) } : {}), parts };
	}
	if (name === 'INP') {
		const { interactionTarget, inputDelay, processingDuration, presentationDelay } = attribution;
		return { target: cut(interactionTarget), parts: [inputDelay, processingDuration, presentationDelay].map(round) };
	}
	return name === 'CLS' ? { target: cut(attribution.largestShiftTarget) } : null;
}
