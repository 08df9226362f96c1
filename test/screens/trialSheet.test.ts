import { expect } from 'chai';
import { createTrial, startTrial, stopTrial } from '../../src/lib/server/rooms/trials/commands';
import { metricOf } from '$core/metrics/catalogue';
import { deriveEvidence } from '../../src/lib/server/rooms/trials/evidence';
import type { SheetHead } from '../../src/lib/server/rooms/trials/sheet/head';
import type { Chosen, SheetParts } from '../../src/lib/server/rooms/trials/sheet/parts';
import { trialInput } from '../support/queue';
import { dataOf, demoDb, screen } from '../support/svelte/screens';
import type { Shown } from '../support/svelte/show';

const plain = (text: string) => text.replace(/\s+/g, ' ').trim();
type Sheet = SheetHead & { chosen: Chosen; shown: SheetParts };
const sheetOf = async (path: string) => (await dataOf(path)).data as unknown as Sheet;
const partOf = (shown: Shown, id: string) => shown.the(`.bx--accordion__item[id=${id}]`);

describe('the sheet of a trial', function () {
	this.timeout(60_000);
	// As the lab works it out between loads.
	before(async () => deriveEvidence(await demoDb(), 1));

	describe('its first screen', () => {
		let shown: Shown;
		let data: Sheet;
		before(async () => {
			shown = await screen('/trials/1');
			data = await sheetOf('/trials/1');
		});

		it('is the question, its answer in a sentence for each conditions, and a board for each', () => {
			expect(shown.the('h1').text).to.equal('Did adding the chat make the timetable slower?');
			for (const board of data.boards)
				for (const answer of board.answers) expect(shown.text).to.include(plain(answer.sentence));
			const tables = data.boards.flatMap(({ name, answers }) => answers.map(({ armName }) => `${armName}, ${name}`));
			const labels = shown.all('table[aria-label]').map((table) => table.attribute('aria-label'));
			expect(labels).to.include.members(tables);
		});

		it('has in its boards just the figures, words and intervals that were judged', () => {
			for (const { name, answers } of data.boards)
				for (const { armName, rows } of answers) {
					const table = shown.all('table').find((item) => item.attribute('aria-label') === `${armName}, ${name}`)!;
					const cells = table.rows().slice(1);
					expect(cells.map(([head]) => head)).to.deep.equal(rows.map((row) => plain(row.name)));
					rows.forEach((row, i) => {
						expect(cells[i]!.slice(1, 3)).to.deep.equal([plain(row.baseline), plain(row.arm)]);
						expect(cells[i]!.at(-1)).to.contain(`${row.word}. ${plain(row.text)}`);
					});
				}
		});

		it('leads from each row to the loads that showed it', () => {
			const links = shown.all('td.word').flatMap((cell) => cell.all('a').map((link) => link.attribute('href')!));
			expect(links).to.have.length(data.boards.reduce((sum, { answers }) => sum + answers[0]!.rows.length, 0));
			for (const { metric } of data.boards[0]!.answers[0]!.rows)
				expect(
					links.some((link) => link.includes(metric)),
					metric
				).to.equal(true);
		});

		it('shows each variant at the same moments', () => {
			const images = shown.all('img').map((image) => image.attribute('alt')!);
			for (const arm of data.arms)
				expect(
					images.some((alt) => alt.startsWith(`${arm.name} after `)),
					arm.name
				).to.equal(true);
		});
	});

	describe('its parts', () => {
		it('are a line of finding each and nothing more while they are closed, neither shown nor sent', async () => {
			const data = await sheetOf('/trials/1');
			const shown = await screen('/trials/1');
			for (const { id, finding } of data.parts) {
				const part = partOf(shown, id);
				expect(part.the('.part-finding').text).to.equal(plain(finding));
				expect(part.has('section'), id).to.equal(false);
				expect(part.the('button').attribute('aria-expanded')).to.equal('false');
			}
			expect(data.shown).to.deep.equal({});
			expect(Object.keys(data)).not.to.include.members(['loads', 'evidence', 'judgement']);
		});

		it('open by the address, and hold what their line promises', async () => {
			const path = '/trials/1?open=why,fairness,table,frames,loads,held';
			const shown = await screen(path);
			const data = await sheetOf(path);
			const opened = (id: string) => partOf(shown, id).the('section');
			for (const id of ['why', 'fairness', 'table', 'frames', 'loads', 'held'])
				expect(partOf(shown, id).the('button').attribute('aria-expanded'), id).to.equal('true');
			// Each cause that was found for the shown variant is told.
			expect(opened('why').text.length).to.be.above(100);
			expect(data.chosen.condition).to.equal('phone');
			expect(data.shown.why!.why!.causes.length).to.be.above(0);
			// All metrics that were measured, those that decide among them.
			const heads = opened('table').texts('th[scope=row]');
			for (const { metric } of data.boards[0]!.answers[0]!.rows)
				expect(heads, metric).to.include(metricOf(metric).name);
			expect(heads.length).to.be.above(15);
			// Loads in pages of 25, with a link to each.
			const loads = opened('loads')
				.all('a')
				.map((link) => link.attribute('href')!)
				.filter((href) => /^\/loads\/\d+$/.test(href));
			expect(new Set(loads).size).to.equal(Math.min(25, data.answer.loads));
			// Films of both variants, played and in step.
			expect(
				opened('frames')
					.texts('figcaption')
					.filter((words) => /% painted/.test(words))
			).to.have.length(2);
			expect(opened('frames').the('table').rows()).to.have.length(3);
			expect(opened('held').text).to.match(/request|nothing/i);
		});

		it('draw the metric that the address names', async () => {
			for (const [metric, name] of [
				['cls', 'Cumulative Layout Shift'],
				['tbt', 'Total Blocking Time']
			] as const) {
				const shown = await screen(`/trials/1?open=shifts&metric=${metric}`);
				const labels = shown.all('svg[aria-label]').map((drawing) => drawing.attribute('aria-label')!);
				expect(labels.filter((label) => label.includes(name)).length, metric).to.equal(2);
			}
			const { chosen } = await sheetOf('/trials/1?metric=nonsense');
			expect(chosen.metric).to.equal('lcp');
		});

		it('speak of the conditions and the variant that the address names, where the trial has them', async () => {
			const { comparisons } = await sheetOf('/trials/3');
			const variant = comparisons.at(-1)!.id;
			expect(variant).not.to.equal(comparisons[0]!.id);
			const other = await sheetOf(`/trials/3?open=why,frames&conditions=desktop&variant=${variant}`);
			expect(other.chosen).to.include({ condition: 'desktop', arm: variant });
			const shown = await screen(`/trials/1?open=frames&conditions=desktop`);
			expect(partOf(shown, 'frames').has('section')).to.equal(true);
			const none = await sheetOf('/trials/1?open=why,nonsense&conditions=moon&variant=99999');
			expect(none.chosen.condition).to.equal('phone');
			expect(Object.keys(none.shown)).to.deep.equal(['why']);
		});
	});

	describe('where there is no answer', () => {
		const make = async (extra: Parameters<typeof trialInput>[0] = {}) =>
			createTrial(await demoDb(), trialInput({ question: 'Is it quicker?', ...extra }));

		it('is a draft that can be started, with what it will decide on', async () => {
			const shown = await screen(`/trials/${await make()}`);
			expect(shown.texts('button').join('|')).to.match(/Start/);
			expect(shown.texts('td.word')).to.deep.equal(['not yet', 'not yet', 'not yet', 'not yet', 'not yet']);
			expect(shown.text).not.to.match(/faster|slower/);
		});

		it('waits in the queue with how much is to be done, and can be stopped', async () => {
			const db = await demoDb();
			const id = await make();
			startTrial(db, id);
			const shown = await screen(`/trials/${id}`);
			expect(shown.text).to.include('0 of 6 loads');
			expect(shown.texts('button').join('|')).to.match(/Stop|Pause/);
			stopTrial(db, id);
			const stopped = await screen(`/trials/${id}`);
			expect(stopped.has('[role=progressbar]')).to.equal(false);
			expect(stopped.text).not.to.match(/faster than|slower than/);
		});

		it('of a trial in stages asks for its baseline first, and says what kind of trial it is', async () => {
			const arms = [
				{ name: 'Plain', url: 'http://a.test', baseline: true },
				{ name: 'With a cache', url: 'http://a.test' }
			];
			const shown = await screen(`/trials/${await make({ kind: 'before-after', arms })}?open=arms`);
			expect(shown.text).to.include('before and after');
			expect(shown.texts('td.word').every((word) => word === 'not yet')).to.equal(true);
			for (const { name } of arms) expect(partOf(shown, 'arms').text).to.include(name);
		});

		it('of one page against itself compares nobody', async () => {
			const shown = await screen('/trials/2');
			expect(shown.text).to.include('No difference was found between two runs of the same page.');
			expect(shown.text).not.to.match(/is (faster|slower) than/);
		});
	});

	it('of many variants says first what comes back later, and never calls it a gain', async () => {
		const shown = await screen('/trials/3');
		expect(shown.text).to.include('came back once the visitor moved');
		for (const cell of shown.all('td.word').filter(({ text }) => text.startsWith('comes back')))
			expect(cell.attribute('class')).to.not.include('better');
	});
});
