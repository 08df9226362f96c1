/** Beside speed and outside every score: accessibility by axe, and what search engines and browsers ask for. */
import * as v from 'valibot';
import { about } from '../record/described';

export const HEAD_CHECKS = [
	'title',
	'description',
	'language',
	'viewport',
	'headings',
	'robots',
	'canonical',
	'links',
	'https',
	'deprecated'
] as const;
export type HeadCheck = (typeof HEAD_CHECKS)[number];

export const SideChecks = v.object({
	axe: about(
		'Violations of WCAG 2.2 A and AA that axe-core finds on the settled page; null where it could not run.',
		v.nullable(
			v.array(
				v.object({
					id: v.string(),
					impact: v.nullable(v.string()),
					help: v.string(),
					/** Elements, at most ten. */
					selectors: v.array(v.string()),
					count: v.number()
				})
			)
		)
	),
	version: about('Of axe-core.', v.string()),
	head: v.array(
		v.object({
			check: v.picklist(HEAD_CHECKS),
			isGood: v.boolean(),
			value: about('What was found; empty for nothing.', v.string())
		})
	)
});
export type SideChecks = v.InferOutput<typeof SideChecks>;

/** What the page's own world answers: data of a foreign page. */
export const HeadFacts = v.object({
	title: v.string(),
	description: v.string(),
	language: v.string(),
	viewport: v.string(),
	/** Levels of its headings, in their order. */
	headings: v.array(v.number()),
	robots: v.string(),
	canonical: v.string(),
	/** Links that a screen reader cannot name. */
	namelessLinks: v.number(),
	isSecure: v.boolean(),
	/** Without its fragment. */
	address: v.string(),
	/** Calls that browsers are about to drop, as the browser names them; missing where it was not asked. */
	deprecated: v.optional(v.array(v.string()))
});
export type HeadFacts = v.InferOutput<typeof HeadFacts>;

/** Lengths that are shown whole in most lists of results (practice). */
const TITLE = { least: 10, most: 70 };
const DESCRIPTION = { least: 50, most: 170 };
const MOST_VALUE = 200;

export function headChecks(facts: HeadFacts): SideChecks['head'] {
	const within = (text: string, { least, most }: typeof TITLE) => text.length >= least && text.length <= most;
	const jump = facts.headings.findIndex((level, i) => level > (facts.headings[i - 1] ?? 0) + 1);
	const firsts = facts.headings.filter((level) => level === 1).length;
	type Told = [HeadCheck, boolean, string];
	const checks: Told[] = [
		['title', within(facts.title, TITLE), facts.title],
		['description', within(facts.description, DESCRIPTION), facts.description],
		['language', /^[a-z]{2,3}(-[A-Za-z0-9]+)*$/.test(facts.language), facts.language],
		// A page that forbids zooming shuts people out (WCAG 2.2, 1.4.4).
		[
			'viewport',
			/width=device-width/.test(facts.viewport) && !/user-scalable=(no|0)|maximum-scale=1(\.0)?\b/.test(facts.viewport),
			facts.viewport
		],
		['headings', firsts === 1 && jump < 0, facts.headings.join(' ')],
		['robots', !/noindex|none/i.test(facts.robots), facts.robots],
		['canonical', facts.canonical === '' || URL.canParse(facts.canonical), facts.canonical],
		['links', facts.namelessLinks === 0, facts.namelessLinks ? String(facts.namelessLinks) : ''],
		['https', facts.isSecure, facts.address],
		...(facts.deprecated
			? [['deprecated', facts.deprecated.length === 0, facts.deprecated.join(', ')] satisfies Told]
			: [])
	];
	return checks.map(([check, isGood, value]) => ({ check, isGood, value: value.slice(0, MOST_VALUE) }));
}

/** As `axe.run` answers it. */
export const AxeAnswer = v.object({
	violations: v.array(
		v.object({
			id: v.string(),
			impact: v.optional(v.nullable(v.string()), null),
			help: v.string(),
			nodes: v.array(v.object({ target: v.array(v.unknown()) }))
		})
	)
});

/** Elements that are kept of each. */
const MOST_ELEMENTS = 10;

export const axeViolations = ({ violations }: v.InferOutput<typeof AxeAnswer>): NonNullable<SideChecks['axe']> =>
	violations.map(({ id, impact, help, nodes }) => ({
		id,
		impact,
		help,
		count: nodes.length,
		selectors: nodes.slice(0, MOST_ELEMENTS).map(({ target }) => target.map(String).join(' ').slice(0, 300))
	}));
