/** What came with a load, kept beside its record for a while: what savings are worked out from. */
import * as v from 'valibot';

/** Kept of one load at most; of one file at most. */
export const MOST_KEPT_BYTES = 30_000_000;
export const MOST_KEPT_FILE_BYTES = 4_000_000;
/** After so many days the bodies are dropped; what was worked out stays. */
export const BODIES_DAYS = 14;

export const KeptFile = v.object({
	/** Id of its request in the record. */
	request: v.string(),
	url: v.string(),
	/** Resource type as the record has it. */
	type: v.string(),
	media: v.string(),
	/** Characters of a script or a style sheet that were of no use: [from, to), in order. */
	unused: v.array(v.tuple([v.number(), v.number()]))
});
export type KeptFile = v.InferOutput<typeof KeptFile>;

/** What the settled page draws, as far as files could be smaller for it. */
export const Drawn = v.object({
	/** The signs of each stack of font families. */
	text: v.array(v.object({ families: v.array(v.string()), signs: v.string() })),
	/** Pictures of style, and the box that each fills, CSS pixels. */
	backgrounds: v.array(
		v.object({
			url: v.string(),
			selector: v.string(),
			width: v.number(),
			height: v.number(),
			fit: v.picklist(['cover', 'contain'])
		})
	)
});
export type Drawn = v.InferOutput<typeof Drawn>;

/** What is kept of a load; the files themselves lie beside it, in the same order. */
export const KeptBodies = v.object({ files: v.array(KeptFile), drawn: v.nullable(Drawn) });
export type KeptBodies = v.InferOutput<typeof KeptBodies>;
