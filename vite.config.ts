import { sveltekit } from '@sveltejs/kit/vite';
import { optimizeCss } from 'carbon-preprocess-svelte';
import { buildSync } from 'esbuild';
import { defineConfig, type Plugin, type Rollup } from 'vite';

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

/** Carbon makes what counts letters when it is loaded: that takes a phone a third of a second, and few fields count. */
function countLettersLater(): Plugin {
	return {
		name: 'count-letters-later',
		transform(code, id) {
			if (!/carbon-components-svelte\/src\/utils\/graphemeCount\.js$/.test(id)) return null;
			const later = code
				.replace('const segmenter =', 'let kept;\nconst makeSegmenter = () =>')
				.replace('if (segmenter)', 'const segmenter = (kept ??= makeSegmenter());\n\tif (segmenter)');
			if (later.split('makeSegmenter').length !== 3)
				this.error('graphemeCount.js is another: see count-letters-later.');
			return { code: later, map: null };
		}
	};
}

/** Parts of the library's style sheet that no screen of ours can show: other themes, controls that are not used. */
const UNUSED = new RegExp(
	[
		':root\\[theme=',
		...[
			'tooltip__trigger--definition',
			'tooltip--(left|right|align-start|align-end)',
			'tooltip__caret',
			'tooltip-portal',
			'btn--icon-only--(left|right)',
			'date-picker--(light|range)',
			'time-picker--(light|select)',
			'pin-code',
			'search-menu',
			'toolbar',
			'table-toolbar',
			'table-expand',
			'table-column-(menu|checkbox|radio)',
			'data-table--(selected|sticky-header|zebra|highlighted-row)',
			'action-(set|list)',
			'batch-',
			'pagination-nav',
			'snippet',
			'skeleton',
			'toggle',
			'parent-row',
			'expandable-row',
			'inline-edit',
			'[a-z-]+(__wrapper)?--fluid',
			'text-input--password',
			'password-input',
			'copy-(input|btn)',
			'contained-list',
			'breadcrumb',
			'tile--(clickable|expandable|is-expanded)',
			'tile__chevron',
			'tag--selectable',
			'tag-set',
			'btn-set',
			'combo-button',
			'tree',
			'inline-notification__action-button',
			'header__',
			'side-nav--ui-shell-classic',
			'side-nav__(submenu|menu|icon--submenu|hierarchy|overlay|header|divider)',
			'slider__(thumb--lower|thumb--upper|thumb-icon|mark)'
		].map((name) => `\\.bx--${name}`)
	].join('|')
);

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
			const { outputFiles } = buildSync({
				entryPoints: [entry],
				bundle: true,
				minify: true,
				write: false,
				format: 'iife',
				target: 'es2022',
				legalComments: 'none'
			});
			return `export default ${JSON.stringify(outputFiles[0]!.text)}`;
		}
	};
}

interface StyleRule {
	selectors: string[];
	remove(): void;
}

/** A PostCSS plugin: rules all of whose selectors are unused go, of the others the unused selectors. */
const withoutUnusedRules = {
	postcssPlugin: 'without-unused-rules',
	Rule(rule: StyleRule) {
		// What a rule is not for says nothing of what it is for.
		const kept = rule.selectors.filter((selector) => !UNUSED.test(selector.replace(/:not\([^)]*\)/g, '')));
		if (kept.length === 0) rule.remove();
		else if (kept.length < rule.selectors.length) rule.selectors = kept;
	}
};

/** So many pages share a module before every page carries it. */
const SHARED_BY = 8;
/** The framework's list of pages; the first is the frame around all. */
const PAGE = /generated\/client-optimized\/nodes\/(\d+)\.js$/;
/** Where the framework starts in the browser. */
const START = /kit\/src\/runtime\/client\/entry\.js$|generated\/client-optimized\/app\.js$/;

/** The frame, and what many pages share, in one file: a phone takes longer to ask for a file than to read it. */
function sharedChunk(): Rollup.GetManualChunk {
	let shared: Set<string> | undefined;
	return (id, meta) => {
		shared ??= sharedModules(meta);
		return shared.has(id) ? 'shared' : null;
	};
}

/** Modules that the frame or many pages reach without waiting for them. */
function sharedModules({ getModuleIds, getModuleInfo }: Rollup.ManualChunkMeta): Set<string> {
	const reachedBy = new Map<string, Set<string>>();
	const reach = (id: string, page: string) => {
		const pages = reachedBy.get(id) ?? new Set();
		if (pages.has(page)) return;
		reachedBy.set(id, pages.add(page));
		for (const next of getModuleInfo(id)?.importedIds ?? []) reach(next, page);
	};
	for (const id of getModuleIds()) {
		const page = PAGE.exec(id)?.[1] ?? (START.test(id) ? '0' : null);
		if (page !== null) for (const next of getModuleInfo(id)?.importedIds ?? []) reach(next, page);
	}
	const shared = [...reachedBy].filter(([, pages]) => pages.has('0') || pages.size >= SHARED_BY);
	return new Set(shared.map(([id]) => id));
}

export default defineConfig({
	plugins: [withoutForeignFonts(), countLettersLater(), visitScript(), sveltekit(), optimizeCss()],
	css: { postcss: { plugins: [withoutUnusedRules] } },
	server: { port: Number(process.env.PORT ?? 4170), strictPort: true },
	build: {
		chunkSizeWarningLimit: 700,
		// Dozens of tiny files cost more than the bytes that a few larger ones carry too much.
		rollupOptions: { output: { experimentalMinChunkSize: 10_000, manualChunks: sharedChunk() } }
	},
	ssr: { external: ['better-sqlite3', 'playwright-core', 'sharp'] }
});
