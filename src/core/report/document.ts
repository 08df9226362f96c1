/** A report as it is composed: its blocks in order, what each shows, and the analyst's words. */
import * as v from 'valibot';
import { isMetricId, type MetricId } from '../metrics/catalogue';
import { DEVICE_CLASSES, SCOPES } from '../field/reading';
import { NO_WORDS, RichText } from './richText';

export const REPORT_LANGUAGES = ['en', 'es'] as const;

const text = (name: string, most: number) =>
	v.pipe(v.string(`${name} is text.`), v.trim(), v.maxLength(most, `${name} has at most ${most} characters.`));
const number = (name: string) => v.pipe(v.number(`${name} is a number.`), v.finite(`${name} is a number.`));
const day = v.pipe(v.string('A day is text.'), v.regex(/^\d{4}-\d{2}-\d{2}$/, 'Write a day as 2026-11-27.'));
const id = v.pipe(v.number(), v.integer(), v.minValue(1));
const metric = v.custom<MetricId>(
	(value) => typeof value === 'string' && isMetricId(value),
	'There is no such metric.'
);

/** What every block has. */
const base = {
	/** Unique in its report. */
	id: v.pipe(text('The id', 40), v.nonEmpty()),
	/** Instead of the usual heading of its kind; empty keeps that. */
	heading: v.optional(text('The heading', 160), ''),
	/** Above what the block shows. */
	words: v.optional(RichText, NO_WORDS)
};

/** Blocks that show a part of one trial. */
export const TRIAL_BLOCKS = [
	'answer',
	'score',
	'board',
	'steps',
	'estimation',
	'frames',
	'why',
	'weight',
	'broke',
	'worth',
	'method',
	'appendix'
] as const;
export type TrialBlockKind = (typeof TRIAL_BLOCKS)[number];

const trialBlock = v.object({ ...base, kind: v.picklist(TRIAL_BLOCKS), trial: id });

/** How many hours a thing takes, in steps that can be told apart beforehand. */
export const EFFORTS = ['small', 'medium', 'large'] as const;

const recommendation = v.object({
	what: v.pipe(text('What to do', 300), v.nonEmpty('Say what is to be done.')),
	who: v.optional(text('Who does it', 120), ''),
	/** The figure that a trial gave for it; null is “not measured”. */
	gain: v.optional(v.nullable(text('The figure', 200)), null),
	effort: v.optional(v.picklist(EFFORTS), 'medium'),
	/** How to see that it is done. */
	check: v.optional(text('How to check it', 300), '')
});
export type Recommendation = v.InferOutput<typeof recommendation>;

/** A figure that some other program gave. */
export const OutsideFigure = v.object({
	program: v.pipe(text('The program', 120), v.nonEmpty('Say which program gave the figure.')),
	metric,
	value: number('The figure'),
	/** As it was told: “3.1 s”, “68”. */
	unit: v.picklist(['ms', 's', 'points', 'unitless', 'bytes', 'kB', 'MB', 'count']),
	device: v.picklist([...DEVICE_CLASSES, 'unknown']),
	/** Where and when, as far as known. */
	place: v.optional(text('The place', 120), ''),
	day: v.optional(v.union([v.literal(''), day], 'Write a day as 2026-11-27.'), ''),
	scope: v.picklist([...SCOPES, 'unknown']),
	/** Real visitors, or loads in a laboratory. */
	from: v.picklist(['lab', 'field', 'unknown']),
	loads: v.optional(v.nullable(v.pipe(number('The number of loads'), v.integer(), v.minValue(1))), null),
	/** Which of our metrics is what the program counts by that name; null where it does not say, or counts the same. */
	definition: v.optional(v.nullable(metric), null)
});
export type OutsideFigure = v.InferOutput<typeof OutsideFigure>;

const claim = v.object({
	said: v.pipe(text('The claim', 300), v.nonEmpty('Write the claim as it was said.')),
	before: number('The figure before'),
	after: number('The figure after'),
	unit: v.optional(text('The unit', 20), ''),
	/** The share that was claimed, in per cent: 160 for “160 % faster”; null where none was. */
	percent: v.optional(v.nullable(number('The claimed share')), null),
	/** The own measured figure beside it: a reference; null for none. */
	own: v.optional(v.nullable(text('The figure', 200)), null)
});
export type Claim = v.InferOutput<typeof claim>;

