import { expect } from 'chai';
import { setTimeout as pause } from 'node:timers/promises';
import type { Autosave } from '../../src/routes/reports/[id]/autosave.svelte';

type Draft = Parameters<Autosave['change']>[0];
type Report = Autosave['report'];

const report = { id: 7, revision: 3 } as Report;
const draft = (title: string) => ({ title }) as unknown as Draft;

/** A server that answers when the test says so. */
function server() {
	const own = globalThis as unknown as { fetch: unknown };
	const before = own.fetch;
	const asked: { address: string; body: { draft: { title: string }; revision: number }; answer: Answer }[] = [];
	type Answer = (status: number | null, body?: object) => void;
	own.fetch = (address: string, { body }: { body: string }) =>
		new Promise((resolve, reject) => {
			const answer: Answer = (status, given = {}) =>
				status === null
					? reject(new TypeError('fetch failed'))
					: resolve({ ok: status < 400, json: () => Promise.resolve(given) });
			asked.push({ address, body: JSON.parse(body), answer });
		});
	return { asked, end: () => (own.fetch = before) };
}

describe('a draft that saves itself', () => {
	let web: ReturnType<typeof server>;
	let saving: Autosave;
	beforeEach(async () => {
		web = server();
		const { Autosave: Made } = await import('../../src/routes/reports/[id]/autosave.svelte');
		saving = new Made(report);
	});
	afterEach(() => web.end());
	/** Until what was answered has been taken. */
	const settle = () => pause(5);

	it('is sent once it rests, over the revision that was read, and takes what the server made of it', async () => {
		saving.change(draft('One'));
		expect(saving.state).to.equal('changed');
		expect(web.asked).to.deep.equal([]);
		const saved = saving.save();
		expect(web.asked[0]).to.deep.include({ address: '/api/reports/7', body: { draft: { title: 'One' }, revision: 3 } });
		web.asked[0]!.answer(200, { id: 7, revision: 4 });
		expect(await saved).to.equal(true);
		expect(saving.state).to.equal('saved');
		expect(saving.report.revision).to.equal(4);
	});

	it('sends what was typed meanwhile after that, over the new revision', async () => {
		saving.change(draft('One'));
		const saved = saving.save();
		saving.change(draft('Two'));
		saving.change(draft('Three'));
		expect(await saving.save(), 'a second wish waits').to.equal(false);
		web.asked[0]!.answer(200, { id: 7, revision: 4 });
		await settle();
		expect(web.asked.map(({ body }) => [body.draft.title, body.revision])).to.deep.equal([
			['One', 3],
			['Three', 4]
		]);
		web.asked[1]!.answer(200, { id: 7, revision: 5 });
		expect(await saved).to.equal(true);
	});

	it('keeps what was typed when the server does not answer, and sends it at the next press', async () => {
		saving.change(draft('One'));
		const lost = saving.save();
		web.asked[0]!.answer(null);
		expect(await lost).to.equal(false);
		expect(saving.state).to.equal('failed');
		expect(saving.problem).to.match(/stays here/);
		const again = saving.save();
		expect(web.asked[1]!.body.draft.title).to.equal('One');
		web.asked[1]!.answer(200, { id: 7, revision: 4 });
		expect(await again).to.equal(true);
		expect(saving.problem).to.equal('');
	});

	it('says what the server says, issue by issue, and does not overwrite what somebody else saved', async () => {
		saving.change(draft('One'));
		const refused = saving.save();
		const issues = [{ message: 'The title is empty.' }, { message: 'The language is not known.' }];
		web.asked[0]!.answer(422, { error: { message: 'Not saved', issues } });
		expect(await refused).to.equal(false);
		expect(saving.problem).to.equal('The title is empty. The language is not known.');
		expect(saving.report.revision).to.equal(3);
		const conflict = saving.save();
		web.asked[1]!.answer(409, { error: { message: 'Somebody else has saved this report.', issues: [] } });
		expect(await conflict).to.equal(false);
		expect(saving.problem).to.equal('Somebody else has saved this report.');
	});

	it('has nothing to send where nothing was changed', async () => {
		expect(await saving.save()).to.equal(true);
		expect(web.asked).to.deep.equal([]);
	});
});
