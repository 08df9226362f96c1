/**
 * The analyst's words in a report: paragraphs and lists, bold and italic, and figures that are looked up. The shape is
 * that of ProseMirror's documents, which the editor reads and writes; nothing else of it is taken.
 */
import * as v from 'valibot';

const MOST_NODES = 400;
const MOST_TEXT = 5000;

const mark = v.object({ type: v.picklist(['bold', 'italic']) });
const words = v.object({
	type: v.literal('text'),
	text: v.pipe(v.string(), v.maxLength(MOST_TEXT, `A paragraph has at most ${MOST_TEXT} characters.`)),
	marks: v.optional(v.array(mark))
});
/** A figure that is filled in wherever the report is shown: nobody types it. */
const figure = v.object({
	type: v.literal('figure'),
	attrs: v.object({ ref: v.pipe(v.string(), v.maxLength(200)) })
});
const lineBreak = v.object({ type: v.literal('hardBreak') });
const inline = v.variant('type', [words, figure, lineBreak]);
const paragraph = v.object({ type: v.literal('paragraph'), content: v.optional(v.array(inline)) });
const item = v.object({ type: v.literal('listItem'), content: v.array(paragraph) });
const list = v.object({ type: v.literal('bulletList'), content: v.array(item) });

export const RichText = v.object(
	{
		type: v.literal('doc'),
		content: v.optional(
			v.pipe(v.array(v.variant('type', [paragraph, list])), v.maxLength(MOST_NODES, 'These words are too many.'))
		)
	},
	'The words are a document of paragraphs and lists.'
);
export type RichText = v.InferOutput<typeof RichText>;
export type Inline = v.InferOutput<typeof inline>;
export type Paragraph = v.InferOutput<typeof paragraph>;
export type TextBlock = NonNullable<RichText['content']>[number];

export const NO_WORDS: RichText = { type: 'doc', content: [] };

/** Plain paragraphs as a document; empty lines part them. */
export function richTextOf(text: string): RichText {
	const paragraphs = text
		.split(/\n{2,}/)
		.map((part) => part.trim())
		.filter(Boolean);
	return {
		type: 'doc',
		content: paragraphs.map((part) => ({ type: 'paragraph', content: [{ type: 'text', text: part }] }))
	};
}

function paragraphsOf({ content = [] }: RichText): Paragraph[] {
	return content.flatMap((block) =>
		block.type === 'paragraph' ? [block] : block.content.flatMap((entry) => entry.content)
	);
}

/** References of the figures that stand in it, in order. */
export function refsIn(text: RichText): string[] {
	return paragraphsOf(text).flatMap(({ content = [] }) =>
		content.flatMap((part) => (part.type === 'figure' ? [part.attrs.ref] : []))
	);
}

export function isEmptyText(text: RichText): boolean {
	return paragraphsOf(text).every(({ content = [] }) =>
		content.every((part) => part.type === 'hardBreak' || (part.type === 'text' && !part.text.trim()))
	);
}

/** What is shown of a figure: its words as of now, and what it is. */
export interface ShownFigure {
	ref: string;
	text: string;
	/** "Largest paint of “With chat” on the phone, middle of 12 loads": what a pointer gets. */
	about: string;
	/** The figure is not to be had (any more). */
	isMissing: boolean;
}

export type ShownInline =
	| { type: 'text'; text: string; isBold: boolean; isItalic: boolean }
	| ({ type: 'figure' } & ShownFigure)
	| { type: 'break' };

/** A paragraph, or the points of a list. */
export type ShownText = { type: 'paragraph'; content: ShownInline[] } | { type: 'list'; items: ShownInline[][] };

/** Words with their figures filled in. */
export function fillIn(text: RichText, figureOf: (ref: string) => ShownFigure): ShownText[] {
	const inlines = ({ content = [] }: Paragraph) => content.map((part) => shownInline(part, figureOf));
	return (text.content ?? []).map((block) =>
		block.type === 'paragraph'
			? { type: 'paragraph', content: inlines(block) }
			: { type: 'list', items: block.content.map((entry) => entry.content.flatMap(inlines)) }
	);
}

function shownInline(part: Inline, figureOf: (ref: string) => ShownFigure): ShownInline {
	switch (part.type) {
		case 'hardBreak':
			return { type: 'break' };
		case 'figure':
			return { type: 'figure', ...figureOf(part.attrs.ref) };
		case 'text': {
			const has = (type: 'bold' | 'italic') => part.marks?.some((candidate) => candidate.type === type) ?? false;
			return { type: 'text', text: part.text, isBold: has('bold'), isItalic: has('italic') };
		}
	}
}
