import { expect } from 'chai';
import * as v from 'valibot';
import { elementLines, NamedElements, parseElements } from '$core/load/journey/namedElement';
import { markupLikeness } from '$core/load/record/signature';
import { timingsIn } from '$core/compare/digest';

describe('elements that somebody named', () => {
	const problem = (text: string) => {
		const { issues } = v.safeParse(NamedElements, parseElements(text));
		return issues?.[0].message ?? 'allowed';
	};

	it('are written a line each, name first, and come back as they were', () => {
		const text = 'Search form = #search\nHero = img[data-role="hero"]';
		expect(parseElements(`${text}\n\n`)).to.deep.equal([
			{ name: 'Search form', selector: '#search' },
			{ name: 'Hero', selector: 'img[data-role="hero"]' }
		]);
		expect(elementLines(parseElements(text))).to.equal(text);
		expect(problem(text)).to.equal('allowed');
		expect(problem('')).to.equal('allowed');
	});

	it('need a name each, a selector, and are few', () => {
		expect(problem('#search')).to.include('Name the element, then =');
		expect(problem('Search form =')).to.include('Give a selector after the =');
		expect(problem('A = #a\nA = #b')).to.include('same name');
		expect(problem(Array.from({ length: 6 }, (_, i) => `${i} = #a${i}`).join('\n'))).to.equal('At most 5 elements.');
	});

	it('are timings of a load as its own marks are; of one that never came there is none', () => {
		const shown = [
			{ name: 'Search form', selector: '#search', atMs: 700 },
			{ name: 'Map', selector: '#map', atMs: null }
		];
		expect(timingsIn({ marks: [{ name: 'hero', atMs: 300, durationMs: null }], shown })).to.deep.equal({
			'Search form': 700,
			hero: 300
		});
	});
});

describe('likeness of markup by signatures', () => {
	it('is the share of equal numbers, and unknown without one of both', () => {
		expect(markupLikeness([1, 2, 3, 4], [1, 2, 9, 4])).to.equal(0.75);
		expect(markupLikeness([], [1])).to.equal(null);
		expect(markupLikeness([1], [])).to.equal(null);
	});
});
