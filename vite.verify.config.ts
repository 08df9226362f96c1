/** `npm run verify` as one file: with the components that draw a report, compiled as the app's own are. */
import { fileURLToPath } from 'node:url';
import { svelte, vitePreprocess } from '@sveltejs/vite-plugin-svelte';
import { defineConfig } from 'vite';

const path = (folder: string) => fileURLToPath(new URL(folder, import.meta.url));

export default defineConfig({
	plugins: [svelte({ configFile: false, preprocess: [vitePreprocess()] })],
	resolve: { alias: { $core: path('src/core'), $lib: path('src/lib') } },
	publicDir: false,
	ssr: { noExternal: true, target: 'node' },
	build: {
		ssr: 'scripts/verify.ts',
		outDir: 'build/verify',
		emptyOutDir: true,
		rollupOptions: { output: { entryFileNames: 'verify.mjs' } }
	}
});
