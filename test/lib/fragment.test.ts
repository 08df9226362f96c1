import { expect } from 'chai';
import { openIn, parseFragment, queryWith, queryWithOpen, writeFragment } from '../../src/lib/fragmentText';

describe('the part of the address behind #', () => {
	it('names a section and what is chosen in it', () => {
		expect(parseFragment('#timeline&owner=bell.test&open=12')).to.deep.equal({
			section: 'timeline',
			values: { owner: 'bell.test', open: '12' }
		});
		expect(parseFragment('')).to.deep.equal({ section: '', values: {} });
		expect(parseFragment('#why')).to.deep.equal({ section: 'why', values: {} });
	});

	it('is read back as it was written, whatever was typed', () => {
		const values = { q: 'a&b=c #d', owner: 'ü.test' };
		expect(parseFragment(writeFragment('timeline', values))).to.deep.equal({ section: 'timeline', values });
	});

	it('leaves out what is not chosen', () => {
		expect(writeFragment('timeline', { q: '', open: '' })).to.equal('#timeline');
	});

	it('says in the query which parts of a sheet are open, and leaves the rest of it', () => {
		expect(queryWithOpen('?metric=tbt', ['why', 'loads'])).to.equal('?metric=tbt&open=why,loads');
		expect(queryWithOpen('?open=why&metric=tbt', [])).to.equal('?metric=tbt');
		expect(queryWithOpen('?open=why', [])).to.equal('');
	});

	it('has some of its values changed, and those that are empty taken away', () => {
		expect(queryWith('?open=why&metric=tbt', { metric: 'cls', variant: '3' })).to.equal(
			'?open=why&metric=cls&variant=3'
		);
		expect(queryWith('?exclude=12', { exclude: '' })).to.equal('');
	});

	it('is read for the parts that it opens', () => {
		expect(openIn(new URLSearchParams('open=why,loads'))).to.deep.equal(['why', 'loads']);
		expect(openIn(new URLSearchParams('open='))).to.deep.equal([]);
		expect(openIn(new URLSearchParams(''))).to.deep.equal([]);
	});
});
