/** The trials of the demonstration: what is asked, of which pages of the simulated web. */
import type * as v from 'valibot';
import type { Step } from '$core/load/journey/steps';
import type { NewTrialInput } from '$core/trial/design/input';
import type { StepDecision } from '$core/trial/types';
import type { SiteState } from '../demo-web/state/switches';

export type Recording = { file: string; client: string } & Omit<
	v.InferInput<typeof NewTrialInput>,
	'conditions' | 'rounds' | 'warmups'
> & { rounds?: number; conditions?: string[]; warmups?: number; log?: LogStep[] };

/** A step of a log: what is switched on the site, and what became of it. */
export interface LogStep {
	words: string;
	host: string;
	change: Partial<SiteState>;
	takesBack?: boolean;
	file?: { name: string; text: string };
	decision?: { decision: StepDecision; note: string | null };
}

const LATHWORK = { kind: 'builder', name: 'Lathwork', version: '6.1', tier: 'free' } as const;

const PARLOUR_BELL = { kind: 'third party', name: 'Parlour Bell', tier: 'paid', monthlyCost: 29 } as const;

const BY_ISLAND = 'https://by-island.skerry-line.test/timetable';

const PELLOWS = 'pellows-seed-house.test';

export const RECORDINGS: readonly Recording[] = [
	{
		file: '01-chat-on-the-timetable',
		kind: 'side-by-side',
		client: 'Skerry Line',
		question: 'Did adding the chat make the timetable slower?',
		seed: 1921,
		arms: [
			{
				name: 'Without chat',
				url: 'https://skerry-line.test/timetable',
				baseline: true,
				setup: { components: [LATHWORK], features: { 'Visit counting': true, Chat: false } }
			},
			{
				name: 'With Parlour Bell',
				url: 'https://with-chat.skerry-line.test/timetable',
				baseline: false,
				setup: {
					components: [LATHWORK, PARLOUR_BELL],
					features: { 'Visit counting': true, Chat: true },
					effortHours: 1
				}
			}
		],
		intended: ['features', 'tiers', 'third-parties', 'picture', 'words'],
		steps: [{ expect: { selector: 'h1', text: 'Timetable' } }]
	},
	{
		file: '02-same-page-twice',
		kind: 'same-page',
		client: 'Skerry Line',
		question: 'How far apart are two runs of the same home page?',
		seed: 404,
		rounds: 10,
		arms: [
			{ name: 'First run', url: 'https://skerry-line.test/', baseline: true },
			{ name: 'Second run', url: 'https://skerry-line.test/', baseline: false }
		]
	},
	{
		file: '03-plugins-on-the-home-page',
		kind: 'side-by-side',
		client: 'Skerry Line',
		question: 'Which plugin makes the home page faster?',
		seed: 77,
		rounds: 10,
		settleWithinS: 60,
		arms: [
			{
				name: 'As it is',
				url: 'https://with-chat.skerry-line.test/',
				baseline: true,
				setup: { components: [LATHWORK, PARLOUR_BELL] }
			},
			{
				name: 'Larder',
				url: 'https://larder-chat.skerry-line.test/',
				baseline: false,
				setup: {
					components: [
						LATHWORK,
						PARLOUR_BELL,
						{
							kind: 'plugin',
							name: 'Larder',
							version: '3.2',
							tier: 'paid',
							monthlyCost: 12,
							jobs: ['page cache', 'script minifying'],
							settings: '{"pageCache":true,"level":"pages-and-files"}'
						}
					],
					effortHours: 3
				}
			},
			{
				name: 'Hushbox',
				url: 'https://hushed.skerry-line.test/',
				baseline: false,
				setup: {
					components: [
						LATHWORK,
						PARLOUR_BELL,
						{ kind: 'plugin', name: 'Hushbox', version: '1.9', tier: 'free', monthlyCost: 0, jobs: ['script delay'] }
					],
					effortHours: 1
				}
			}
		],
		intended: ['cache', 'tiers', 'third-parties', 'compression', 'text-compression'],
		steps: [{ expect: { selector: 'h1' } }]
	},
	{
		file: '04-chat-started-later',
		kind: 'side-by-side',
		client: 'Skerry Line',
		question: 'Is the timetable faster when the chat starts by a timer?',
		seed: 505,
		arms: [
			{
				name: 'Chat at once',
				url: 'https://with-chat.skerry-line.test/timetable',
				baseline: true,
				setup: { components: [LATHWORK, PARLOUR_BELL] }
			},
			{
				name: 'Chat by a timer',
				url: 'https://later-chat.skerry-line.test/timetable',
				baseline: false,
				setup: { components: [LATHWORK, PARLOUR_BELL], effortHours: 0.5 }
			}
		],
		intended: ['third-parties', 'picture', 'words'],
		steps: [{ expect: { selector: 'h1', text: 'Timetable' } }]
	},
	{
		file: '05-builders-on-a-notice',
		kind: 'side-by-side',
		aim: 'best',
		client: 'Orrery Hall',
		question: 'Which builder should the notice page be made with?',
		seed: 1510,
		rounds: 12,
		arms: [
			builder('Lathwork', { version: '6.1', tier: 'paid', monthlyCost: 8 }),
			builder('Patchboard', { version: '2.4', tier: 'free', monthlyCost: 0 }),
			builder('Mortise', { version: '11.0', tier: 'paid', monthlyCost: 19 })
		],
		intended: ['third-parties', 'picture', 'tiers', 'fonts'],
		steps: [{ expect: { selector: 'h1' } }]
	},
	{
		file: '06-steps-on-the-home-page',
		kind: 'before-after',
		client: 'Pellow’s Seed House',
		question: 'Which changes make the home page faster?',
		seed: 2206,
		rounds: 6,
		plannedSteps: 4,
		conditions: ['phone'],
		settleWithinS: 60,
		lateLoads: false,
		referenceUrl: 'https://orrery-hall.test/exhibit',
		arms: [{ name: 'As it was', url: `https://${PELLOWS}/` }],
		steps: [{ click: '.menu-button' }, { expect: { selector: '#menu.open' } }],
		log: [
			{
				words: 'Larder switched on',
				host: PELLOWS,
				change: { larder: 'pages' },
				file: { name: 'larder.json', text: '{"pageCache":true,"joinScripts":false}' },
				decision: { decision: 'kept', note: null }
			},
			{
				words: 'Larder joins all scripts',
				host: PELLOWS,
				change: { larder: 'pages-and-files', larderJoins: true },
				file: { name: 'larder.json', text: '{"pageCache":true,"joinScripts":true}' },
				decision: { decision: 'taken-back', note: 'The menu no longer opens.' }
			},
			{
				words: 'Joining switched off again',
				host: PELLOWS,
				change: { larder: 'pages', larderJoins: false },
				takesBack: true,
				decision: { decision: 'kept', note: null }
			},
			{
				words: 'Pictures re-encoded',
				host: PELLOWS,
				change: { shrinkery: 'format' },
				decision: { decision: 'kept', note: null }
			}
		]
	},
	{
		file: '07-click-against-reload',
		kind: 'side-by-side',
		client: 'Skerry Line',
		question: 'Is choosing an island by a press faster than loading its page anew?',
		seed: 1707,
		rounds: 10,
		primary: ['stepShown', 'stepQuiet', 'inp'],
		arms: [
			{
				name: 'Whole page again',
				url: BY_ISLAND,
				baseline: true,
				steps: islandBy({ open: '/timetable?island=outer' })
			},
			{ name: 'A press', url: BY_ISLAND, baseline: false, steps: islandBy({ click: '[data-sailings=outer]' }) }
		]
	},
	{
		file: '08-late-pictures-on-the-shop',
		kind: 'sweep',
		client: 'Pellow’s Seed House',
		question: 'Do late pictures make the pages of the shop faster?',
		seed: 808,
		rounds: 8,
		conditions: ['phone'],
		lateLoads: false,
		arms: [
			...onPage('Home', '/', 'cut-pictures', 'Pictures cut to size'),
			...onPage('All seed', '/seed'),
			...onPage('Bean', '/seed/bean'),
			...onPage('Tomato', '/seed/tomato'),
			...onPage('Squash', '/seed/squash'),
			...onPage('Kale', '/seed/kale'),
			...onPage('Saving seed', '/saving'),
			...onPage('Cart', '/cart')
		],
		intended: ['picture']
	}
];

/** The sailings to one island, and what brings them. */
function islandBy(first: Step): Step[] {
	return [first, { expect: { selector: '#sailings[data-island="outer"]' } }];
}

/** A page of the shop as it is, and as a host with other pictures serves it. */
function onPage(page: string, path: string, host = 'late-pictures', name = 'Pictures late') {
	return [
		{ name: 'As it is', page, url: `https://${PELLOWS}${path}`, baseline: true },
		{ name, page, url: `https://${host}.${PELLOWS}${path}`, baseline: false }
	];
}

/** The same notice on the bench of a builder. */
function builder(name: string, about: { version: string; tier: 'free' | 'paid'; monthlyCost: number }) {
	return {
		name,
		url: `https://bench.${name.toLowerCase()}.test/fuller`,
		setup: { components: [{ kind: 'builder' as const, name, ...about }] }
	};
}
