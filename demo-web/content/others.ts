/** Pellow's Seed House, Orrery Hall, and the bench pages of the builders. */
import { BUILDERS } from '../state/switches';
import { picture, type PageModel, type SiteModel } from './model';

const SEEDS: [id: string, name: string, price: string, text: string][] = [
	[
		'bean',
		'Widow Carrow’s Bean',
		'3.20',
		'Climbs to two metres, crops until the frost, and keeps its colour in the pot.'
	],
	['kale', 'Black Tor Kale', '2.80', 'Sweet after the first cold night. Sown in May, eaten until March.'],
	['tomato', 'Ferrier’s Striped Tomato', '3.60', 'Thin skin, few seeds, and stripes that the children count.'],
	['squash', 'Lanternmaker Squash', '3.90', 'Keeps until Easter on a dry shelf. Curing improves it.'],
	['lettuce', 'Old Rectory Lettuce', '2.40', 'Stands through a dry week without bolting.'],
	['carrot', 'Long Fallow Carrot', '2.60', 'For deep, stoneless soil and patient people.']
];
const seedPicture = (id: string, name: string) => picture(`seed-${id}`, name, 'field', 900, 600);

const PELLOWS: SiteModel = {
	host: 'pellows-seed-house.test',
	name: 'Pellow’s Seed House',
	slogan: 'Seed worth saving',
	look: {
		palette: ['#dfe8c9', '#8aa04f', '#3c5a23'],
		accent: '#9c3b1b',
		paper: '#fbf8ee',
		ink: '#2a3018',
		titleFont: 'Harbour',
		bodyFont: 'Liberation Sans'
	},
	menu: [
		{ text: 'Home', href: '/' },
		{ text: 'All seed', href: '/seed' },
		{ text: 'Saving seed', href: '/saving' },
		{ text: 'Cart', href: '/cart' }
	],
	footer: 'Pellow’s Seed House, the walled garden, Tolcarne.',
	pages: [
		{
			path: '/',
			type: 'home',
			title: 'Heirloom vegetable seed',
			blocks: [
				{
					kind: 'hero',
					title: 'Seed worth saving',
					text: 'Two hundred old kinds of vegetable, grown and cleaned by hand in a walled garden.',
					picture: picture('garden', 'Rows of kale in the walled garden', 'field', 1800, 800),
					action: { text: 'See all seed', href: '/seed' }
				},
				{
					kind: 'cards',
					cards: SEEDS.slice(0, 3).map(([id, title, , text]) => ({
						title,
						text,
						picture: seedPicture(id, title),
						href: `/seed/${id}`
					}))
				},
				{ kind: 'heading', level: 2, text: 'This week in the garden' },
				{
					kind: 'text',
					text: 'The beans are in their second flower and the squash has reached the gate. Order now what you sow in autumn: we send every Tuesday and Friday, in paper, with a note on what to do first.'
				}
			]
		},
		{
			path: '/seed',
			type: 'listing',
			title: 'All seed',
			blocks: [
				{ kind: 'heading', level: 1, text: 'All seed' },
				{
					kind: 'cards',
					cards: SEEDS.map(([id, title, price, text]) => ({
						title: `${title}, ${price}`,
						text,
						picture: seedPicture(id, title),
						href: `/seed/${id}`
					}))
				}
			]
		},
		...SEEDS.map(([id, title, price, text]): PageModel => ({
			path: `/seed/${id}`,
			type: 'product',
			title,
			blocks: [
				{ kind: 'heading', level: 1, text: title },
				{ kind: 'picture', picture: seedPicture(id, title) },
				{ kind: 'text', text },
				{ kind: 'buy', name: title, price, id },
				{ kind: 'text', text: 'About forty seeds in a paper packet, tested for germination this winter.' }
			]
		})),
		{
			path: '/cart',
			type: 'cart',
			title: 'Cart',
			blocks: [
				{ kind: 'heading', level: 1, text: 'Cart' },
				{ kind: 'cart' },
				{ kind: 'form', fields: ['Name', 'Address'], action: 'Order' }
			]
		},
		{
			path: '/saving',
			type: 'article',
			title: 'How to save seed',
			blocks: [
				{ kind: 'heading', level: 1, text: 'How to save seed' },
				{ kind: 'picture', picture: picture('drying', 'Bean pods drying under the roof', 'field', 1200, 700) },
				{
					kind: 'text',
					text: 'Leave the best plant alone: the one you most want to eat is the one to keep. Mark it with wool in June, or you will forget and pick it in August.'
				},
				{
					kind: 'text',
					text: 'Pods are ready when they rattle. Dry them under a roof for three weeks, shell them on a wet day, and write the year on the envelope before you do anything else.'
				}
			]
		}
	]
};

