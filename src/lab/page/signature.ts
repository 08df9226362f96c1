/**
 * A signature of the page's markup, by which two pages of one template are known. Its pieces are those that
 * `core/pages/skeleton` takes of a page's source; a test holds both against each other.
 */
const LENGTH = 128;
const MOST_PIECES = 2000;
const CONTENT = /^(script|style|noscript|template|svg)$/;
/** Classes that name a single thing: "post-1234", hashes. */
const PERSONAL = /\d{2,}|[0-9a-f]{6,}/i;

function elementName({ localName, classList }: Element): string {
	const classes = [...classList].filter((name) => !PERSONAL.test(name)).sort();
	return [localName, ...classes].join('.');
}

/** FNV-1a (Fowler, Noll, Vo), 32 bits. */
function hashOf(text: string): number {
	let hash = 0x811c9dc5;
	for (let i = 0; i < text.length; i++) hash = Math.imul(hash ^ text.charCodeAt(i), 0x01000193);
	return hash >>> 0;
}

/** The finalizer of MurmurHash3 (Appleby), 32 bits. */
function mixed(hash: number): number {
	let mix = Math.imul(hash ^ (hash >>> 16), 0x85ebca6b);
	mix = Math.imul(mix ^ (mix >>> 13), 0xc2b2ae35);
	return (mix ^ (mix >>> 16)) >>> 0;
}

/** Hashes of each element with its parent, as "ul.menu>li"; how often a piece comes does not count. */
function pieceHashes(): Set<number> {
	const pieces = new Set<number>();
	const open: [Element, string][] = document.documentElement ? [[document.documentElement, '']] : [];
	for (let next = open.pop(); next && pieces.size < MOST_PIECES; next = open.pop()) {
		const [element, parent] = next;
		if (CONTENT.test(element.localName)) continue;
		const own = elementName(element);
		pieces.add(hashOf(`${parent}>${own}`));
		for (const child of element.children) open.push([child, own]);
	}
	return pieces;
}

/** The least of the pieces under each of 128 hash functions (Broder 1997); empty for a page without elements. */
export function markupSignature(): number[] {
	const pieces = pieceHashes();
	return Array.from({ length: pieces.size ? LENGTH : 0 }, (_, i) => {
		const salt = mixed(i + 1);
		let least = 0xffffffff;
		for (const piece of pieces) least = Math.min(least, mixed(piece ^ salt));
		return least;
	});
}
