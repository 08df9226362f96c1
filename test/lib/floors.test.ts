/** The rules of `.dependency-cruiser.cjs` over small trees that break them. */
import { expect } from 'chai';
import { cruise, type ICruiseResult, type IFlattenedRuleSet } from 'dependency-cruiser';
import { mkdirSync, mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { tmpdir } from 'node:os';
import { dirname, join } from 'node:path';

const { forbidden } = createRequire(import.meta.url)('../../.dependency-cruiser.cjs') as IFlattenedRuleSet;

/** Names of the rules that files with these imports break. */
async function broken(files: Record<string, string>): Promise<string[]> {
	const folder = mkdtempSync(join(tmpdir(), 'zafra-floors-'));
	try {
		for (const [path, text] of Object.entries(files)) {
			mkdirSync(dirname(join(folder, path)), { recursive: true });
			writeFileSync(join(folder, path), text);
		}
		const options = { baseDir: folder, validate: true, ruleSet: { forbidden }, tsPreCompilationDeps: true };
		const { output } = await cruise(['src'], options);
		return [...new Set((output as ICruiseResult).summary.violations.map(({ rule }) => rule.name))];
	} finally {
		rmSync(folder, { recursive: true });
	}
}
const nothing = 'export const nothing = 0;\n';
const imports = (path: string) => `import { nothing } from '${path}';\nexport const something = nothing;\n`;
const ROOM = 'src/lib/server/rooms';

describe('the floors', () => {
	it('let an import run down, and within a room', async () => {
		expect(
			await broken({
				'src/core/a.ts': nothing,
				'src/lab/b.ts': imports('../core/a'),
				'src/lib/server/base/c.ts': imports('../../../lab/b')
					.replaceAll('nothing', 'something')
					.replace('const something =', 'const nothing ='),
				[`${ROOM}/clients/view.ts`]: imports('../../base/c'),
				[`${ROOM}/trials/queries.ts`]: nothing,
				[`${ROOM}/trials/view.ts`]: imports('./queries'),
				[`${ROOM}/trials/commands.ts`]: imports('../clients/view').replace('{ nothing }', '{ something as nothing }')
			})
		).to.deep.equal([]);
	});

	const CASES: Record<string, [Record<string, string>, rule: string]> = {
		'the core on the lab': [{ 'src/lab/a.ts': nothing, 'src/core/b.ts': imports('../lab/a') }, 'core-imports-upward'],
		'the core on Node': [{ 'src/core/a.ts': "export { sep } from 'node:path';\n" }, 'core-imports-node'],
		'the core on the interface': [{ 'src/core/a.ts': "export { page } from '$app/state';\n" }, 'core-is-pure'],
		'the core on a database': [{ 'src/core/a.ts': "export { default } from 'better-sqlite3';\n" }, 'core-is-pure'],
		'the lab on a database': [
			{ 'src/lab/a.ts': "export { default } from 'better-sqlite3';\n" },
			'lab-knows-no-database'
		],
		'a chart of Svelte on the server': [
			{
				[`${ROOM}/trials/view.ts`]: nothing,
				'src/lib/charts/A.svelte': `<script lang="ts">\n\timport { nothing } from '../server/rooms/trials/view';\n</script>\n\n{nothing}\n`
			},
			'charts-know-the-core-only'
		],
		'the base on a room': [
			{ [`${ROOM}/clients/view.ts`]: nothing, 'src/lib/server/base/b.ts': imports('../rooms/clients/view') },
			'base-imports-upward'
		],
		'a room on a later one': [
			{ [`${ROOM}/trials/view.ts`]: nothing, [`${ROOM}/clients/view.ts`]: imports('../trials/view') },
			'clients-imports-a-later-room'
		],
		'a room on the queries of another': [
			{ [`${ROOM}/clients/queries.ts`]: nothing, [`${ROOM}/trials/view.ts`]: imports('../clients/queries') },
			'queries-of-another-room'
		],
		'a room on the runner': [
			{ 'src/lib/server/runner/loop.ts': nothing, [`${ROOM}/trials/view.ts`]: imports('../../runner/loop') },
			'rooms-imports-upward'
		],
		'charts on the server': [
			{ [`${ROOM}/trials/view.ts`]: nothing, 'src/lib/charts/a.ts': imports('../server/rooms/trials/view') },
			'charts-know-the-core-only'
		],
		'a circle of types': [
			{
				'src/core/a.ts': "import type { B } from './b';\nexport interface A {\n\tb: B;\n}\n",
				'src/core/b.ts': "import type { A } from './a';\nexport interface B {\n\ta: A;\n}\n"
			},
			'no-circle'
		]
	};
	for (const [what, [files, rule]] of Object.entries(CASES))
		it(`refuse ${what}`, async () => expect(await broken(files)).to.deep.equal([rule]));
});
