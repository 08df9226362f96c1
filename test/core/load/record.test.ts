import { expect } from 'chai';
import Ajv from 'ajv';
import { readFileSync } from 'node:fs';
import { parseRecord } from '$core/load/record/parseRecord';
import { SCHEMA_FILE, schemaText } from '../../../scripts/schema';
import { recordOf, requestOf } from '../../support/records';

describe('the load record', () => {
	const whole = () => recordOf({ requests: [requestOf({ url: 'https://a.test/x.js', during: 'step 2' })] });

	it('is read as it was written, and completed where an earlier version wrote less', () => {
		const written = JSON.parse(JSON.stringify(whole())) as unknown;
		expect(parseRecord(written)).to.deep.equal(written);
		const { steps: _steps, heldBack: _heldBack, ...early } = whole();
		expect(parseRecord(early)).to.deep.include({ steps: [], heldBack: null });
	});

	it('is refused with the field that cannot be read', () => {
		expect(() => parseRecord({ ...whole(), labMs: 'long' })).to.throw(/at labMs: .*number/);
		const odd = { ...whole(), requests: [{ ...requestOf(), during: 'step two' }] };
		expect(() => parseRecord(odd)).to.throw(/at requests.0.during/);
		expect(() => parseRecord('x')).to.throw(/no object/);
	});

	it('has a published JSON Schema that is up to date and says the same (JSON Schema draft 7)', () => {
		expect(readFileSync(SCHEMA_FILE, 'utf8')).to.equal(schemaText());
		const validate = new Ajv().compile(JSON.parse(schemaText()) as object);
		expect(validate(whole()), JSON.stringify(validate.errors)).to.equal(true);
		expect(validate({ ...whole(), labMs: 'long' })).to.equal(false);
		expect(validate({ ...whole(), requests: [{ ...requestOf(), during: 'step two' }] })).to.equal(false);
	});
});
