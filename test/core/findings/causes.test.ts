import { expect } from 'chai';
import { NO_COST, NO_EVIDENCE, type Finding, type RuleId } from '$core/findings/finding';
import { causesOf, type AuditedPage } from '$core/findings/causes';
import { findingsOfPage, isUsual } from '$core/findings/pageFindings';
import { fateOf } from '$core/findings/since';

const finding = (rule: RuleId, key: string, bytes: number | null = null): Finding => ({
	rule,
	resource: { kind: 'address', name: `https://own.test${key}`, key },
	cost: { ...NO_COST, bytes },
	evidence: NO_EVIDENCE,
	saving: null,
	limit: { most: 0, unit: 'count' },
	values: {}
});
const loads = (...found: Finding[][]) => findingsOfPage(found.map((findings, load) => ({ load, findings })));
const page = (number: number, findings: Finding[], extra: Partial<AuditedPage> = {}): AuditedPage => ({
	page: number,
	condition: 'phone',
	share: null,
	missed: {},
	findings: loads(findings, findings, findings),
	...extra
});

describe('findings over loads and pages', () => {
	it('are counted over the loads of a page, with the median of what they cost', () => {
		const [once, thrice] = loads(
			[finding('picture-early', '/a', 10_000), finding('broken-request', '/b')],
			[finding('picture-early', '/a', 30_000)],
			[finding('picture-early', '/a', 20_000)]
		).sort((a, b) => a.seen.k - b.seen.k);
		expect(thrice).to.deep.include({ seen: { k: 3, n: 3 }, load: 0 });
		expect(thrice!.cost.bytes).to.equal(20_000);
		expect([isUsual(thrice!), isUsual(once!)]).to.deep.equal([true, false]);
	});

	it('of one resource are one cause, on so many pages and for so much of the visits', () => {
		const [cause, ...others] = causesOf([
			page(1, [finding('script-never-run', '/app.js', 40_000)], { share: 0.5 }),
			page(1, [finding('script-never-run', '/app.js', 30_000)], { condition: 'desktop', share: 0.5 }),
			page(2, [finding('script-never-run', '/app.js', 50_000)], { share: 0.12 }),
			page(3, [], { share: 0.38 })
		]);
		expect(others).to.deep.equal([]);
		expect(cause!.pages).to.deep.equal({ k: 2, m: 3, which: [1, 2] });
		expect(cause!.visits).to.be.closeTo(0.62, 1e-9);
		expect(cause!.seen).to.deep.equal({ k: 9, n: 9 });
		expect(cause!.bytes).to.equal(50_000);
		expect(cause!.example).to.include({ page: 2, condition: 'phone' });
	});

	it('rank by what they cost where it matters, against the effort', () => {
		const late: Finding = {
			...finding('largest-late-found', '/hero'),
			cost: { ...NO_COST, metric: 'lcp', delay: 300 }
		};
		const large = finding('picture-too-large', '/pic', 40_000);
		const order = (missed: AuditedPage['missed']) =>
			causesOf([page(1, [late, large], { missed })]).map(({ rule }) => rule);
		// 300 ms are three margins of the largest paint, 40 kB four of the bytes.
		expect(order({})).to.deep.equal(['picture-too-large', 'largest-late-found']);
		// Where the largest paint misses its target it counts twice.
		expect(order({ lcp: 300 })).to.deep.equal(['largest-late-found', 'picture-too-large']);
		const [first] = causesOf([page(1, [late], { missed: { lcp: 300 } })]);
		expect(first!.hurts).to.equal('lcp');
	});

	it('that were seen now and then are no cause', () => {
		const rare = { ...page(1, []), findings: loads([finding('broken-request', '/b')], [], []) };
		expect(causesOf([rare])).to.deep.equal([]);
	});

	it('are gone, left, new or not seen this time; gone needs three good loads', () => {
		const usual = loads(...[1, 2, 3].map(() => [finding('redirects', '/')]));
		const rare = loads([finding('redirects', '/')], [], []);
		const none = loads([], [], []);
		const key = { rule: 'redirects', resource: '/' };
		const fate = (before: typeof usual, now: typeof usual, goodLoads = 3) => fateOf(key, { before, now, goodLoads });
		expect(fate(usual, none)).to.equal('gone');
		expect(fate(usual, none, 2)).to.equal('not-seen');
		expect(fate(usual, rare)).to.equal('not-seen');
		expect(fate(usual, usual)).to.equal('left');
		expect(fate(none, usual)).to.equal('new');
		expect(fate(none, rare)).to.equal(null);
		expect(fate(rare, none)).to.equal(null);
	});
});
