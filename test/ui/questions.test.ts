/** Questions that several comparisons answer: which is best, and what each step brought. */
import { expect } from 'chai';
import { startApp, type TestApp } from '../support/app';
import { openScreen, type Screen } from '../support/screen';
import { until } from '../support/world';

describe('questions of several comparisons', function () {
	this.timeout(120_000);
	let app: TestApp;
	let screen: Screen;
	let ids: { best: number; log: number };
	before(async () => {
		app = await startApp({ demo: true, environment: { ZAFRA_RUNNER: 'off' } });
		screen = await openScreen(app);
		const { body } = await app.api('GET', '/api/trials');
		const idOf = (question: string) =>
			(body.trials as { id: number; question: string }[]).find((item) => item.question === question)!.id;
		ids = {
			best: idOf('Which builder should the notice page be made with?'),
			log: idOf('Which changes make the home page faster?')
		};
	});
	after(async () => {
		expect(screen.troubles).to.deep.equal([]);
		await screen.close();
		await app.end();
	});
	const text = (selector: string) => screen.page.locator(selector).innerText();

	it('which is best: names what the API names, places each candidate in each metric, with its price', async () => {
		await screen.go(`/trials/${ids.best}`);
		const { body } = await app.api('GET', `/api/trials/${ids.best}`);
		expect(body.aim).to.equal('best');
		const answer = await text('#answer');
		const whole = await screen.page.locator('#answer > p.judgement').first().innerText();
		const best = (body.arms as { id: number; name: string }[]).find(({ id }) => id === body.best);
		if (best) expect(whole).to.contain(`“${best.name}” is the best of these 3`);
		else expect(whole).to.match(/^(Not decided which|None) of these 3/);
		expect(answer).to.contain('“Patchboard” €0').and.to.contain('“Mortise” €19');
		for (const name of ['Phone', 'Desktop']) {
			const rows = await screen.page
				.getByRole('table', { name: `Candidates, ${name}` })
				.locator('tbody tr')
				.count();
			// Three candidates in each of five metrics.
			expect(rows, name).to.equal(15);
		}
		const places = (
			body.places as { condition: string; metric: string; arm: number; from: number; to: number }[]
		).filter(({ condition, metric }) => condition === 'phone' && metric === 'wire');
		const words = ['first', 'second', 'third'];
		const row = screen.page.getByRole('table', { name: 'Candidates, Phone' }).locator('tbody').last();
		for (const { arm, from, to } of places) {
			const { name } = (body.arms as { id: number; name: string }[]).find(({ id }) => id === arm)!;
			const told = await row.locator('tr', { has: screen.page.locator('th', { hasText: name }) }).innerText();
			expect(told).to.contain(
				from === to ? words[from - 1] : `${words[from - 1]} ${to > from + 1 ? 'to' : 'or'} ${words[to - 1]}`
			);
		}
		expect(await screen.violations()).to.deep.equal([]);
	});

	it('turns the board to any two candidates, in the address', async () => {
		await screen.page.getByLabel('with', { exact: true }).selectOption({ label: 'Mortise' });
		await until(async () => screen.page.url().includes('against='), 10_000, 'the address to say it');
		await screen.page.getByLabel('Compare', { exact: true }).selectOption({ label: 'Patchboard' });
		const board = screen.page.getByRole('table', { name: 'Patchboard against Mortise, Phone' });
		await board.waitFor();
		expect(await board.getByRole('row').first().innerText()).to.match(/Mortise\s+Patchboard/);
	});

	it('asks which is best in the form: three candidates at once, and rounds that can tell', async () => {
		await screen.go('/trials/new');
		await screen.page.getByText('Which of them is best').click();
		await screen.page.getByRole('group', { name: 'Candidate 3' }).waitFor();
		await screen.page.getByLabel('What do you want to know?').fill('Which host?');
		for (const i of [1, 2, 3]) {
			await screen.page.getByLabel(`Name of candidate ${i}`).fill(`Host ${i}`);
			await screen.page.getByRole('combobox', { name: `Address of candidate ${i}` }).fill(`https://host${i}.test/`);
		}
		await screen.tick(/Look after 10/, false);
		await screen.page.getByLabel('Rounds', { exact: true }).fill('7');
		await screen.page.getByRole('button', { name: 'Save as a draft' }).click();
		// Three pairs of 1.33 % each: 1 flip in 2^(n-1) is as little from 8 rounds on.
		await screen.page.getByText('Plan 8 or more.').waitFor();
		await screen.page.getByLabel('Rounds', { exact: true }).fill('8');
		await screen.page.getByRole('button', { name: 'Save as a draft' }).click();
		await screen.page.waitForURL(/\/trials\/\d+$/);
		const { body } = await app.api('GET', `/api/trials/${screen.page.url().split('/').at(-1)}`);
		// The other button would have started it.
		expect(body).to.include({ aim: 'best', rounds: 8, status: 'draft' });
		expect(body.arms).to.have.length(3);
	});

	it('a log shows each step against the one before and against the start, what broke, and what became of it', async () => {
		await screen.go(`/trials/${ids.log}`);
		const rows = await screen.page.getByRole('region', { name: 'Steps' }).locator('tbody').allInnerTexts();
		expect(rows).to.have.length(5);
		expect(rows[0]).to.match(/As it was[\s\S]*in 6/);
		expect(rows[2]).to.match(/Larder joins all scripts[\s\S]*taken back/);
		expect(rows[3]).to.match(/without “Larder joins all scripts”/);
		const { body } = await app.api('GET', `/api/trials/${ids.log}`);
		const verdicts = (
			body.results as { against: string; arm: number; primary: boolean; verdict: string; metric: string }[]
		).filter(({ arm, primary, against }) => primary && against === 'previous' && arm === body.stages[1].arm);
		verdicts.sort((a, b) => body.primary.indexOf(a.metric) - body.primary.indexOf(b.metric));
		const marks = await screen.page
			.getByRole('list', { name: /^Larder switched on against the step before/ })
			.innerText();
		const WORDS: Record<string, RegExp> = {
			better: /^(faster|lighter|better|more stable)$/,
			worse: /^(slower|heavier|worse|less stable)$/,
			slight: /, size open$/,
			same: /^(no difference that matters|identical in every round)$/,
			undecided: /^undecided$/
		};
		const told = marks.split('\n').filter((line) => line.includes(': '));
		expect(told).to.have.length(5);
		told.forEach((line, i) => expect(line.split(': ')[1]).to.match(WORDS[verdicts[i]!.verdict]!));
		expect(await screen.violations()).to.deep.equal([]);
	});

	it('takes a decision with its reason, and the next step at one press', async () => {
		await screen.page.getByRole('button', { name: 'Decide on Pictures re-encoded' }).click();
		await screen.page.getByLabel('Decision').selectOption({ label: 'Weakened: left on, set lower' });
		await screen.page.getByLabel('Why').fill('Two pictures were too soft.');
		await screen.page.getByRole('button', { name: 'Save' }).click();
		await screen.page.getByText('Two pictures were too soft.').first().waitFor();
		const { body } = await app.api('GET', `/api/trials/${ids.log}`);
		expect(body.stages[4]).to.include({ decision: 'weakened', note: 'Two pictures were too soft.' });
		await screen.page.getByRole('button', { name: 'Next step' }).click();
		await screen.page.getByLabel('What was changed?').fill('Fonts self-hosted');
		await screen.page.getByRole('button', { name: 'Measure this step' }).click();
		await until(
			async () => (await app.api('GET', `/api/trials/${ids.log}`)).body.stages.length === 6,
			10_000,
			'the step to be there'
		);
		const after = await app.api('GET', `/api/trials/${ids.log}`);
		expect(after.body).to.include({ status: 'queued' });
		expect(after.body.stages[5]).to.include({ name: 'Fonts self-hosted', decision: 'open' });
	});

	it('a standing draws pages as candidates are drawn', async () => {
		await screen.go('/standings/3');
		const table = screen.page.getByRole('table', { name: 'Places by metric' });
		await table.waitFor();
		expect(await table.locator('tbody').count()).to.be.above(4);
		expect(await screen.violations()).to.deep.equal([]);
	});
});
