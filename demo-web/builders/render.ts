/** From a page model to HTML in the manner of a builder. */
import type { Block, Link, PageModel, Picture, SiteModel } from '../content/model';

export interface Asset {
	path: string;
	type: string;
	body: string | Buffer;
}

export interface Builder {
	name: string;
	/** Style sheets and scripts in the order of loading; nothing of the platform. */
	styles: Asset[];
	scripts: Asset[];
	/** Other files that the style sheets ask for. */
	files: Asset[];
	/** Extra head markup, after the styles. */
	head: string;
	/** Nesting around a section, a column and an element. */
	section(inner: string, index: number): string;
	element(inner: string, kind: string, index: number): string;
	/** Whether images carry their dimensions. */
	dimensions: boolean;
}

export type ImageTag = (picture: Picture, role: 'hero' | 'card' | 'wide' | 'gallery', dimensions: boolean) => string;

export function escapeHtml(text: string): string {
	return text.replace(/&/g, '&amp;').replace(/</g, '&lt;').replace(/"/g, '&quot;');
}

const button = ({ text, href }: Link) => `<a class="button" href="${href}">${escapeHtml(text)}</a>`;
const field = (name: string, i: number) =>
	`<label for="f${i}">${escapeHtml(name)}</label><input id="f${i}" name="${name.toLowerCase()}" autocomplete="off">`;

function blockHtml(block: Block, image: ImageTag, dimensions: boolean): string {
	switch (block.kind) {
		case 'hero':
			return `<div class="hero">${image(block.picture, 'hero', dimensions)}<div class="hero-words"><h1>${escapeHtml(block.title)}</h1><p>${escapeHtml(block.text)}</p>${button(block.action)}</div></div>`;
		case 'heading':
			return `<h${block.level}>${escapeHtml(block.text)}</h${block.level}>`;
		case 'text':
			return `<p>${escapeHtml(block.text)}</p>`;
		case 'notice':
			return `<p class="notice">${escapeHtml(block.text)}</p>`;
		case 'picture':
			return image(block.picture, 'wide', dimensions);
		case 'cards':
			return `<div class="cards">${block.cards.map((card) => `<a class="card" href="${card.href}">${image(card.picture, 'card', dimensions)}<h2>${escapeHtml(card.title)}</h2><p>${escapeHtml(card.text)}</p></a>`).join('')}</div>`;
		case 'gallery':
			return `<div class="gallery">${block.pictures.map((picture) => image(picture, 'gallery', dimensions)).join('')}</div>`;
		case 'table':
			return `<div class="wide"><table><thead><tr>${block.head.map((cell) => `<th>${escapeHtml(cell)}</th>`).join('')}</tr></thead><tbody>${block.rows.map((row) => `<tr>${row.map((cell) => `<td>${escapeHtml(cell)}</td>`).join('')}</tr>`).join('')}</tbody></table></div>`;
		case 'buy':
			return `<p class="price">${block.price}</p><button class="button" data-buy="${block.id}" data-name="${escapeHtml(block.name)}" data-price="${block.price}">Add to cart</button><p class="in-cart" aria-live="polite"></p>`;
		case 'cart':
			return `<div data-cart><p>Your cart is empty.</p></div>`;
		case 'form':
			return `<form action="#" data-form>${block.fields.map(field).join('')}<button class="button">${escapeHtml(block.action)}</button><p aria-live="polite"></p></form>`;
		case 'button':
			return `<p>${button(block.link)}</p>`;
	}
}

export interface Extras {
	/** Markup of plugins and third parties at their places. */
	middle: string;
	end: string;
}

/** The builder's body of a page. */
export function bodyHtml(
	site: SiteModel,
	{ page, builder, image, extras }: { page: PageModel; builder: Builder; image: ImageTag; extras: Extras }
): string {
	const sections = page.blocks.map((block, i) =>
		builder.section(builder.element(blockHtml(block, image, builder.dimensions), block.kind, i), i)
	);
	const cut = Math.min(2, sections.length);
	const menu = site.menu
		.map(
			(link) =>
				`<a href="${link.href}"${link.href === page.path ? ' aria-current="page"' : ''}>${escapeHtml(link.text)}</a>`
		)
		.join('');
	return `<header class="site-head"><a class="name" href="/">${escapeHtml(site.name)}</a><button class="menu-button" aria-expanded="false" aria-controls="menu">Menu</button><nav id="menu">${menu}</nav></header>
<main>${sections.slice(0, cut).join('\n')}
${extras.middle}${sections.slice(cut).join('\n')}</main>
<footer>${escapeHtml(site.footer)}</footer>${extras.end}`;
}
