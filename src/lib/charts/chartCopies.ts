/** Taking a chart elsewhere: text to the clipboard, a drawing as SVG or PNG. Needs a browser. */

/** @returns what happened, in words: without a clipboard the text is saved as a file */
export async function copyText(text: string, file: string): Promise<string> {
	try {
		await navigator.clipboard.writeText(text);
		return 'Copied';
	} catch {
		saveBlob(new Blob([text], { type: 'text/plain' }), file);
		return 'Saved as a file';
	}
}

function saveBlob(blob: Blob, file: string): void {
	const link = document.createElement('a');
	link.href = URL.createObjectURL(blob);
	link.download = file;
	link.click();
	URL.revokeObjectURL(link.href);
}

const KEPT = [
	'fill',
	'stroke',
	'stroke-width',
	'stroke-dasharray',
	'opacity',
	'fill-opacity',
	'font-family',
	'font-size',
	'font-weight',
	'text-anchor'
];

/** A drawing with its colours and fonts written into it, so that it stands on its own. */
export function drawnSvg(original: SVGSVGElement | null | undefined): string {
	if (!original) return '';
	const copy = original.cloneNode(true) as SVGSVGElement;
	const [from, to] = [original.querySelectorAll('*'), copy.querySelectorAll('*')];
	to.forEach((element, i) => {
		const style = getComputedStyle(from[i]!);
		const kept = KEPT.map((property) => `${property}:${style.getPropertyValue(property)}`);
		element.setAttribute('style', kept.join(';'));
		element.removeAttribute('class');
	});
	copy.setAttribute('xmlns', 'http://www.w3.org/2000/svg');
	const { width, height } = original.getBoundingClientRect();
	copy.setAttribute('width', String(Math.round(width)));
	copy.setAttribute('height', String(Math.round(height)));
	return copy.outerHTML;
}

/** Pixels of a picture per pixel of the screen: sharp in print. */
const SCALE = 2;

/** Draw an SVG as a picture and save it. @returns what happened, in words */
export async function savePng(svg: string, file: string): Promise<string> {
	const image = new Image();
	image.src = `data:image/svg+xml;charset=utf-8,${encodeURIComponent(svg)}`;
	try {
		await image.decode();
	} catch {
		return 'This browser cannot draw it as PNG: copy it as SVG';
	}
	const canvas = document.createElement('canvas');
	canvas.width = image.naturalWidth * SCALE;
	canvas.height = image.naturalHeight * SCALE;
	const context = canvas.getContext('2d')!;
	context.scale(SCALE, SCALE);
	context.drawImage(image, 0, 0);
	const blob = await new Promise<Blob | null>((resolve) => canvas.toBlob(resolve, 'image/png'));
	if (!blob) return 'This browser cannot draw it as PNG: copy it as SVG';
	saveBlob(blob, file);
	return 'Saved as a file';
}
