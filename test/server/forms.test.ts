import { expect } from 'chai';
import * as v from 'valibot';
import { Agency } from '$core/report/agency';
import { Invalid } from '../../src/lib/server/base/parse';
import { NotPossible } from '../../src/lib/server/base/refusal';
import { Figure, Text, Texts, Tick } from '../../src/lib/server/http/fields';
import { formAction, formOf } from '../../src/lib/server/http/form';

const Rows = v.object({
	name: Text,
	isOn: Tick,
	marks: Texts,
	rows: v.optional(v.array(v.object({ what: Text, much: Figure })), [])
});

const send = (fields: [string, string][]) => {
	const body = new FormData();
	for (const [name, value] of fields) body.append(name, value);
	return { request: new Request('http://zafra.test', { method: 'POST', body }) };
};
const echo = formAction(Rows, (typed) => ({ typed }));

describe('the door for forms', () => {
	it('reads texts, ticks, lists and rows by the names of their fields', async () => {
		const fields: [string, string][] = [
			['name', 'Larder'],
			['isOn', ''],
			['marks', 'a'],
			['marks', 'b'],
			['rows.0.what', 'paid'],
			['rows.0.much', '2.5'],
			['rows.1.what', 'free'],
			['rows.1.much', '']
		];
		expect(await echo(send(fields))).to.deep.nested.include({
			typed: {
				name: 'Larder',
				isOn: true,
				marks: ['a', 'b'],
				rows: [
					{ what: 'paid', much: 2.5 },
					{ what: 'free', much: null }
				]
			}
		});
		expect(await echo(send([]))).to.deep.nested.include({ typed: { name: '', isOn: false, marks: [], rows: [] } });
	});

	it('gives back what was typed, with each issue at its field and those of a list beside its rows', async () => {
		const refuse = formAction(Rows, () => {
			throw new Invalid([
				{ path: 'rows', message: 'Too few.' },
				{ path: 'rows.1.what', message: 'Name it.' }
			]);
		});
		const answer = await refuse(send([['name', 'Larder']]));
		expect(answer).to.deep.nested.include({ status: 422, 'data.problem': 'Too few.', 'data.form.data.name': 'Larder' });
		expect(answer).to.deep.nested.include({
			'data.form.errors': { rows: { _errors: ['Too few.'], 1: { what: ['Name it.'] } } }
		});
	});

	it('says of a wish that cannot be carried out why, with its status', async () => {
		const refuse = formAction(Rows, () => {
			throw new NotPossible(409, 'It runs.');
		});
		const answer = await refuse(send([]));
		expect(answer).to.deep.nested.include({
			status: 409,
			'data.problem': 'It runs.',
			'data.form.errors': { _errors: ['It runs.'] }
		});
	});

	it('says of a schema’s own issue what it says, at its field alone', async () => {
		const save = formAction(Agency, () => undefined);
		const answer = await save(send([['accent', 'blueish']]));
		expect(answer).to.deep.nested.include({ status: 422, 'data.problem': 'Write a colour as #1F6F54.' });
		expect(answer).to.deep.nested.include({ 'data.form.errors': { accent: ['Write a colour as #1F6F54.'] } });
		expect(answer).to.nested.include({ 'data.form.data.accent': 'blueish' });
	});

	it('refuses what no page of ours sends, at once', async () => {
		for (const field of [
			['rows.99999999.what', 'x'],
			['__superform_json', '[{"rows":1},[-7,4294967295]]'],
			['__superform_json', '{"rows":'],
			['name.x', 'x']
		] as [string, string][])
			expect(await echo(send([['name', 'x'], field])), field.join()).to.have.property('status', 400);
	});

	it('lets a fault of our own through', async () => {
		const broken = formAction(Rows, () => {
			throw new TypeError('a fault');
		});
		expect(await broken(send([])).catch((error: Error) => error.message)).to.equal('a fault');
	});

	it('shows a form first without any complaint', async () => {
		expect(await formOf(Agency, { accent: 'blueish' })).to.deep.include({ errors: {} });
	});
});
