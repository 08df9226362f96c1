/** What can be done on a page, as the lab found it: elements to pick from, and ready checks that it tried. */
import * as v from 'valibot';
import { about } from '../record/described';
import { Steps, type Step } from './steps';

export const READY_KINDS = ['menu', 'search', 'form', 'basket', 'video', 'language'] as const;
export type ReadyKind = (typeof READY_KINDS)[number];

/** So many checks are tried on one page, each in a tab of its own (house). */
export const MOST_READY = 8;
/** Longest time for one of them beside what its steps wait, ms (house). */
export const READY_CAP_MS = 12_000;

/** A check that the markup suggests, before anybody tried it. */
export interface ReadyProposal {
	kind: ReadyKind;
	/** What a person would call the control: its words or its label. */
	label: string;
	steps: Step[];
	/** Elements of which one must change its words: which one, the try tells. */
	watches?: string[];
}

const box = v.object({ x: v.number(), y: v.number(), width: v.number(), height: v.number() });

export const SurveyRecord = v.object({
	elements: about(
		'What is seen of the page and could be pressed, filled or expected, from the top.',
		v.array(
			v.object({
				selector: v.string(),
				matches: about('How many elements the selector names.', v.number()),
				label: v.string(),
				kind: about('What it is for: a tag name, or its role.', v.string()),
				box: about('CSS pixels from the top left of the document.', box)
			})
		)
	),
	checks: v.array(
		v.object({
			kind: v.picklist(READY_KINDS),
			label: v.string(),
			steps: Steps,
			status: about('Whether it passed when it was tried.', v.picklist(['ok', 'refused'])),
			message: about('Why it was refused; null for one that passed.', v.nullable(v.string())),
			hasPicture: v.boolean()
		})
	),
	height: about('Of the document’s part that the picture shows, CSS pixels.', v.number())
});
export type SurveyRecord = v.InferOutput<typeof SurveyRecord>;

const text = v.pipe(v.string(), v.maxLength(2000));
/** What the page's own world answers: data of a foreign page. */
const PageSurvey = v.object({
	height: v.number(),
	elements: v.array(v.object({ selector: text, matches: v.number(), label: text, kind: text, box })),
	proposals: v.array(
		v.object({
			kind: v.picklist(READY_KINDS),
			label: text,
			steps: Steps,
			watches: v.optional(v.array(text))
		})
	)
});

/** @throws Error for an answer that is none */
export function parsePageSurvey(
	answer: unknown
): { proposals: ReadyProposal[] } & Pick<SurveyRecord, 'elements' | 'height'> {
	const { proposals, ...rest } = v.parse(PageSurvey, answer);
	return { ...rest, proposals: proposals.map(({ steps, ...proposal }) => ({ ...proposal, steps: steps as Step[] })) };
}
