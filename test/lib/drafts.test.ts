import { expect } from 'chai';
import * as v from 'valibot';
import { LibraryComponent } from '$core/setups/component';
import { TEMPLATES } from '$core/trial/design/templates';
import {
	addressesIn,
	armDraft,
	armsForKind,
	differsFrom,
	kindOf,
	nameOfAddress,
	pasteAddresses
} from '../../src/routes/trials/new/drafts';
import { blankComponent, offersOf, typedSetup } from '../../src/lib/parts/setupDraft';
import { isEmptySetup, setupFrom } from '../../src/lib/server/rooms/setups/setupForm';
import { Invalid } from '../../src/lib/server/base/parse';
import { typedTemplate } from '../../src/lib/server/rooms/trials/form';

const template = (id: string) => TEMPLATES.find((found) => found.id === id)!;
const given = { clientId: '', conditions: ['phone'], primary: ['lcp'], mustSend: '', limits: false };

describe('a trial while it is being written', () => {
	it('finds addresses in pasted text, and adds https where nothing is said', () => {
		expect(addressesIn('https://a.test/x\nhttp://b.test, c.test/fares;  d.test')).to.deep.equal([
			'https://a.test/x',
			'http://b.test',
			'https://c.test/fares',
			'https://d.test'
		]);
		expect(addressesIn('Timetable and fares')).to.deep.equal([]);
	});

	it('fills the variants from where it was pasted, keeps names, and adds what is missing', () => {
		const arms = [armDraft({ name: 'As it is', url: 'https://old.test/' }), armDraft()];
		const pasted = pasteAddresses(arms, 0, ['https://a.test/', 'https://www.b.test/x/', 'https://c.test'], 8);
		expect(pasted.map(({ name, url }) => [name, url])).to.deep.equal([
			['As it is', 'https://a.test/'],
			['b.test/x', 'https://www.b.test/x/'],
			['c.test', 'https://c.test']
		]);
		expect(pasteAddresses(arms, 1, ['https://a.test', 'https://b.test'], 2)).to.have.length(2);
		expect(nameOfAddress('http://www.a.test/')).to.equal('a.test');
	});

	it('keeps typed addresses when the kind of question changes', () => {
		const typed = [
			armDraft({ name: 'A', url: 'https://a.test' }),
			armDraft({ name: 'B', url: 'https://b.test' }),
			armDraft({ name: 'C', url: 'https://c.test' })
		];
		expect(armsForKind(typed, 'same-page', template('noise')).map(({ url }) => url)).to.deep.equal(['https://a.test']);
		expect(armsForKind(typed, 'sweep', template('sweep'))).to.have.length(4);
		expect(armsForKind([armDraft()], 'sweep', template('sweep')).map(({ page }) => page)).to.deep.equal([
			'Home',
			'Home',
			'Article',
			'Article'
		]);
		expect(armsForKind(typed.slice(0, 1), 'side-by-side', template('candidates'))).to.have.length(2);
	});

	it('takes a kind that does not exist for the first', () => {
		expect(kindOf({ kind: 'nonsense' })).to.equal('side-by-side');
		expect(kindOf({ kind: 'sweep' })).to.equal('sweep');
	});
});

describe('a draft', () => {
	it('is one only once something was typed or chosen', () => {
		const start = typedTemplate(template('change'), given);
		expect(differsFrom(typedTemplate(template('change'), given), start)).to.equal(false);
		expect(differsFrom({ ...start, conditions: [] }, start)).to.equal(true);
		expect(
			differsFrom({ ...start, arms: [armDraft({ name: 'Before', url: 'https://a.test' }), start.arms[1]!] }, start)
		).to.equal(true);
	});
});

describe('a setup while it is being typed', () => {
	const typed = (components: ReturnType<typeof blankComponent>[], features: string, effortHours: number | null) =>
		setupFrom({ components, features, effortHours });

	it('reads features line by line', () => {
		const setup = typed([blankComponent(), { ...blankComponent(), name: 'Larder' }], 'Web fonts: off\nChat\n\n', 2);
		expect(setup.features).to.deep.equal({ 'Web fonts': false, Chat: true });
		expect(setup.components.map(({ name }) => name)).to.deep.equal(['Larder']);
		expect(typedSetup(setup).features).to.equal('Web fonts: off\nChat: on');
	});

	it('is empty until something is said', () => {
		expect(isEmptySetup(typed([blankComponent()], ' \n', null))).to.equal(true);
		expect(isEmptySetup(typed([], '', 0))).to.equal(false);
	});

	it('says at its own field what is wrong', () => {
		const bad = { ...blankComponent(), name: 'Larder', kind: 'spell' };
		expect(() => setupFrom({ components: [bad], features: '', effortHours: null }, 'arms.1.setup'))
			.to.throw(Invalid)
			.with.nested.property('issues[0].path', 'arms.1.setup.components.0.kind');
	});
});

describe('components of the library', () => {
	const library = (more: object) => v.parse(LibraryComponent, { kind: 'plugin', name: 'Larder', ...more });

	it('are offered to a setup in each of their tiers, a year as twelfths', () => {
		const prices = [
			{ tier: 'free', price: 0, per: 'month' },
			{ tier: 'studio', price: 96, per: 'year' }
		];
		const offers = offersOf([library({ prices, versions: ['1.0', '2.1'], jobs: ['page cache'] })]);
		expect(offers.map(({ text, component }) => [text, component.tier, component.monthlyCost])).to.deep.equal([
			['Larder, free', 'free', 0],
			['Larder, studio', 'paid', 8]
		]);
		expect(offers[0]!.component).to.deep.include({ version: '2.1', jobs: ['page cache'] });
	});

	it('without a price are offered once, and with the settings of their first file', () => {
		const settings = [
			{ name: 'a.json', text: '{"minify":true}' },
			{ name: 'b.json', text: '{}' }
		];
		expect(offersOf([library({ settings })])).to.deep.equal([
			{
				text: 'Larder',
				component: {
					kind: 'plugin',
					name: 'Larder',
					version: '',
					tier: 'unknown',
					monthlyCost: null,
					jobs: [],
					settings: '{"minify":true}'
				}
			}
		]);
	});
});
