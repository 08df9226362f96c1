import { expect } from 'chai';
import { pairPages } from '$core/pages/pairs';
import { SAME_TEMPLATE, skeletonLikeness, skeletonOf } from '$core/pages/skeleton';
import { patternOf, proposeTypes, typeOfAddress } from '$core/pages/types';

const html = (body: string) => `<!doctype html><html><head><title>x</title></head><body>${body}</body></html>`;
const PRODUCT = (name: string) =>
	html(
		`<main class="product"><h1>${name}</h1><div class="gallery"><img></div><p class="price">3</p><button class="buy">Buy</button></main>`
	);
const ARTICLE = (paragraphs: number) =>
	html(
		`<main class="article"><h1>A</h1><div class="byline"><time></time></div>${'<p>words</p>'.repeat(paragraphs)}</main>`
	);

describe('the skeleton of a page', () => {
	it('is its tags and classes, not its content or how often they come', () => {
		expect(skeletonOf(ARTICLE(2))).to.deep.equal(skeletonOf(ARTICLE(30)));
		expect([...skeletonOf(html('<ul class="b a"><li>x</li></ul>'))]).to.include.members(['body>ul.a.b', 'ul.a.b>li']);
	});

	it('leaves out code, and classes that name a single thing', () => {
		const pieces = [...skeletonOf(html('<div class="post-1234 entry"><script>var a</script></div>'))];
		expect(pieces).to.include('body>div.entry');
		expect(pieces.join()).not.to.match(/script|1234/);
	});

	it('is alike within a template and not between templates', () => {
		const [bean, kale, news] = [PRODUCT('Bean'), PRODUCT('Kale'), ARTICLE(5)].map(skeletonOf) as [
			Set<string>,
			Set<string>,
			Set<string>
		];
		expect(skeletonLikeness(bean, kale)).to.equal(1);
		expect(skeletonLikeness(bean, news)).to.be.below(SAME_TEMPLATE);
		expect(skeletonLikeness(new Set(), new Set())).to.equal(1);
	});
});

describe('page types', () => {
	it('follow from words of the address, in English and Spanish', () => {
		const typeOf = (url: string) => typeOfAddress(url)?.type ?? null;
		expect(typeOf('https://a.test/')).to.equal('home');
		expect(typeOf('https://a.test/contacto')).to.equal('contact');
		expect(typeOf('https://a.test/products/bean')).to.equal('product');
		expect(typeOf('https://a.test/contact.html')).to.equal('contact');
		expect(typeOf('https://a.test/timetable')).to.equal(null);
		expect(patternOf('https://a.test/islands/outer')).to.equal('/islands/*');
	});

	it('follow from folders, and from markup where the address says nothing', () => {
		const skeleton = (text: string) => skeletonOf(text);
		const pages = [
			{ id: 1, url: 'https://a.test/', skeleton: null },
			{ id: 2, url: 'https://a.test/islands/inner', skeleton: null },
			{ id: 3, url: 'https://a.test/islands/outer', skeleton: null },
			{ id: 4, url: 'https://a.test/bean', skeleton: skeleton(PRODUCT('Bean')) },
			{ id: 5, url: 'https://a.test/kale', skeleton: skeleton(PRODUCT('Kale')) },
			{ id: 6, url: 'https://a.test/how-to-sow', skeleton: skeleton(ARTICLE(4)) },
			{ id: 7, url: 'https://a.test/unknown', skeleton: null }
		];
		const proposals = proposeTypes(pages).map(({ type, by, pages: ids }) => [type, by, ids]);
		expect(proposals).to.deep.include(['home', 'front-page', [1]]);
		expect(proposals).to.deep.include(['islands', 'address', [2, 3]]);
		expect(proposals).to.deep.include(['bean', 'markup', [4, 5]]);
		expect(proposals).to.deep.include(['how to sow', 'markup', [6]]);
		expect(proposeTypes(pages).flatMap(({ pages: ids }) => ids)).not.to.include(7);
	});

	it('takes pages into the type that their markup is like, whatever their address', () => {
		const skeleton = skeletonOf(PRODUCT('x'));
		const pages = [
			{ id: 1, url: 'https://a.test/product/bean', skeleton },
			{ id: 2, url: 'https://a.test/special-offer', skeleton }
		];
		expect(proposeTypes(pages)).to.deep.equal([{ type: 'product', by: 'address', pages: [1, 2] }]);
	});
});

describe('pages of competitors', () => {
	const page = (id: number, url: string, type: string | null, visits: number | null = null, chosen = false) => ({
		id,
		url,
		type,
		visits,
		chosen
	});

	it('stand beside own pages of their type: the chosen one, else the busiest', () => {
		const own = [
			page(1, 'https://own.test/', 'home', 900),
			page(2, 'https://own.test/a', 'article', 50),
			page(3, 'https://own.test/b', 'article', 20, true)
		];
		const theirs = [page(4, 'https://their.test/', 'home'), page(5, 'https://their.test/x', null)];
		expect(pairPages(own, [{ name: 'They', pages: theirs }])).to.deep.equal([
			{
				type: 'home',
				own: 'https://own.test/',
				ownId: 1,
				others: [{ site: 'They', url: 'https://their.test/', id: 4 }]
			},
			{ type: 'article', own: 'https://own.test/b', ownId: 3, others: [{ site: 'They', url: null, id: null }] }
		]);
	});
});
