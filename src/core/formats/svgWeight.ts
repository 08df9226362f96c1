/** How much drawing an SVG asks for: parts that repeat parts can make a small file endless. */
import { SaxesParser } from 'saxes';

interface Part {
	/** Elements inside it, itself among them. */
	elements: number;
	/** Ids of what it repeats or is painted with. */
	refers: string[];
}

const ROOT = '';
const REFERENCE = /#([^\s"')]+)/g;

/**
 * Elements that are drawn once every reference (`use`, patterns, masks, markers, gradients) is replaced by what it
 * names.
 * @returns Infinity for references in a circle
 * @throws Error for text that is no XML
 */
export function drawnElements(svg: string): number {
	const parts = readParts(svg);
	const drawn = new Map<string, number>();
	const open = new Set<string>();
	const count = (id: string): number => {
		const part = parts.get(id);
		if (!part) return 0;
		const existing = drawn.get(id);
		if (existing !== undefined) return existing;
		if (open.has(id)) return Infinity;
		open.add(id);
		const all = part.refers.reduce((sum, name) => sum + count(name), part.elements);
		open.delete(id);
		drawn.set(id, all);
		return all;
	};
	return count(ROOT);
}

/** Each element that has an id, and the whole. */
function readParts(svg: string): Map<string, Part> {
	const parts = new Map<string, Part>([[ROOT, { elements: 0, refers: [] }]]);
	const path: (string | null)[] = [ROOT];
	const parser = new SaxesParser();
	parser.on('error', (error) => {
		throw error;
	});
	parser.on('opentag', ({ attributes }) => {
		const own = attributes.id ?? null;
		if (own !== null) parts.set(own, { elements: 0, refers: [] });
		path.push(own);
		const refers = Object.values(attributes).flatMap((value) => [...value.matchAll(REFERENCE)].map(([, id]) => id!));
		for (const id of path) {
			const part = id === null ? undefined : parts.get(id);
			if (!part) continue;
			part.elements++;
			part.refers.push(...refers);
		}
	});
	parser.on('closetag', () => void path.pop());
	parser.write(svg).close();
	return parts;
}
