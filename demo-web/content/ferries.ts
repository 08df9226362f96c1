/** Three ferry companies with the same page types: Skerry Line and its competitors. */
import { islandPages, newsPages, slug } from './news';
import { picture, type Look, type PageModel, type SiteModel } from './model';

interface Company {
	host: string;
	name: string;
	slogan: string;
	footer: string;
	look: Look;
	port: string;
	islands: [near: string, far: string, rock: string];
	ships: string[];
	heroWidth: number;
	adult: string;
	year: string;
}

/** Pictures of a company by what they show. */
const pictureOf =
	({ host }: Company) =>
	(what: string, alt: string, width = 900, height = 600) =>
		picture(`${host.split('.')[0]}-${what}`, alt, 'sea', width, height);

function sailingsOf({ port, ships, islands: [near, far, rock] }: Company): string[][] {
	return [
		[`${port} to ${near}`, '06:40', '07:25', ships[0]!, 'Daily'],
		[`${port} to ${near}`, '09:10', '09:55', ships[0]!, 'Daily'],
		[`${port} to ${near}`, '12:30', '13:15', ships[1]!, 'Daily'],
		[`${port} to ${near}`, '16:05', '16:50', ships[0]!, 'Monday to Saturday'],
		[`${port} to ${far}`, '07:15', '09:05', ships[2]!, 'Daily'],
		[`${port} to ${far}`, '13:40', '15:30', ships[2]!, 'Daily'],
		[`${near} to ${far}`, '10:20', '11:10', ships[1]!, 'Tuesday, Thursday, Saturday'],
		[`${near} to ${port}`, '08:00', '08:45', ships[0]!, 'Daily'],
		[`${near} to ${port}`, '17:20', '18:05', ships[0]!, 'Monday to Saturday'],
		[`${far} to ${port}`, '10:00', '11:50', ships[2]!, 'Daily'],
		[`${far} to ${port}`, '18:15', '20:05', ships[2]!, 'Friday, Sunday'],
		[`${rock} round trip`, '11:00', '14:30', ships[1]!, 'May to September']
	];
}

function homePage(company: Company): PageModel {
	const { slogan, port, ships, heroWidth, islands } = company;
	const [near, far, rock] = islands;
	const p = pictureOf(company);
	return {
		path: '/',
		type: 'home',
		title: 'Ferries to the islands',
		blocks: [
			{
				kind: 'hero',
				title: slogan,
				text: `${ships.length} ships, a dozen crossings a day, and a warm saloon in any weather.`,
				picture: p('crossing', `A ferry off ${near}`, heroWidth, Math.round(heroWidth * 0.45)),
				action: { text: 'Book a crossing', href: '/booking' }
			},
			{
				kind: 'text',
				text: `Walk on with a bicycle or bring the van: the ramp at ${port} is down half an hour before every sailing. Dogs travel free and are offered water, children are offered the wheelhouse when the sea allows it.`
			},
			{
				kind: 'cards',
				cards: [
					{
						title: near,
						text: 'Forty-five minutes, the lighthouse, and the best crab rolls on the coast.',
						picture: p('near', `${near} harbour`),
						href: '/route'
					},
					{
						title: far,
						text: 'Puffins from April, walking all year, and nobody in a hurry.',
						picture: p('far', `The cliffs of ${far}`),
						href: '/route'
					},
					{
						title: rock,
						text: 'A round trip under forty thousand wings.',
						picture: p('rock', rock),
						href: '/timetable'
					}
				]
			},
			{ kind: 'heading', level: 2, text: 'Before you sail' },
			{
				kind: 'text',
				text: 'Foot passengers board until five minutes before sailing, vehicles until twenty. If the wind is from the east and rising, look at the timetable once more on the day: we would rather be late than sorry.'
			},
			{ kind: 'button', link: { text: 'See the timetable', href: '/timetable' } }
		]
	};
}

function timetablePage(company: Company): PageModel {
	const { port, adult } = company;
	const p = pictureOf(company);
	return {
		path: '/timetable',
		type: 'timetable',
		title: 'Timetable',
		blocks: [
			{ kind: 'heading', level: 1, text: 'Timetable' },
			{ kind: 'notice', text: 'Sailings on Sunday evening may leave fifteen minutes late because of the tide.' },
			{ kind: 'text', text: `All crossings leave from the east pier at ${port}.` },
			{ kind: 'picture', picture: p('quay', `${port} in the morning`, 1200, 525) },
			{ kind: 'table', head: ['Route', 'Leaves', 'Arrives', 'Ship', 'Days'], rows: sailingsOf(company) },
			{ kind: 'heading', level: 2, text: 'Fares' },
			{ kind: 'text', text: `Adults ${adult}, children half, bicycles free. A car with driver is 62.00, each way.` }
		]
	};
}

