declare module 'virtual:visit-script' {
	/** Bundled and minified. */
	const text: string;
	export default text;
}

declare module 'subset-font' {
	/** Of a font with the signs of a text alone. */
	export default function subsetFont(
		font: Buffer,
		text: string,
		options?: { targetFormat?: 'sfnt' | 'truetype' | 'woff' | 'woff2' }
	): Promise<Buffer>;
}
