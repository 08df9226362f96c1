/** Bundles a program for pages as text: no module, and no more than it needs. */
import { buildSync } from 'esbuild';

/** @param {string} entry path of its first file @param {boolean} minify for pages of others, which pay for each byte */
export function bundleForPages(entry, minify) {
	const { outputFiles } = buildSync({
		entryPoints: [entry],
		bundle: true,
		minify,
		write: false,
		format: 'iife',
		target: 'es2022',
		legalComments: 'none'
	});
	return outputFiles[0].text;
}
