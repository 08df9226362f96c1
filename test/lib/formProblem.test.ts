import { expect } from 'chai';
import { errorAt, firstError } from '../../src/lib/firstError';
import { problemOf } from '../../src/lib/formProblem';

describe('what a page says of a form that could not be carried out', () => {
	const answer = (errors: object) => ({ problem: 'It runs.', form: { id: 'a', errors } });

	it('is said where no field of a form on the page says it', () => {
		expect(problemOf(answer({ rounds: ['It runs.'] }), { form: { id: 'b' }, where: 'Trials' })).to.equal('It runs.');
		expect(problemOf(answer({ name: ['It runs.'] }), { form: { id: 'a' } })).to.equal('');
		expect(problemOf(answer({ _errors: ['It runs.'] }), { form: { id: 'a' } })).to.equal('It runs.');
	});

	it('is nothing where nothing went wrong', () => {
		expect(problemOf(null, {})).to.equal('');
		expect(problemOf({ saved: true, form: { id: 'a', errors: {} } }, { form: { id: 'a' } })).to.equal('');
	});
});

describe('errors of a form', () => {
	const errors = { _errors: ['All'], rows: { _errors: ['Too few'], 1: { what: ['Name it', 'Shorter'] } } };

	it('are found at a field, at a row, and at a list before its rows', () => {
		expect(errorAt(errors, 'rows.1.what')).to.equal('Name it');
		expect(errorAt(errors, 'rows.1')).to.equal('Name it');
		expect(errorAt(errors, 'rows')).to.equal('Too few');
		expect(errorAt(errors, '')).to.equal('All');
		expect(errorAt(errors, 'rows.0.what')).to.equal('');
		expect(errorAt({}, 'name')).to.equal('');
		expect(firstError({ rows: { 1: { what: ['Name it'] } } })).to.equal('Name it');
	});
});
