/** Pages of the ferry companies beyond those of the menu: islands and news, so that a site has templates to find. */
import type { PageModel } from './model';

const ISLAND_WORDS = [
	'The pier is older than the company. Bring boots: the path begins where the tarmac ends, and the gate sticks.',
	'There is one shop. It sells rope, eggs and postcards, and it closes when the boat has left.',
	'Landing depends on the swell. When we turn back, the fare is good for another day.'
];

/** A page for each island. */
export function islandPages(islands: readonly string[]): PageModel[] {
	return islands.map((name, i) => ({
		path: `/islands/${slug(name)}`,
		type: 'article',
		title: name,
		blocks: [
			{ kind: 'heading', level: 1, text: name },
			{ kind: 'text', text: ISLAND_WORDS[i % ISLAND_WORDS.length]! },
			{ kind: 'heading', level: 2, text: 'Getting there' },
			{ kind: 'text', text: `Sailings to ${name} are in the timetable, with the days on which they run.` },
			{ kind: 'button', link: { text: 'See the timetable', href: '/timetable' } }
		]
	}));
}

const NEWS: readonly (readonly [id: string, title: string, text: string])[] = [
	[
		'winter-boats',
		'Winter boats from October',
		'The evening sailing moves to a quarter past five, as every winter since the lamps were lit.'
	],
	['new-ramp', 'A new ramp', 'The ramp is wider by a van. The old one has gone to a farm, where it is a bridge.'],
	['dogs', 'Dogs still travel free', 'Somebody asked whether they would go on doing so. They will.'],
	['bicycle-day', 'Bicycle day', 'On the first Sunday of May whoever comes by bicycle pays half, and gets an apple.']
];

/** The list of news, and a page for each. */
export function newsPages(): PageModel[] {
	const articles = NEWS.map(([id, title, text]): PageModel => ({
		path: `/news/${id}`,
		type: 'article',
		title,
		blocks: [
			{ kind: 'heading', level: 1, text: title },
			{ kind: 'text', text },
			{ kind: 'button', link: { text: 'All news', href: '/news' } }
		]
	}));
	const links = NEWS.map(([id, title]) => ({ kind: 'button' as const, link: { text: title, href: `/news/${id}` } }));
	const list: PageModel = {
		path: '/news',
		type: 'listing',
		title: 'News',
		blocks: [{ kind: 'heading', level: 1, text: 'News' }, ...links]
	};
	return [list, ...articles];
}

export const slug = (name: string): string => name.toLowerCase().replace(/[^a-z]+/g, '-');
