/** Starting points for the usual questions: a kind, words to begin with, and sensible rounds. */
import type { TrialKind } from '../types';

export interface Template {
	id: string;
	name: string;
	kind: TrialKind;
	question: string;
	hint: string;
	adaptive: boolean;
	rounds: number;
	settleWithinS: number | null;
	arms: { name: string; page?: string }[];
}

export const TEMPLATES: readonly Template[] = [
	{
		id: 'candidates',
		name: 'Which of these?',
		kind: 'side-by-side',
		question: 'Which of the candidates makes the page fastest?',
		adaptive: true,
		rounds: 24,
		settleWithinS: 60,
		hint: 'Two to eight pages, loaded in turn: builders, plugins, hosts, versions, competitors.',
		arms: [{ name: 'As it is' }, { name: 'Candidate' }]
	},
	{
		id: 'change',
		name: 'Did this change help?',
		kind: 'before-after',
		question: 'Did the change make the page faster?',
		adaptive: false,
		rounds: 12,
		settleWithinS: 120,
		hint: 'The same address before and after a change; the trial waits in between and remembers what was changed.',
		arms: [{ name: 'Before' }, { name: 'After' }]
	},
	{
		id: 'noise',
		name: 'How small a difference can be told?',
		kind: 'same-page',
		question: 'How far apart are two runs of the same page?',
		adaptive: false,
		rounds: 12,
		settleWithinS: null,
		hint: 'One page against itself: the noise floor of this lab, for these conditions.',
		arms: [{ name: 'First run' }]
	},
	{
		id: 'sweep',
		name: 'One change on many pages',
		kind: 'sweep',
		question: 'Does the change help on every type of page?',
		adaptive: false,
		rounds: 8,
		settleWithinS: 60,
		hint: 'Each page without and with the change: an answer for each, and one over all.',
		arms: [
			{ name: 'Without', page: 'Home' },
			{ name: 'With', page: 'Home' },
			{ name: 'Without', page: 'Article' },
			{ name: 'With', page: 'Article' }
		]
	}
];