/** What is the matter with a line of the worksheet. */
export const LINE_STATES = ['todo', 'good', 'not-applicable', 'waiting', 'done'] as const;
export type LineState = (typeof LINE_STATES)[number];

const worksheetLine = v.object({
	page: id,
	device: v.picklist(DEVICE_CLASSES),
	state: v.picklist(LINE_STATES),
	note: v.optional(text('The note', 500), ''),
	owner: v.optional(text('The owner', 120), '')
});
export type WorksheetLine = v.InferOutput<typeof worksheetLine>;

export const Block = v.variant('kind', [
	trialBlock,
	v.object({ ...base, kind: v.literal('text') }),
	v.object({ ...base, kind: v.literal('field'), pages: v.pipe(v.array(id), v.maxLength(50)) }),
	v.object({
		...base,
		kind: v.literal('recommendations'),
		items: v.pipe(v.array(recommendation), v.maxLength(40, 'At most 40 recommendations.'))
	}),
	v.object({
		...base,
		kind: v.literal('outside'),
		trial: v.nullable(id),
		items: v.pipe(v.array(OutsideFigure), v.maxLength(20, 'At most 20 outside figures.'))
	}),
	v.object({
		...base,
		kind: v.literal('claims'),
		items: v.pipe(v.array(claim), v.maxLength(20, 'At most 20 claims.'))
	}),
	v.object({ ...base, kind: v.literal('worksheet'), lines: v.pipe(v.array(worksheetLine), v.maxLength(200)) }),
	v.object({ ...base, kind: v.literal('period'), from: day, until: day }),
	/** What moved on the pages of a watch; the ranks of a standing. */
	v.object({ ...base, kind: v.picklist(['watch', 'standing']), watch: id }),
	/** One load: its film, figures, weight and findings. */
	v.object({ ...base, kind: v.literal('load'), load: id }),
	/** Where each page stood; what stands beside every score. */
	v.object({ ...base, kind: v.picklist(['audit', 'side']), audit: id }),
	/** What is to be done at the report's client. */
	v.object({ ...base, kind: v.literal('worklist') }),
	v.object({ ...base, kind: v.literal('disclosure') })
]);
export type Block = v.InferOutput<typeof Block>;
export type BlockKind = Block['kind'];
export type BlockOf<Kind extends BlockKind> = Extract<Block, { kind: Kind }>;

export const MOST_BLOCKS = 80;

export const ReportDraft = v.object(
	{
		title: v.pipe(text('The title', 200), v.nonEmpty('Give the report a title.')),
		language: v.picklist(REPORT_LANGUAGES, 'The language is “en” or “es”.'),
		/** Whether the agency is paid for recommending something here; null is not said yet, and keeps it from freezing. */
		disclosure: v.object({ isPaid: v.nullable(v.boolean()), words: v.optional(text('The disclosure', 500), '') }),
		blocks: v.pipe(
			v.array(Block),
			v.maxLength(MOST_BLOCKS, `A report has at most ${MOST_BLOCKS} blocks.`),
			v.check((blocks) => new Set(blocks.map((block) => block.id)).size === blocks.length, 'Two blocks have one id.')
		)
	},
	'Send an object that describes the report.'
);
export type ReportDraft = v.InferOutput<typeof ReportDraft>;

export const isTrialBlock = (block: Block): block is v.InferOutput<typeof trialBlock> =>
	(TRIAL_BLOCKS as readonly string[]).includes(block.kind);

/** Trials that a report shows something of, in order. */
export function trialsIn(draft: Pick<ReportDraft, 'blocks'>): number[] {
	const ids = draft.blocks.flatMap((block) => (isTrialBlock(block) || block.kind === 'outside' ? [block.trial] : []));
	return [...new Set(ids.filter((trial): trial is number => trial !== null))];
}
