/** The demonstration's clients as they stand before anybody has asked a question: invented, like all of it. */
import type { NewMarker } from '../rooms/field/markers';
import type { ClientInput } from '$core/clients/client';
import type { SiteInput } from '$core/clients/site';
import type { VisitorState } from '$core/load/journey/visitorState';
import type { LibraryComponent } from '$core/setups/component';
import { NO_RECOGNITION } from '$core/setups/recognition';

type ScenarioSite = Pick<SiteInput, 'host' | 'name' | 'role'> &
	Partial<SiteInput> & {
		/** Types of its pages by their path, in the words of the analyst. */
		types?: Record<string, string>;
		/** Paths of those that the work looks at. */
		chosen?: string[];
		/** Names of components of the library. */
		components?: [name: string, tier: string][];
		states?: VisitorState[];
	};

export interface ScenarioClient {
	client: Pick<ClientInput, 'name' | 'note'> & Partial<ClientInput>;
	isArchived?: boolean;
	sites: ScenarioSite[];
}

const FERRY_TYPES = {
	'/': 'home',
	'/timetable': 'timetable',
	'/route': 'article',
	'/booking': 'booking',
	'/contact': 'contact',
	'/news': 'listing'
};

export const CLIENTS: readonly ScenarioClient[] = [
	{
		client: {
			name: 'Skerry Line',
			note: 'Island ferries: timetables and bookings',
			people: [
				{ name: 'Ines Harrow', role: 'bookings', email: 'ines@skerry-line.test' },
				{ name: 'Tam Brindle', role: 'owner', email: '' }
			],
			targets: [{ metric: 'lcp', conditions: 'phone', value: 2000 }],
			mustSend: [{ name: 'Visit counting', pattern: '*stilewatch.test/hit*' }],
			growth: 0.02,
			hourly: 70
		},
		sites: [
			{
				host: 'skerry-line.test',
				name: 'Skerry Line',
				role: 'own',
				previewHost: 'preview.skerry-line.test',
				types: {
					...FERRY_TYPES,
					'/islands/inner-skerry': 'island',
					'/islands/outer-skerry': 'island',
					'/islands/gannet-rock': 'island',
					'/news/winter-boats': 'news',
					'/news/new-ramp': 'news',
					'/news/dogs': 'news',
					'/news/bicycle-day': 'news'
				},
				chosen: ['/', '/timetable', '/booking', '/route', '/islands/outer-skerry', '/contact'],
				components: [
					['Lathwork', 'studio'],
					['Stilewatch', 'paid']
				]
			},
			{
				host: 'with-chat.skerry-line.test',
				name: 'Skerry Line with the chat',
				role: 'bench',
				components: [
					['Lathwork', 'studio'],
					['Stilewatch', 'paid'],
					['Parlour Bell', 'paid']
				]
			},
			{
				host: 'members.skerry-line.test',
				name: 'Skerry Line with accounts',
				role: 'bench',
				components: [
					['Lathwork', 'studio'],
					['Stilewatch', 'paid'],
					['Larder', 'paid']
				],
				states: [
					{
						name: 'Signed in',
						url: 'https://members.skerry-line.test/account',
						cookies: [],
						steps: [
							{ type: 'Ines', into: '#account-name' },
							{ click: '#account-enter' },
							{ expect: { selector: '#account-hello' } }
						]
					}
				]
			},
			{ host: 'northsound-crossings.test', name: 'Northsound Crossings', role: 'competitor', types: FERRY_TYPES },
			{ host: 'puffin-ferries.test', name: 'Puffin Ferries', role: 'competitor', types: FERRY_TYPES }
		]
	},
	{
		client: {
			name: 'Pellow’s Seed House',
			note: 'A shop for heirloom vegetable seed',
			language: 'es',
			growth: 0.04,
			hourly: 60
		},
		sites: [
			{
				host: 'pellows-seed-house.test',
				name: 'Pellow’s Seed House',
				role: 'own',
				types: {
					'/': 'home',
					'/seed': 'listing',
					'/seed/bean': 'product',
					'/seed/tomato': 'product',
					'/seed/kale': 'product',
					'/seed/squash': 'product',
					'/seed/lettuce': 'product',
					'/seed/carrot': 'product',
					'/cart': 'cart',
					'/saving': 'article'
				},
				chosen: ['/', '/seed', '/seed/bean', '/cart', '/saving'],
				components: [
					['Patchboard', 'free'],
					['Stilewatch', 'paid']
				],
				states: [
					{
						name: 'Basket filled',
						url: 'https://pellows-seed-house.test/seed/bean',
						cookies: [],
						steps: [{ click: '[data-buy]' }, { expect: { selector: '.in-cart', text: '1 packet' } }]
					}
				]
			}
		]
	},
	{
		client: { name: 'Orrery Hall', note: 'A museum of clocks', growth: 0.03, hourly: 60 },
		sites: [
			{
				host: 'orrery-hall.test',
				name: 'Orrery Hall',
				role: 'own',
				components: [
					['Lathwork', 'studio'],
					['Stilewatch', 'free']
				]
			}
		]
	},
	{
		client: { name: 'Quillmere Digital', note: 'The agency’s own pages, looked after elsewhere now' },
		isArchived: true,
		sites: []
	}
];

