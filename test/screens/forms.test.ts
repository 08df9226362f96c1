import { expect } from 'chai';
import { findWatch, pagesOfWatch } from '../../src/lib/server/rooms/watch/queries/watches';
import { findConditions } from '../../src/lib/server/rooms/conditions/saved';
import { mustSendLines } from '$core/trial/design/mustSend';
import { findClient, listClients } from '../../src/lib/server/rooms/clients/queries/clients';
import { findTrial } from '../../src/lib/server/rooms/trials/trial';
import { agencyOf } from '../../src/lib/server/rooms/reports/queries/agency';
import { demoDb, filled, press, screen, type Pressed } from '../support/svelte/screens';
import type { Shown } from '../support/svelte/show';

/** The number at the end of where a form leads. */
const idIn = (pressed: Pressed): number => {
	expect(pressed).to.have.property('sentTo');
	return Number(/(\d+)(?:$|\?)/.exec((pressed as { sentTo: string }).sentTo)![1]);
};
/** What came back: its status, and the page again with it. */
async function again(path: string, pressed: Pressed): Promise<{ status: number; shown: Shown }> {
	expect(pressed).to.have.property('status');
	const { status, form } = pressed as { status: number; form: unknown };
	return { status, shown: await screen(path, { form }) };
}
const valueOf = (shown: Shown, name: string) => {
	const field = shown.the(`[name=${name}]`);
	return field.name === 'textarea' ? field.rawText : field.attribute('value');
};

