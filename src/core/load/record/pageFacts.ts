/** The door for what comes out of the page's own world: parsed here, typed from here on. */
import * as v from 'valibot';

const time = v.pipe(v.number(), v.finite(), v.minValue(0));
const count = v.pipe(v.number(), v.finite());
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
	longFrames: v.array(
		v.object({
			startMs: time,
			durationMs: time,
			blockingMs: time,
			scripts: v.array(
				v.object({
					url: v.string(),
					invoker: v.string(),
					functionName: v.string(),
					startMs: count,
					durationMs: time,
					layoutMs: time
				})
			)
		})
	),
	interactions: v.array(time),
	marks: v.array(v.object({ name: v.string(), atMs: count, durationMs: v.nullable(count) })),
	shown: v.array(v.object({ selector: v.string(), atMs: v.nullable(time) })),
	renderBlocking: v.array(v.string()),
	page: v.object({
		title: v.string(),
		language: text,
		viewport: text,
		elements: count,
		depth: count,
		deepestPath: text,
		widestParent: v.nullable(v.object({ selector: v.string(), children: count })),
		images: v.array(
			v.object({
				url: v.string(),
				selector: v.string(),
				naturalWidth: count,
				naturalHeight: count,
				shownWidth: count,
				shownHeight: count,
				lazy: v.boolean(),
				roomReserved: v.boolean(),
				inView: v.boolean()
			})
		),
		fonts: v.array(v.object({ family: v.string(), weight: v.string(), status: v.string(), display: v.string() })),
		emptySlots: v.array(v.object({ selector: v.string(), box })),
		inline: v.array(v.object({ kind: v.picklist(['script', 'style']), start: v.string(), bytes: count })),
		text: v.string(),
		overlay: v.nullable(v.object({ selector: v.string(), box, text: v.string() })),
		signature: v.pipe(v.array(v.pipe(v.number(), v.safeInteger())), v.maxLength(128))
	})
});

export type PageFacts = v.InferOutput<typeof PageFacts>;

export function parsePageFacts(value: unknown): PageFacts {
	return v.parse(PageFacts, value);
}

const Since = v.object({
	timeOrigin: time,
	interactions: v.array(time),
	shifts: v.array(v.object({ atMs: time, value: v.number(), recentInput: v.boolean() })),
	tasks: v.array(v.object({ startMs: time, durationMs: time }))
});

/** What a document saw since a moment; times as epoch ms. */
export type Since = v.InferOutput<typeof Since>;

export function parseSince(value: unknown): Since {
	return v.parse(Since, value);
}