const BLANK = { versions: [], prices: [], jobs: [], features: [], settings: [], note: '' };
const FREE = {
	tier: 'free',
	price: 0,
	per: 'month' as const,
	sites: 1,
	visits: null,
	perThousand: null,
	firstYearOff: 0,
	setupHours: 0
};

export const COMPONENTS: readonly LibraryComponent[] = [
	{
		...BLANK,
		kind: 'builder',
		name: 'Lathwork',
		prices: [{ ...FREE, tier: 'studio', price: 96, per: 'year', setupHours: 6 }],
		recognition: { ...NO_RECOGNITION, paths: ['/lathwork/'] }
	},
	{
		...BLANK,
		kind: 'builder',
		name: 'Patchboard',
		prices: [{ ...FREE, setupHours: 4 }],
		recognition: { ...NO_RECOGNITION, paths: ['/patchboard/'] }
	},
	{
		...BLANK,
		kind: 'plugin',
		name: 'Larder',
		jobs: ['page cache', 'script minifying', 'style minifying'],
		prices: [
			{ ...FREE, visits: 20_000, setupHours: 1 },
			{ ...FREE, tier: 'paid', price: 60, per: 'year', firstYearOff: 0.25, setupHours: 1 }
		],
		recognition: { ...NO_RECOGNITION, paths: ['/larder/'] }
	},
	{
		...BLANK,
		kind: 'plugin',
		name: 'Hushbox',
		jobs: ['script delay'],
		prices: [{ ...FREE, tier: 'paid', price: 6, setupHours: 2 }],
		recognition: { ...NO_RECOGNITION, markers: ['(function(){var gone=false,events='] }
	},
	{
		...BLANK,
		kind: 'plugin',
		name: 'Shrinkery',
		jobs: ['image squeezing', 'lazy loading'],
		prices: [
			{ ...FREE, visits: 5000, setupHours: 1 },
			{ ...FREE, tier: 'paid', price: 9, visits: 50_000, perThousand: 0.1, setupHours: 1 }
		],
		recognition: NO_RECOGNITION
	},
	{
		...BLANK,
		kind: 'third party',
		name: 'Parlour Bell',
		features: ['chat'],
		prices: [
			{ ...FREE, visits: 5000 },
			{ ...FREE, tier: 'paid', price: 29, visits: 100_000, perThousand: 0.4 }
		],
		recognition: { ...NO_RECOGNITION, hosts: ['parlour-bell.test'] }
	},
	{
		...BLANK,
		kind: 'third party',
		name: 'Stilewatch',
		features: ['visit counting'],
		prices: [
			{ ...FREE, visits: 5000 },
			{ ...FREE, tier: 'paid', price: 12, visits: 100_000, perThousand: 0.08 }
		],
		recognition: { ...NO_RECOGNITION, hosts: ['stilewatch.test'] }
	},
	{
		...BLANK,
		kind: 'third party',
		name: 'Hoarding Row',
		features: ['ads'],
		recognition: { ...NO_RECOGNITION, hosts: ['hoarding-row.test'] }
	}
];

/** The site whose visitors report, by the key that its pages carry in the simulated web. */
export const VISITED_HOST = 'skerry-line.test';
export const VISIT_KEY = 'demo-skerry-line';
export const VISIT_SETTINGS = {
	timings: [{ name: 'timetable-ready', good: 2500, poor: 4500, margin: 150 }],
	goals: ['booked'],
	timeZone: 'Europe/London',
	handOver: {
		call: 'stilewatch.note',
		nameField: 'event',
		valueField: 'amount',
		quietField: 'quiet',
		events: { lcp: 'speed-largest-paint', inp: 'speed-response', cls: 'speed-shift' }
	}
};

/** What the client's developers released lately, and when in the year that is written down. */
export const MARKERS: NewMarker[] = [
	{ day: '2026-09-14', path: '/', kind: 'release', words: 'Pictures of the home page made lighter' },
	{ day: '2026-10-19', path: '/timetable', kind: 'release', words: 'The timetable filters as one types' }
];