const ROOM_NAMES = ['The Long Case Room', 'Watches and Keys', 'The Turret Movement', 'Sea Time', 'The Orrery'];
const ORRERY: SiteModel = {
	host: 'orrery-hall.test',
	name: 'Orrery Hall',
	slogan: 'Four hundred clocks, no two in agreement',
	look: {
		palette: ['#e6d7b8', '#a07a3c', '#3b2a1c'],
		accent: '#7a1f2b',
		paper: '#f7f1e4',
		ink: '#2b2118',
		titleFont: 'Harbour',
		bodyFont: 'DejaVu Serif'
	},
	menu: [
		{ text: 'Home', href: '/' },
		{ text: 'The Orrery', href: '/exhibit' },
		{ text: 'A night with the clocks', href: '/night' },
		{ text: 'Tickets', href: '/tickets' }
	],
	footer: 'Orrery Hall, Meridian Lane. Closed when the clocks change.',
	pages: [
		{
			path: '/',
			type: 'home',
			title: 'A museum of clocks',
			blocks: [
				{
					kind: 'hero',
					title: 'Four hundred clocks, no two in agreement',
					text: 'Come at noon and hear them argue.',
					picture: picture('hall', 'The great hall at noon', 'hall', 1800, 800),
					action: { text: 'Buy tickets', href: '/tickets' }
				},
				{
					kind: 'cards',
					cards: ROOM_NAMES.slice(0, 3).map((title, i) => ({
						title,
						text: [
							'Tall, slow and mostly right.',
							'Small enough to lose, loud enough to find.',
							'Two tons, one second.'
						][i]!,
						picture: picture(`room-${i}`, title, 'object', 900, 600),
						href: '/exhibit'
					}))
				},
				{
					kind: 'text',
					text: 'Open every day from ten to five, by whichever clock you choose. The tea room keeps its own time and is always open.'
				}
			]
		},
		{
			path: '/exhibit',
			type: 'product',
			title: 'The Orrery',
			blocks: [
				{ kind: 'heading', level: 1, text: 'The Orrery' },
				{ kind: 'picture', picture: picture('orrery', 'The orrery, wound', 'object', 1400, 900) },
				{
					kind: 'text',
					text: 'Six planets, eleven moons and a brass sun the size of a melon, geared to within a minute a year. It was built for a bishop who did not believe in it, and has been wound every Saturday since.'
				},
				{ kind: 'text', text: 'It runs for nine minutes at a quarter past each hour. Please do not touch Saturn.' }
			]
		},
		{
			path: '/night',
			type: 'gallery',
			title: 'A night with the clocks',
			blocks: [
				{ kind: 'heading', level: 1, text: 'A night with the clocks' },
				{
					kind: 'text',
					text: 'Once a year the hall stays open until the last visitor leaves or the last clock stops. These are pictures from the night, taken by candle and without a tripod.'
				},
				{
					kind: 'gallery',
					pictures: Array.from({ length: 14 }, (_, i) =>
						picture(
							`night-${i}`,
							`${ROOM_NAMES[i % 5]} at ${20 + (i % 4)}:${String((i * 13) % 60).padStart(2, '0')}`,
							i % 3 ? 'object' : 'hall',
							1000,
							700
						)
					)
				}
			]
		},
		{
			path: '/tickets',
			type: 'booking',
			title: 'Tickets',
			blocks: [
				{ kind: 'heading', level: 1, text: 'Tickets' },
				{ kind: 'text', text: 'Adults 11.00, children 5.00, clockmakers free.' },
				{ kind: 'form', fields: ['Day', 'Visitors', 'Name'], action: 'Reserve' }
			]
		}
	]
};

const BENCH_PAGES: SiteModel['pages'] = [
	{
		path: '/',
		type: 'landing',
		title: 'Minimal page',
		blocks: [
			{ kind: 'heading', level: 1, text: 'One heading' },
			{ kind: 'button', link: { text: 'One button', href: '/fuller' } }
		]
	},
	{
		path: '/fuller',
		type: 'landing',
		title: 'Fuller page',
		blocks: [
			{
				kind: 'hero',
				title: 'A fuller page',
				text: 'The parts that most pages have, once each.',
				picture: picture('bench-hero', 'A sea with nothing on it', 'sea', 1600, 700),
				action: { text: 'Back', href: '/' }
			},
			{
				kind: 'cards',
				cards: ['First', 'Second', 'Third'].map((title, i) => ({
					title,
					text: 'A card with a picture and a line of text.',
					picture: picture(`bench-${i}`, title, 'hall', 800, 530),
					href: '/'
				}))
			},
			{
				kind: 'table',
				head: ['Kind', 'Count'],
				rows: [
					['Rows', '3'],
					['Columns', '2'],
					['Surprises', '0']
				]
			},
			{ kind: 'form', fields: ['Name'], action: 'Send' }
		]
	}
];

const benchSite = (builder: string): SiteModel => ({
	host: `bench.${builder}.test`,
	name: `${builder[0]!.toUpperCase()}${builder.slice(1)} bench`,
	slogan: 'A page to weigh builders by',
	look: {
		palette: ['#dde3e6', '#8a99a0', '#33444c'],
		accent: '#33444c',
		paper: '#ffffff',
		ink: '#1e2629',
		titleFont: 'Liberation Sans',
		bodyFont: 'Liberation Sans'
	},
	menu: [
		{ text: 'Minimal', href: '/' },
		{ text: 'Fuller', href: '/fuller' }
	],
	footer: 'A scratch install.',
	pages: BENCH_PAGES
});

export const OTHERS: SiteModel[] = [PELLOWS, ORRERY, ...BUILDERS.map(benchSite)];
