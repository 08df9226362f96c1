import { sveltekit } from '@sveltejs/kit/vite';
import { optimizeCss } from 'carbon-preprocess-svelte';
import { defineConfig, type Plugin } from 'vite';

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

export default defineConfig({
	plugins: [withoutForeignFonts(), sveltekit(), optimizeCss()],
	server: { port: Number(process.env.PORT ?? 4170), strictPort: true },
	build: { chunkSizeWarningLimit: 700 },
	ssr: { external: ['better-sqlite3', 'playwright-core', 'sharp'] }
});
