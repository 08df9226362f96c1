/** Loader hooks (Node's module customisation): aliases of the app, components and modules with runes. */
import { existsSync } from 'node:fs';
import { readFile } from 'node:fs/promises';
import { fileURLToPath, pathToFileURL } from 'node:url';
import { transform } from 'esbuild';
import { optimizeImports } from 'carbon-preprocess-svelte';
import { compile, compileModule, preprocess } from 'svelte/compiler';

const ROOT = new URL('../../../', import.meta.url);
const ALIASES = { $lib: 'src/lib', $core: 'src/core' };
/** What SvelteKit brings to a page in a browser. */
const STAND_IN = new URL('./kit.ts', import.meta.url).href;
const ENDINGS = ['', '.ts', '.svelte.ts', '/index.ts'];

function placeOf(specifier, parent) {
	const [alias, ...rest] = specifier.split('/');
	if (alias in ALIASES) return new URL([ALIASES[alias], ...rest].join('/'), ROOT);
	const isOurs = parent?.startsWith(ROOT.href) && !parent.includes('/node_modules/');
	return isOurs && /^\.\.?\//.test(specifier) ? new URL(specifier, parent) : null;
}

export function resolve(specifier, context, next) {
	if (specifier.startsWith('$app/')) return next(STAND_IN, context);
	const place = placeOf(specifier, context.parentURL);
	if (!place || specifier.endsWith('.json')) return next(specifier, context);
	for (const ending of ENDINGS) {
		const url = place.href + ending;
		if (/\.\w+$/.test(url) && existsSync(fileURLToPath(url))) return next(url, context);
	}
	return next(specifier, context);
}

export async function load(url, context, next) {
	const filename = url.startsWith('file:') ? fileURLToPath(url) : '';
	if (filename.endsWith('.svelte')) return { format: 'module', shortCircuit: true, source: await component(filename) };
	if (/\.(woff2|css)$/.test(filename)) return { format: 'module', shortCircuit: true, source: 'export default ""' };
	if (filename.endsWith('.svelte.ts')) return { format: 'module', shortCircuit: true, source: await runes(filename) };
	return next(url, context);
}

async function component(filename) {
	const { code } = await preprocess(await readFile(filename, 'utf8'), [optimizeImports()], { filename });
	const options = { filename, generate: 'server', css: 'external', dev: false, warningFilter: () => false };
	return onServer(compile(code, options).js.code);
}

/** What Vite would put in its place. */
const onServer = (code) => code.replaceAll('import.meta.env.SSR', 'true');

async function runes(filename) {
	const { code } = await transform(await readFile(filename, 'utf8'), {
		loader: 'ts',
		target: 'esnext',
		sourcefile: pathToFileURL(filename).href
	});
	return compileModule(code, { filename, generate: 'server', dev: false }).js.code;
}
