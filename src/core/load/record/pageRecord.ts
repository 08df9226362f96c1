/** What a record says of the page itself. */
import * as v from 'valibot';
import { about } from './described';

/** A rectangle in CSS pixels of the viewport. */
export const Box = v.object({ x: v.number(), y: v.number(), width: v.number(), height: v.number() });
export type Box = v.InferOutput<typeof Box>;

export const ImageFact = v.object({
	url: v.string(),
	selector: v.string(),
	naturalWidth: about('Pixels of the file; 0 while not loaded.', v.number()),
	naturalHeight: v.number(),
	shownWidth: about('CSS pixels on the page.', v.number()),
	shownHeight: v.number(),
	lazy: v.boolean(),
	roomReserved: about('Width and height, or a ratio, are set, so that nothing moves when it comes.', v.boolean()),
	inView: about('Within the viewport before any scrolling.', v.boolean())
});
export type ImageFact = v.InferOutput<typeof ImageFact>;

export const FontFact = v.object({
	family: v.string(),
	weight: v.string(),
	status: v.string(),
	display: about('The font-display in force.', v.string())
});
export type FontFact = v.InferOutput<typeof FontFact>;

/** Room that the page keeps and shows nothing in. */
export const EmptySlot = v.object({
	selector: v.string(),
	box: Box
});
export type EmptySlot = v.InferOutput<typeof EmptySlot>;

/** Code in the document: it has no address by which it could be known. */
export const InlineCode = v.object({
	kind: v.picklist(['script', 'style']),
	start: about('Its first 200 characters.', v.string()),
	bytes: v.number()
});
export type InlineCode = v.InferOutput<typeof InlineCode>;

export const PageRecord = v.object({
	title: v.string(),
	language: v.nullable(v.string()),
	viewport: about('Content of the viewport meta; null without one.', v.nullable(v.string())),
	elements: v.nullable(v.number()),
	depth: v.nullable(v.number()),
	deepestPath: about('Selector steps from the document to the deepest element.', v.nullable(v.string())),
	widestParent: v.nullable(
		v.object({
			selector: v.string(),
			children: v.number()
		})
	),
	images: v.array(ImageFact),
	fonts: v.array(FontFact),
	emptySlots: v.array(EmptySlot),
	inline: about('Scripts and styles in the document itself, in its order; at most 100.', v.array(InlineCode)),
	text: about('Visible words of the page, for telling whether two pages say the same.', v.string()),
	overlay: about(
		'A layer over the page that asks for consent or hides the rest; null without one.',
		v.nullable(
			v.object({
				selector: v.string(),
				box: Box,
				text: v.string()
			})
		)
	),
	consoleErrors: v.array(v.string()),
	signature: about(
		'Min-hashes of its markup without content: two pages share as much of it as of their numbers. Empty where unknown.',
		v.array(v.number())
	)
});
export type PageRecord = v.InferOutput<typeof PageRecord>;
