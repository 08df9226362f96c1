import { expect } from 'chai';
import { ESLint } from 'eslint';

describe('the linter', () => {
	const eslint = new ESLint();
	async function rulesBroken(code: string, filePath: string): Promise<(string | null)[]> {
		const [result] = await eslint.lintText(code, { filePath });
		return result!.messages.map(({ ruleId }) => ruleId);
	}

	it('refuses native controls in screens, and lets charts draw their own', async function () {
		this.timeout(120_000);
		for (const element of ['select', 'input', 'textarea', 'button', 'dialog', 'table'])
			expect(
				await rulesBroken(
					element === 'input' ? '<input />\n' : `<${element}></${element}>\n`,
					'src/routes/trials/+page.svelte'
				),
				element
			).to.include('svelte/no-restricted-html-elements');
		expect(await rulesBroken('<table></table>\n', 'src/lib/charts/ShiftBoard.svelte')).to.not.include(
			'svelte/no-restricted-html-elements'
		);
	});

	it('refuses that the core looks upward, and that rooms read each other’s queries', async () => {
		const up = "import { page } from '$app/state';\nexport const here = page.url;\n";
		expect(await rulesBroken(up, 'src/core/wording/plainNames.ts')).to.include('no-restricted-imports');
		const across = "import { listTrials } from '../trials/queries';\nexport const all = listTrials;\n";
		expect(await rulesBroken(across, 'src/lib/server/loads/commands.ts')).to.include('no-restricted-imports');
	});
});
