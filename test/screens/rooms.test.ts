import { expect } from 'chai';
import { findClientByName } from '../../src/lib/server/rooms/clients/queries/clients';
import type { LoadHead } from '../../src/lib/server/rooms/loads/view';
import type { standingView } from '../../src/lib/server/rooms/standings/view';
import type { watchedPageView } from '../../src/lib/server/rooms/watch/pageView';
import { dataOf, demoDb, screen } from '../support/svelte/screens';
import type { Shown } from '../support/svelte/show';

const plain = (text: string) => text.replace(/\s+/g, ' ').trim();
const tableOf = (shown: Shown, label: string): string[][] => {
	const table = shown.all('table').find((item) => item.attribute('aria-label') === label);
	if (!table)
		throw new Error(
			`No table “${label}”: ${shown
				.all('table')
				.map((item) => item.attribute('aria-label'))
				.join(', ')}`
		);
	return table.rows();
};

describe('rooms of the demonstration', function () {
	this.timeout(60_000);
	before(demoDb);

	describe('field data where no panel is set', () => {
		it('offers both other ways: a table of readings, open, and the visits’ script', async () => {
			const client = findClientByName(await demoDb(), 'Skerry Line')!;
			const shown = await screen('/field', { client });
			expect(shown.text).to.include('No panel is set.');
			const import_ = shown.all('.bx--accordion__item').find(({ text }) => text.startsWith('Readings from a table'))!;
			expect(import_.the('button').attribute('aria-expanded')).to.equal('true');
			expect(import_.text).to.include('Choose a table of readings');
			const links = shown.all('a').map((link) => [link.text.trim(), link.attribute('href')]);
			expect(links).to.deep.include(['Set up the visits’ script', '/field/visits']);
			// One chooser of clients: the rail's, where one is chosen there.
			const choosersOf = (item: Shown) => item.all('label').filter(({ text }) => text.trim() === 'Client').length;
			expect([choosersOf(shown), choosersOf(await screen('/field'))]).to.deep.equal([0, 1]);
		});

		it('begins with a client whose pages are looked at', async () => {
			expect((await screen('/field')).text).not.to.include('No page is chosen yet');
		});
	});

	describe('a standing', () => {
		let shown: Shown;
		let view: ReturnType<typeof standingView>;
		before(async () => {
			shown = await screen('/standings/3');
			view = (await dataOf('/standings/3')).data.view as typeof view;
		});

		it('says the own place with its uncertainty, and under how many metrics it is surely first or last', () => {
			const [phone] = view.conditions;
			const own = view.pages.find(({ role }) => role === 'page')!;
			const cell = phone!.rows.find(({ metric }) => metric === 'lcp')!.cells.find(({ page }) => page === own.id)!;
			expect(shown.the('p.answer').text).to.include(`${own.name} is ${cell.words} in Largest Contentful Paint`);
			const ranked = phone!.rows.map(({ cells }) => cells.find(({ page }) => page === own.id)!);
			const first = ranked.filter(({ to }) => to === 1).length;
			expect(shown.the('p.answer').text).to.include(
				first ? `${first} of ${ranked.length} metrics` : 'No metric puts it surely first'
			);
		});

		it('has every metric with each page from the best on, its figure and its place', () => {
			const [, ...rows] = tableOf(shown, 'Places by metric');
			const expected = view.conditions[0]!.rows.flatMap(({ name, lanes }) =>
				lanes.map((lane, i) => [
					...(i ? [] : [name]),
					lane.name,
					plain([lane.figure, lane.range].filter(Boolean).join(' ')),
					'',
					lane.place
				])
			);
			expect(rows).to.deep.equal(expected);
			expect(new Set(expected.map((cells) => cells.at(-4)))).to.deep.equal(new Set(view.pages.map(({ name }) => name)));
		});

		it('sets side by side what they do, with a load behind each cell', () => {
			const [, ...rows] = tableOf(shown, 'Practices');
			expect(rows.map(([name]) => name)).to.deep.equal(view.conditions[0]!.practices.map(({ name }) => name));
			const links = shown
				.all('table')
				.at(-1)!
				.all('a')
				.map((link) => link.attribute('href')!);
			expect(links.every((href) => /^\/loads\/\d+$/.test(href))).to.equal(true);
			expect(shown.text).to.include('These runs were recorded for the demonstration.');
		});
	});

	describe('a watched page', () => {
		let shown: Shown;
		let view: ReturnType<typeof watchedPageView>;
		before(async () => {
			shown = await screen('/watch/1/2?on=phone');
			view = (await dataOf('/watch/1/2?on=phone')).data.view as typeof view;
		});

		it('tells each change with its figures, its time and its likeliest cause', () => {
			const phone = view.conditions.find(({ condition }) => condition === 'phone')!;
			expect(phone.changes.length).to.be.above(1);
			for (const change of phone.changes) {
				expect(shown.text).to.include(plain(change.title));
				expect(shown.text).to.include(plain(change.when));
				for (const line of change.lines) expect(shown.text).to.include(plain(line));
			}
		});

		it('draws a reading for each week in which the lab was on, and says when it was off', () => {
			const chart = shown.all('svg').find((item) => item.all('g[role=img]').length > 40)!;
			const readings = chart
				.all('g[role=img]')
				.map((mark) => mark.attribute('aria-label')!)
				.filter((label) => /\d+ loads from/.test(label));
			expect(readings).to.have.length(50);
			expect(shown.text).to.match(/2 scheduled readings before this did not take place/);
			expect(shown.text).to.match(/The browser changed/);
		});

		it('has its markers, and what a trial proved', () => {
			expect(view.markers.length).to.be.above(1);
			for (const marker of view.markers) expect(shown.text).to.include(marker.words);
		});
	});

	it('lists watched pages with their figures, and filters them by the address', async () => {
		const all = await screen('/watch');
		const rows = (shown: Shown) =>
			shown
				.all('tbody')
				.flatMap((body) => body.all('tr'))
				.map(({ text }) => text);
		expect(rows(all)).to.have.length(3);
		const filtered = rows(await screen('/watch?words=timetable'));
		expect(filtered).to.have.length(1);
		expect(filtered[0]).to.include('/timetable');
		expect((await screen('/watch?words=nothing-like-it')).text).to.include('No page fits these filters.');
	});

	describe('a load', () => {
		let shown: Shown;
		let data: LoadHead;
		before(async () => {
			shown = await screen('/loads/1?open=frames,facts,weight,thread,held,figures,circumstances');
			data = (await dataOf('/loads/1')).data as unknown as LoadHead;
		});

		it('shows its figures under the names of the field', () => {
			for (const name of [
				'Largest Contentful Paint',
				'Cumulative Layout Shift',
				'Total Blocking Time',
				'Time to First Byte'
			])
				expect(shown.text).to.include(name);
		});

		it('has its requests on a time axis, each told in words', () => {
			const rows = shown.all('.timeline-row');
			expect(rows.length).to.be.within(1, 22);
			for (const row of rows) expect(row.text).to.match(/, of .+, (\d{3}|no answer|.+), .+ to .+/);
			const starts = rows.map((row) => Number(/--from:([\d.]+)/.exec(row.the('.wait').attribute('style')!)![1]));
			expect(Math.min(...starts)).to.equal(starts[0]);
			expect(data.requests.length).to.be.at.least(rows.length);
		});

		it('says in a paragraph what its largest paint waited for', () => {
			expect(shown.text).to.match(/first byte/i);
		});
	});

	describe('lists', () => {
		const rows = (shown: Shown) => shown.all('tbody').flatMap((body) => body.all('tr'));

		it('of trials are filtered by state, kind, answer and words', async () => {
			const count = async (query: string) => rows(await screen(`/trials${query}`)).length;
			// Four were recorded: one of a page against itself, two that ask about the chat.
			expect(await count('')).to.be.at.least(4);
			const questions = async (query: string) =>
				rows(await screen(`/trials${query}`)).map((row) => row.all('a')[0]!.text);
			expect(await questions('?kind=same-page')).to.deep.equal(['How far apart are two runs of the same home page?']);
			expect(await questions('?q=chat&state=done')).to.have.members([
				'Did adding the chat make the timetable slower?',
				'Is the timetable faster when the chat starts by a timer?',
				// One of its addresses has the word.
				'Which plugin makes the home page faster?'
			]);
			// On the desktop a plugin is; what a timer puts off is no gain.
			expect(await questions('?verdict=better&q=chat&state=done')).to.deep.equal([
				'Which plugin makes the home page faster?'
			]);
			expect((await screen('/trials?q=zzzz')).text).to.include('No trial fits.');
		});

		it('of loads lead to each load', async () => {
			const shown = await screen('/loads');
			for (const row of rows(shown))
				expect(row.all('a').some((link) => /^\/loads\/\d+/.test(link.attribute('href')!))).to.equal(true);
		});

		it('of pages tell traffic, type and whether they are chosen', async () => {
			const db = await demoDb();
			const { id } = db.prepare("SELECT client_id AS id FROM site WHERE host = 'skerry-line.test'").get() as {
				id: number;
			};
			const shown = await screen('/pages', { client: id });
			expect(rows(shown).length).to.be.above(5);
			expect(shown.text)
				.to.match(/visits/i)
				.and.match(/timetable/);
		});

		it('of everything are found by words', async () => {
			const shown = await screen('/search?q=chat');
			expect(shown.all('a').some((link) => /^\/trials\/\d+$/.test(link.attribute('href')!))).to.equal(true);
			expect((await screen('/search?q=zzzzqq')).text).to.match(/nothing/i);
		});
	});

	it('say on the Desk what needs the analyst, newest first', async () => {
		const shown = await screen('/');
		const { data } = await dataOf('/');
		expect(shown.text).to.include('From what is watched');
		for (const trial of data.recent as { question: string }[]) expect(shown.text).to.include(trial.question);
	});

	it('show the lab with its noise floor, its speed and whether this machine is fit', async () => {
		const shown = await screen('/workshop/lab');
		expect(shown.text)
			.to.match(/noise floor/i)
			.and.match(/loops/);
		expect(shown.texts('button').join('|')).to.match(/noise floor/i);
	});
});
