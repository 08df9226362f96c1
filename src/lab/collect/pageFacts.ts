/** The door for what comes out of the page's own world: parsed here, typed from here on. */
import * as v from 'valibot';

const time = v.pipe(v.number(), v.finite(), v.minValue(0));
const box = v.object({ x: v.number(), y: v.number(), width: v.number(), height: v.number() });
const text = v.nullable(v.string());

const PageFacts = v.object({
	timeOrigin: time,
	responseStart: time,
	domContentLoaded: time,
	onload: time,
	fcp: v.nullable(time),
	lcp: v.nullable(
		v.object({ atMs: time, size: v.number(), selector: text, tag: text, url: text, box: v.nullable(box), text })
	),
	shifts: v.array(
		v.object({
			atMs: time,
			value: v.number(),
			recentInput: v.boolean(),
			elements: v.array(v.object({ selector: v.string(), from: box, to: box }))
		})
	),
	longTasks: v.array(v.object({ startMs: time, durationMs: time })),
	interactions: v.array(time),
	renderBlocking: v.array(v.string()),
	page: v.object({ title: v.string(), language: text, elements: v.number(), depth: v.number() })
});

export type PageFacts = v.InferOutput<typeof PageFacts>;

export function parsePageFacts(value: unknown): PageFacts {
	return v.parse(PageFacts, value);
}
