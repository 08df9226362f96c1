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
});