describe('forms, as they are filled in and sent', function () {
	this.timeout(60_000);
	before(demoDb);

	describe('a standing', () => {
		const path = '/standings/new';
		const pages = async () => {
			const db = await demoDb();
			return pagesOfWatch(db, 3).map(({ pageId }) => String(pageId));
		};

		it('is begun with its elements, and its form opens again as it was filled in', async () => {
			const shown = await screen(path);
			const shownElements = 'Heading = h1\nPicture = img[alt="x=y"]';
			const client = String(findWatch(await demoDb(), 3)!.clientId);
			const form = filled(shown, {
				clientId: client,
				name: 'Timetables once more',
				pages: await pages(),
				shown: shownElements
			});
			const id = idIn(await press(path, form));
			expect(findWatch(await demoDb(), id)!.settings).to.deep.include({
				loads: 10,
				conditions: ['phone', 'desktop'],
				shown: [
					{ name: 'Heading', selector: 'h1' },
					{ name: 'Picture', selector: 'img[alt="x=y"]' }
				]
			});
			const change = await screen(`/standings/${id}/change`);
			expect(valueOf(change, 'shown')).to.equal(shownElements);
			expect(valueOf(change, 'name')).to.equal('Timetables once more');
			// A new one has no run yet, and says what to expect.
			expect((await screen(`/standings/${id}`)).text).to.include('No run has ended yet.');
		});

		it('says at the field what is wrong, and keeps what was typed', async () => {
			const first = await screen(path);
			const form = filled(first, { name: '', pages: (await pages())[0]!, shown: '#finder' });
			const { status, shown } = await again(path, await press(path, form));
			expect(status).to.equal(422);
			expect(shown.text).to.include('Give it a name.');
			expect(shown.text).to.include('Choose your page and at least one of a competitor.');
			expect(shown.text).to.include('Name the element, then =, then its selector');
			expect(valueOf(shown, 'shown')).to.equal('#finder');
			// What is wrong is not hidden in a closed part.
			const more = shown.all('.bx--accordion__item').find(({ text }) => text.startsWith('Metrics, visitors'))!;
			expect(more.the('button').attribute('aria-expanded')).to.equal('true');
		});
	});

	describe('a watch', () => {
		it('is begun, changed, and keeps to its rules', async () => {
			const db = await demoDb();
			const watch = findWatch(db, 1)!;
			const shown = await screen('/watch/1/change');
			expect(valueOf(shown, 'name')).to.equal(watch.name);
			const bad = filled(shown, { loads: '2', mail: 'nobody' });
			const wrong = await again('/watch/1/change', await press('/watch/1/change', bad));
			expect(wrong.status).to.equal(422);
			expect(wrong.shown.text).to.include('A reading needs at least 3 loads of each page.');
			expect(wrong.shown.text).to.include('This is no mail address.');
			expect(findWatch(db, 1)!.settings.loads).to.equal(watch.settings.loads);
			const good = filled(shown, { loads: '7', mail: 'speed@quillmere.test' });
			expect(await press('/watch/1/change', good)).to.deep.equal({ sentTo: '/watch/1' });
			expect(findWatch(db, 1)!.settings).to.deep.include({
				loads: 7,
				notices: { mail: ['speed@quillmere.test'], hook: null }
			});
			// Nothing else of it was changed by going through the form.
			const { loads: _loads, notices: _notices, ...rest } = findWatch(db, 1)!.settings;
			const { loads: _l, notices: _n, ...before } = watch.settings;
			expect(rest).to.deep.equal(before);
		});
	});

	describe('a client', () => {
		it('is made by name alone; a name that is taken comes back at the field', async () => {
			const path = '/clients/new';
			const id = idIn(await press(path, filled(await screen(path), { name: 'Moth Lane Books' })));
			expect(findClient(await demoDb(), id)!.name).to.equal('Moth Lane Books');
			const twice = await press(path, filled(await screen(path), { name: 'Moth Lane Books' }));
			const { status, shown } = await again(path, twice);
			expect(status).to.be.within(400, 422);
			expect(shown.text).to.match(/Moth Lane Books/);
			expect(valueOf(shown, 'name')).to.equal('Moth Lane Books');
			const nameless = await again(path, await press(path, filled(await screen(path), { name: ' ' })));
			expect(nameless.status).to.equal(422);
		});

		it('is empty at first, and each of its rooms says what comes next', async () => {
			const db = await demoDb();
			const { id } = db.prepare("SELECT id FROM client WHERE name = 'Moth Lane Books'").get() as { id: number };
			for (const [path, words] of [
				[`/clients/${id}`, /site/i],
				['/pages', /site/i],
				['/trials', /trial/i],
				['/watch', /watch/i],
				['/standings', /standing/i],
				['/reports', /report/i],
				['/', /trial|page|client/i]
			] as const) {
				const shown = await screen(path, { client: id });
				expect(shown.text, path).to.match(words);
				expect(shown.all('a,button').length, path).to.be.above(0);
				expect(
					shown.all('tbody tr').filter(({ text }) => /Skerry/.test(text)),
					path
				).to.deep.equal([]);
			}
		});
	});

	describe('conditions', () => {
		const path = '/workshop/conditions/desktop';

		it('show what they are, and come back with what is wrong', async () => {
			const shown = await screen(path);
			const { network } = findConditions(await demoDb(), 'desktop')!;
			const numbers = shown.all('input').map((field) => field.attribute('value'));
			expect(numbers).to.include.members([String(network.roundTripMs), String(network.downKbps)]);
			expect(valueOf(shown, 'name')).to.equal('Desktop');
			const { status, shown: wrong } = await again(path, await press(path, filled(shown, { name: '' }), 'save'));
			expect(status).to.equal(422);
			expect(
				wrong
					.all('.bx--form-requirement')
					.map(({ text }) => text)
					.filter(Boolean)
			).not.to.deep.equal([]);
			expect(findConditions(await demoDb(), 'desktop')!.name).to.equal('Desktop');
		});
	});

	describe('the agency', () => {
		it('is kept as it was written', async () => {
			const path = '/workshop/agency';
			const shown = await screen(path);
			const wrong = await again(path, await press(path, filled(shown, { accent: 'blueish' }), 'save'));
			expect(wrong.status).to.equal(422);
			expect(valueOf(wrong.shown, 'accent')).to.equal('blueish');
			await press(path, filled(shown, { name: 'Quillmere Digital', standing: 'Thank you.' }), 'save');
			expect(agencyOf(await demoDb())).to.include({ name: 'Quillmere Digital', standing: 'Thank you.' });
			expect(valueOf(await screen(path), 'standing')).to.equal('Thank you.');
		});
	});

	describe('a trial', () => {
		const FILMS = ['with', 'without'];
		const path = '/trials/new';

		it('is kept as a draft with what was typed, and its sheet says what it will decide on', async () => {
			const shown = await screen(path);
			const form = filled(shown, {
				question: 'Is the fares page faster without its film?',
				then: 'draft'
			});
			const half = await again(path, await press(path, form));
			expect(half.status).to.equal(422);
			expect(valueOf(half.shown, 'question')).to.equal('Is the fares page faster without its film?');
			expect(half.shown.text).to.match(/address/i);
			FILMS.forEach((film, i) => form.set(`arms.${i}.url`, `https://skerry-line.test/fares?film=${film}`));
			const pressed = await press(path, form);
			const id = idIn(pressed);
			expect(findTrial(await demoDb(), id)).to.deep.include({ status: 'draft' });
			const sheet = await screen(`/trials/${id}`);
			expect(sheet.the('h1').text).to.equal('Is the fares page faster without its film?');
			expect(sheet.texts('td.word').every((word) => word === 'not yet')).to.equal(true);
		});

		it('has what its client keeps for its trials: in the form, changeable, and in the trial', async () => {
			const db = await demoDb();
			const client = listClients(db).find(({ mustSend, targets }) => mustSend.length && targets.length)!;
			const shown = await screen(path, { client: client.id });
			expect(valueOf(shown, 'mustSend')).to.equal(mustSendLines(client.mustSend));
			expect(shown.text).to.include('Largest Contentful Paint, Phone: 2.00 s');
			const drafted = async (changes: Record<string, string>, without?: string) => {
				const form = filled(shown, { question: 'Is it faster without its film?', then: 'draft', ...changes });
				FILMS.forEach((film, i) => form.set(`arms.${i}.url`, `https://skerry-line.test/fares?film=${film}`));
				if (without) form.delete(without);
				return findTrial(db, idIn(await press(path, form)))!.design;
			};
			const usual = await drafted({});
			expect(usual.mustSend).to.deep.equal(client.mustSend);
			expect(usual.conditionTargets).to.deep.equal({ phone: { lcp: 2000 } });
			const own = await drafted({ mustSend: 'Orders: */order*' }, 'ownLimits');
			expect(own.mustSend).to.deep.equal([{ name: 'Orders', pattern: '*/order*' }]);
			expect(own.targets).to.deep.equal({});
			expect(own.conditionTargets).to.equal(undefined);
		});
	});
});
