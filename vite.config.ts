import { sveltekit } from '@sveltejs/kit/vite';
import { optimizeCss } from 'carbon-preprocess-svelte';
import { defineConfig, type Plugin } from 'vite';
import { bundleForPages } from './scripts/pageBundle.mjs';

/** Carbon's style sheet names fonts on a foreign host; the app ships its own and asks nobody. */
function withoutForeignFonts(): Plugin {
	return {
		name: 'without-foreign-fonts',
		enforce: 'pre',
		transform(code, id) {
			if (!/carbon-components-svelte\/css\/.*\.css/.test(id)) return null;
			return { code: code.replace(/@font-face\s*\{[^}]*\}/g, ''), map: null };
		}
	};
}

/** The visits' script as text, bundled for pages of any site: no module, and small. */
function visitScript(): Plugin {
	const name = 'virtual:visit-script';
	return {
		name: 'visit-script',
		resolveId: (id) => (id === name ? `\0${name}` : null),
		load(id) {
			if (id !== `\0${name}`) return null;
			const entry = 'src/visit-script/script.ts';
			this.addWatchFile(entry);
			return `export default ${JSON.stringify(bundleForPages(entry, true))}`;
		}
	};
}

export default defineConfig(({ command }) => ({
	define: command === 'build' ? { ZAFRA_IS_BUILT: 'true' } : {},
	plugins: [withoutForeignFonts(), visitScript(), sveltekit(), optimizeCss()],
	server: { port: Number(process.env.PORT ?? 4170), strictPort: true },
	// Dozens of tiny files cost more than the bytes that a few larger ones carry too much.
	build: { chunkSizeWarningLimit: 700, rollupOptions: { output: { experimentalMinChunkSize: 10_000 } } },
	ssr: { external: ['better-sqlite3', 'playwright-core', 'sharp'] }
}));
