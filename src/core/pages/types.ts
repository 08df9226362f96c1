/** Page types, proposed from addresses and from the markup's likeness. A proposal is confirmed by the analyst. */
import { SAME_TEMPLATE, skeletonLikeness } from './skeleton';

export type ProposedBy = 'front-page' | 'address' | 'markup';

export interface TypeProposal {
	type: string;
	by: ProposedBy;
	pages: number[];
}

export interface Typable {
	id: number;
	url: string;
	/** Of its markup; null where it was not fetched. */
	skeleton: ReadonlySet<string> | null;
}

/** Words of a first path segment, in English and Spanish, and the type they mean (house). */
const WORDS: readonly (readonly [type: string, words: RegExp])[] = [
	['contact', /^(contact|contacts|contact-us|contacto|kontakt)$/],
	['about', /^(about|about-us|team|company|nosotros|quienes-somos)$/],
	['cart', /^(cart|basket|checkout|carrito|cesta)$/],
	['booking', /^(book|booking|bookings|tickets|reserve|reservation|reservas|entradas)$/],
	['product', /^(product|products|item|items|shop|store|producto|productos|tienda)$/],
	['article', /^(blog|news|article|articles|post|posts|story|stories|noticias|magazine|guides?)$/],
	['listing', /^(category|categories|tag|tags|collection|collections|archive|categoria|categorias)$/],
	['search', /^(search|buscar|find)$/],
	['legal', /^(privacy|terms|imprint|legal|cookies|privacidad|aviso-legal)$/]
];
/** A group of addresses smaller than this is no type of its own. */
const LEAST_OF_GROUP = 2;

function segmentsOf(url: string): string[] {
	const path = new URL(url).pathname.toLowerCase();
	return path.split('/').filter(Boolean);
}

/** "/fares/*" for a page below a folder, "/fares" for a page at the top; "/" for the front page. */
export const patternOf = (url: string): string => patternOfSegments(segmentsOf(url));

function patternOfSegments(segments: readonly string[]): string {
	if (segments.length === 0) return '/';
	return segments.length === 1 ? `/${segments[0]}` : `/${segments.slice(0, -1).join('/')}/*`;
}

/** The type that an address alone suggests; null when it says nothing. */
export const typeOfAddress = (url: string): { type: string; by: ProposedBy } | null => typeOfSegments(segmentsOf(url));

function typeOfSegments([first]: readonly string[]): { type: string; by: ProposedBy } | null {
	if (first === undefined) return { type: 'home', by: 'front-page' };
	const stem = first.replace(/\.\w{2,5}$/, '');
	const named = WORDS.find(([, words]) => words.test(stem));
	return named ? { type: named[0], by: 'address' } : null;
}

/**
 * A type for each page, where its address or its markup suggests one. Pages below the same folder are one type, named
 * by it; pages whose markup is alike are one type too, whatever their addresses. Pages that nothing says anything of
 * are in no proposal.
 */
export function proposeTypes(pages: readonly Typable[]): TypeProposal[] {
	const proposals = new Map<string, TypeProposal>();
	const add = (type: string, by: ProposedBy, id: number) => {
		const existing = proposals.get(type);
		if (existing) existing.pages.push(id);
		else proposals.set(type, { type, by, pages: [id] });
	};
	const read = pages.map((page) => ({ page, segments: segmentsOf(page.url) }));
	const folders = countBy(read, ({ segments }) => patternOfSegments(segments));
	const rest: Typable[] = [];
	for (const { page, segments } of read) {
		const proposed = typeOfSegments(segments);
		const pattern = patternOfSegments(segments);
		if (proposed) add(proposed.type, proposed.by, page.id);
		else if (pattern.endsWith('/*') && folders.get(pattern)! >= LEAST_OF_GROUP)
			add(nameOfFolder(pattern), 'address', page.id);
		else rest.push(page);
	}
	const byId = new Map(pages.map((page) => [page.id, page]));
	const leaders = [...proposals.values()].flatMap(({ type, pages: ids }) => {
		const leader = ids.map((id) => byId.get(id)!).find(({ skeleton }) => skeleton !== null);
		return leader && type !== 'home' ? [{ type, skeleton: leader.skeleton! }] : [];
	});
	for (const page of rest) {
		if (page.skeleton === null) continue;
		const like = leaders.find(({ skeleton }) => skeletonLikeness(skeleton, page.skeleton!) >= SAME_TEMPLATE);
		const type = like?.type ?? nameOfPage(page.url);
		if (!like) leaders.push({ type, skeleton: page.skeleton });
		add(type, 'markup', page.id);
	}
	return [...proposals.values()].sort((a, b) => b.pages.length - a.pages.length || (a.type < b.type ? -1 : 1));
}

const nameOfFolder = (pattern: string) => pattern.slice(1, -2).split('/').at(-1)!.replace(/[-_]+/g, ' ');
const nameOfPage = (url: string) =>
	segmentsOf(url)
		.at(-1)!
		.replace(/\.\w{2,5}$/, '')
		.replace(/[-_]+/g, ' ')
		.slice(0, 40);

function countBy<Item>(items: readonly Item[], key: (item: Item) => string): Map<string, number> {
	const counts = new Map<string, number>();
	for (const item of items) counts.set(key(item), (counts.get(key(item)) ?? 0) + 1);
	return counts;
}
