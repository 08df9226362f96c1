/** Which font files style sheets name, and under which family (CSS Fonts 4, @font-face). */
import { generate, parse, walk } from 'css-tree';

/** Family names by the address of the file. @param base of the sheet, for relative addresses */
export function facesIn(css: string, base: string): Map<string, Set<string>> {
	const faces = new Map<string, Set<string>>();
	walk(parse(css, { parseValue: true, onParseError: () => undefined }), (node) => {
		if (node.type !== 'Atrule' || node.name !== 'font-face' || !node.block) return;
		let family = '';
		const urls: string[] = [];
		walk(node.block, (inner) => {
			if (inner.type !== 'Declaration') return;
			if (inner.property === 'font-family') family = generate(inner.value).replace(/^["']|["']$/g, '');
			if (inner.property === 'src')
				walk(inner.value, (value) => {
					if (value.type === 'Url' && URL.canParse(value.value, base)) urls.push(new URL(value.value, base).href);
				});
		});
		if (family) for (const url of urls) faces.set(url, (faces.get(url) ?? new Set()).add(family));
	});
	return faces;
}

/** What the style elements of a document hold. */
export const stylesIn = (markup: string): string =>
	[...markup.matchAll(/<style[^>]*>([\s\S]*?)<\/style>/gi)].map(([, css]) => css).join('\n');
