/** Bundles what runs beside web: the lab and the threads of both. Part of `npm run build`. */
import { cpSync, rmSync } from 'node:fs';
import { build } from 'esbuild';
import { bundleForPages } from './pageBundle.mjs';

const OUT = 'build/processes';
const alias = { $core: './src/core', $lib: './src/lib' };

/** What runs inside pages, as text. */
const pageProgram = (name) => bundleForPages(`src/lab/page/${name}.ts`, false);

rmSync(OUT, { recursive: true, force: true });
await build({
	entryPoints: {
		runner: 'src/runner.ts',
		heavy: 'src/lib/server/runner/heavyWorker.ts',
		watchdog: 'src/lib/server/runner/watchdogThread.ts',
		shaper: 'src/lab/shaper/worker.ts',
		rewrite: 'src/lab/rewrite/worker.ts',
		calm: 'src/lab/calm/worker.ts'
	},
	outdir: OUT,
	outExtension: { '.js': '.mjs' },
	// All in one folder: each finds the others beside it.
	chunkNames: 'shared-[hash]',
	bundle: true,
	splitting: true,
	format: 'esm',
	platform: 'node',
	target: 'node20',
	packages: 'external',
	alias,
	define: {
		ZAFRA_IS_BUILT: 'true',
		ZAFRA_PAGE_PROGRAMS: JSON.stringify({
			program: pageProgram('program'),
			tools: pageProgram('tools'),
			hideAutomation: pageProgram('hideAutomation')
		})
	}
});
cpSync('src/lib/server/base/db/migrations', 'build/migrations', { recursive: true });
