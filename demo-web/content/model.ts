/** A page as content alone: what it says, not how it is built. Every builder renders the same model. */
export interface Picture {
	name: string;
	alt: string;
	width: number;
	height: number;
	scene: 'sea' | 'field' | 'hall' | 'object';
}

export type Block =
	| { kind: 'hero'; title: string; text: string; picture: Picture; action: Link }
	| { kind: 'heading'; text: string; level: 1 | 2 }
	| { kind: 'text'; text: string }
	| { kind: 'notice'; text: string }
	| { kind: 'cards'; cards: { title: string; text: string; picture: Picture; href: string }[] }
	| { kind: 'table'; head: string[]; rows: string[][] }
	| { kind: 'gallery'; pictures: Picture[] }
	| { kind: 'picture'; picture: Picture }
	| { kind: 'buy'; name: string; price: string; id: string }
	| { kind: 'cart' }
	| { kind: 'form'; fields: string[]; action: string }
	| { kind: 'button'; link: Link };

export interface Link {
	text: string;
	href: string;
}

export interface PageModel {
	path: string;
	type:
		'home' | 'article' | 'product' | 'listing' | 'contact' | 'landing' | 'cart' | 'booking' | 'timetable' | 'gallery';
	title: string;
	blocks: Block[];
}

export interface SiteModel {
	host: string;
	name: string;
	slogan: string;
	look: Look;
	menu: Link[];
	pages: PageModel[];
	footer: string;
}

export interface Look {
	/** far, middle, near: pictures and surfaces are made of them. */
	palette: readonly [string, string, string];
	accent: string;
	paper: string;
	ink: string;
	titleFont: string;
	bodyFont: string;
}

export const picture = (name: string, alt: string, scene: Picture['scene'], width = 1200, height = 750): Picture => ({
	name,
	alt,
	scene,
	width,
	height
});

/** Every picture of a site, by name. */
export function picturesOf(site: SiteModel): Map<string, Picture> {
	const found = new Map<string, Picture>();
	for (const page of site.pages)
		for (const block of page.blocks) {
			const own =
				'picture' in block
					? [block.picture]
					: block.kind === 'cards'
						? block.cards.map((card) => card.picture)
						: block.kind === 'gallery'
							? block.pictures
							: [];
			for (const article of own) found.set(article.name, article);
		}
	return found;
}
