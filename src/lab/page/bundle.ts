/** What runs inside pages, as text: bundled by the build, or here where there was none. */
import { createRequire } from 'node:module';
import { fileURLToPath } from 'node:url';

type PageProgram = 'program' | 'tools' | 'hideAutomation';

/** Put in place by the build; see `scripts/processes.mjs`. */
declare const ZAFRA_PAGE_PROGRAMS: Record<PageProgram, string> | undefined;

const programs: Partial<Record<PageProgram, string>> =
	typeof ZAFRA_PAGE_PROGRAMS === 'undefined' ? {} : ZAFRA_PAGE_PROGRAMS;

export const pageProgram = (name: PageProgram): string => (programs[name] ??= bundled(name));

function bundled(name: PageProgram): string {
	// A tool of development: production has been built.
	const { buildSync } = createRequire(import.meta.url)('esbuild') as typeof import('esbuild');
	const { outputFiles } = buildSync({
		entryPoints: [fileURLToPath(new URL(`./${name}.ts`, import.meta.url))],
		bundle: true,
		write: false,
		format: 'iife',
		target: 'es2022',
		legalComments: 'none'
	});
	return outputFiles[0]!.text;
}