function routePage(company: Company): PageModel {
	const { islands } = company;
	const [, far] = islands;
	const p = pictureOf(company);
	return {
		path: '/route',
		type: 'article',
		title: `A day on ${far}`,
		blocks: [
			{ kind: 'heading', level: 1, text: `A day on ${far}` },
			{ kind: 'picture', picture: p('path', `The path above the landing on ${far}`, 1200, 700) },
			{
				kind: 'text',
				text: `The early boat lands at five past nine, when the sheep still have the path to themselves. Turn left at the chapel, not right: right is shorter and has no view.`
			},
			{
				kind: 'text',
				text: 'By eleven the wind has usually made up its mind. If it is kind, go on to the north stacks, where the ledges are full from April to the end of July. If it is not, the tea room behind the post office opens at ten and closes when the cake is gone.'
			},
			{ kind: 'heading', level: 2, text: 'Getting back' },
			{
				kind: 'text',
				text: 'The last boat does not wait. It sounds twice, ten minutes before it leaves; from the stacks that is eleven minutes at a run.'
			},
			{ kind: 'button', link: { text: 'Book a crossing', href: '/booking' } },
			...islands.map((name) => ({
				kind: 'button' as const,
				link: { text: name, href: `/islands/${slug(name)}` }
			})),
			{ kind: 'button', link: { text: 'News', href: '/news' } }
		]
	};
}

function bookingPage(): PageModel {
	return {
		path: '/booking',
		type: 'booking',
		title: 'Book a crossing',
		blocks: [
			{ kind: 'heading', level: 1, text: 'Book a crossing' },
			{ kind: 'text', text: 'Tell us when and with whom. You pay on board, in coins or by card.' },
			{ kind: 'form', fields: ['Route', 'Date', 'Passengers', 'Name'], action: 'Ask for places' }
		]
	};
}

function contactPage(company: Company): PageModel {
	const { port } = company;
	return {
		path: '/contact',
		type: 'contact',
		title: 'Contact',
		blocks: [
			{ kind: 'heading', level: 1, text: 'Contact' },
			{
				kind: 'text',
				text: `The booking desk at ${port} answers from seven to nine. Letters reach us at ${port}, East Pier, and are read out at breakfast.`
			},
			{ kind: 'form', fields: ['Name', 'Message'], action: 'Send' }
		]
	};
}

function ferryCompany(company: Company): SiteModel {
	const { host, name, slogan, footer, look, islands, year } = company;
	return {
		host,
		name,
		slogan,
		look,
		footer: `${footer} Sailing since ${year}.`,
		pages: [
			...[homePage, timetablePage, routePage, bookingPage, contactPage].map((page) => page(company)),
			...islandPages(islands),
			...newsPages()
		],
		menu: [
			{ text: 'Home', href: '/' },
			{ text: 'Timetable', href: '/timetable' },
			{ text: islands[1], href: '/route' },
			{ text: 'Booking', href: '/booking' },
			{ text: 'Contact', href: '/contact' }
		]
	};
}

export const FERRIES: SiteModel[] = [
	ferryCompany({
		host: 'skerry-line.test',
		name: 'Skerry Line',
		slogan: 'The islands are closer than you think',
		footer: 'Skerry Line, Harrow Quay.',
		look: {
			palette: ['#9db8c4', '#54707a', '#123f52'],
			accent: '#c4501a',
			paper: '#f6f4ee',
			ink: '#12303d',
			titleFont: 'Harbour',
			bodyFont: 'Liberation Sans'
		},
		port: 'Harrow Quay',
		islands: ['Inner Skerry', 'Outer Skerry', 'Gannet Rock'],
		ships: ['Brindle', 'Marram', 'Thrift', 'Samphire'],
		heroWidth: 1600,
		adult: '14.50',
		year: '1921'
	}),
	ferryCompany({
		host: 'northsound-crossings.test',
		name: 'Northsound Crossings',
		slogan: 'North, three times a day',
		footer: 'Northsound Crossings, Pilot Street, Cold Haven.',
		look: {
			palette: ['#c8ccd2', '#5c6672', '#22262c'],
			accent: '#a8132b',
			paper: '#ffffff',
			ink: '#1c1f24',
			titleFont: 'Liberation Sans',
			bodyFont: 'Liberation Sans'
		},
		port: 'Cold Haven',
		islands: ['Stannay', 'Hild', 'The Anvil'],
		ships: ['Resolve', 'Northern Queen', 'Cormorant'],
		heroWidth: 2400,
		adult: '17.00',
		year: '1958'
	}),
	ferryCompany({
		host: 'puffin-ferries.test',
		name: 'Puffin Ferries',
		slogan: 'Small boats, big birds',
		footer: 'Puffin Ferries, the blue shed, Mallow Bay.',
		look: {
			palette: ['#ffe0b0', '#e58a5c', '#2d4a7a'],
			accent: '#d1481f',
			paper: '#fffaf2',
			ink: '#22304a',
			titleFont: 'Harbour',
			bodyFont: 'DejaVu Sans'
		},
		port: 'Mallow Bay',
		islands: ['Little Burra', 'Great Burra', 'Kettle Rock'],
		ships: ['Auk', 'Razorbill', 'Tystie'],
		heroWidth: 1200,
		adult: '12.00',
		year: '1994'
	})
];
