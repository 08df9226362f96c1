import { expect } from 'chai';
import { unzipSync } from 'fflate';
import { readFileSync } from 'node:fs';
import { MANIFEST, PAGE, REPORT, type Manifest } from '$core/report/bundle';
import { changesBetween } from '$core/report/changes';
import { verifyBundle, type Verification } from '$core/verification/verify';
import { citedIn, type FrozenReport } from '$core/report/view';
import {
	bytesOf,
	change,
	edit,
	goodBundle,
	OTHER,
	signed,
	summed,
	textOf,
	TOOLS,
	type Change
} from '../../support/bundles';
import { bodyIn, COMPUTED, inReport, inTrial, lcpIn, LOAD, nameIn, PICTURE, WRITTEN } from '../../support/tamperings';

const fits = (name: string, file: string | RegExp) => (typeof file === 'string' ? name === file : file.test(name));
const shown = ({ faults }: Verification) => JSON.stringify(faults.slice(0, 5));

describe('evidence bundles', () => {
	const tampered = (by: Change) => {
		const files = goodBundle();
		by(files);
		return files;
	};

	it('that are good have no fault, and every figure of them is computed anew', () => {
		const found = verifyBundle(goodBundle(), TOOLS);
		expect(found.faults).to.deep.equal([]);
		expect(found.end).to.equal('verified');
		// Twenty loads with 22 figures twice, the parts of two comparisons, what is said of each load, HARs and marks.
		expect(found.figures).to.be.above(1000);
	});

	it('are put to a hundred tamperings and more, by three who do it', () => {
		expect(3 * (COMPUTED.length + WRITTEN.length)).to.be.at.least(200);
	});

	for (const [what, by, file, figure] of COMPUTED)
		it(`are forged with ${what}, whoever made the sums fit`, () => {
			const ways = {
				'sums renewed': verifyBundle(summed(tampered(by), 'stale'), TOOLS),
				'signatures taken off': verifyBundle(summed(tampered(by), 'none'), { ...TOOLS, pinned: null }),
				'signed by another key': verifyBundle(signed(tampered(by), {}, OTHER), { ...TOOLS, pinned: null })
			};
			for (const [way, found] of Object.entries(ways)) {
				expect(found.end, way).to.equal('forged');
				const hit = found.faults.find((fault) => fits(fault.file, file) && figure.test(fault.what));
				expect(hit, `${way}: ${shown(found)}`).to.not.equal(undefined);
			}
		});

	for (const [what, by, file] of WRITTEN)
		it(`are never verified with ${what}`, () => {
			const stale = verifyBundle(summed(tampered(by), 'stale'), TOOLS);
			expect(stale.end).to.equal('forged');
			expect(
				stale.faults.some((fault) => fault.kind === 'signature' && fits(fault.file, file)),
				shown(stale)
			).to.equal(true);
			const other = verifyBundle(signed(tampered(by), {}, OTHER), TOOLS);
			expect(other.faults.map(({ what: why }) => why)).to.include('signed by another key');
			const unsigned = verifyBundle(summed(tampered(by), 'none'), { ...TOOLS, pinned: null });
			expect(unsigned.end).to.not.equal('verified');
			const asked = verifyBundle(summed(tampered(by), 'none'), TOOLS);
			expect(asked.faults.map(({ what: why }) => why)).to.include('not signed, though a key was given');
		});

	it('are drawn anew: a page that is not that of the report beside it is found without a signature', () => {
		for (const by of [
			edit(PAGE, (text) => text.replace('It is', 'It was')),
			inReport(({ blocks }) => (blocks[0]!.heading = 'A triumph')),
			edit(PICTURE, () => 'another picture')
		]) {
			const found = verifyBundle(summed(tampered(by), 'none'), { ...TOOLS, pinned: null });
			expect(found.end).to.equal('forged');
			expect(found.faults.map(({ kind, file }) => [kind, file])).to.deep.include(['shown', PAGE]);
		}
	});

	const untouched: [what: string, by: Change, kind: string, file: string | RegExp][] = [
		['a byte of the page', edit(PAGE, (text) => text.replace('It is', 'It was')), 'sum', PAGE],
		['a load removed', (files) => void files.delete(nameIn(files, LOAD)), 'missing', LOAD],
		['a file added', (files) => void files.set('loads/999.json', bytesOf('{}')), 'extra', 'loads/999.json'],
		['no manifest', (files) => void files.delete(MANIFEST), 'manifest', MANIFEST],
		['a manifest that is no JSON', edit(MANIFEST, () => '{'), 'manifest', MANIFEST],
		[
			'a manifest of another shape',
			change<{ format: number }>(MANIFEST, (value) => (value.format = 7)),
			'manifest',
			MANIFEST
		],
		['a sum in the manifest', change<Manifest>(MANIFEST, ({ files }) => (files[0]!.sha256 = '0')), 'sum', /./],
		['a size in the manifest', change<Manifest>(MANIFEST, ({ files }) => files[0]!.bytes++), 'sum', /./],
		['a file named twice', change<Manifest>(MANIFEST, ({ files }) => files.push(files[0]!)), 'extra', /./],
		[
			'another title in the manifest',
			change<Manifest>(MANIFEST, (value) => (value.title = 'Other')),
			'signature',
			MANIFEST
		],
		[
			'another version in the manifest',
			change<Manifest>(MANIFEST, (value) => (value.zafra = '9')),
			'signature',
			MANIFEST
		],
		[
			'another key in the manifest',
			change<Manifest>(MANIFEST, (value) => (value.key = OTHER.key)),
			'signature',
			MANIFEST
		]
	];
	for (const [what, by, kind, file] of untouched)
		it(`are forged with ${what}, though nothing was made to fit`, () => {
			const found = verifyBundle(tampered(by), TOOLS);
			expect(found.end).to.equal('forged');
			const hit = found.faults.some((fault) => fault.kind === kind && fits(fault.file, file));
			expect(hit, shown(found)).to.equal(true);
		});

	it('cannot take a file of another report of the same agency', () => {
		const files = goodBundle();
		const manifest = JSON.parse(textOf(files.get(MANIFEST)!)) as Manifest;
		const other = JSON.parse(textOf(signed(files).get(MANIFEST)!)) as Manifest;
		manifest.number = 2;
		manifest.files = other.files;
		files.set(MANIFEST, bytesOf(manifest));
		const { end, faults } = verifyBundle(files, TOOLS);
		expect(end).to.equal('forged');
		expect(faults.filter(({ kind }) => kind === 'signature').length).to.be.above(10);
	});

	it('that an earlier version of Zafra made have no fault; nobody signed them', () => {
		// Written once, when their format was released: a change that breaks it breaks what clients hold.
		const files = unzipSync(readFileSync('test/core/report/bundle-format-1.zip'));
		const found = verifyBundle(new Map(Object.entries(files)), { ...TOOLS, pinned: null });
		expect([found.end, found.faults, found.key]).to.deep.equal(['unverifiable', [], null]);
	});

	describe('of other rules are not verifiable here, and never called forged for that', () => {
		const made = (versions: { judge?: string; recipe?: string; drawing?: string }, alter: Change = () => undefined) => {
			const files = goodBundle();
			change<FrozenReport>(
				REPORT,
				({ rules }) => void Object.assign(rules, { judge: rules.judge, ...versions, drawing: undefined })
			)(files);
			alter(files);
			return verifyBundle(signed(files, versions), { ...TOOLS, drawing: null });
		};

		it('scores of another recipe, known or not', () => {
			for (const recipe of ['zafra-1', 'zafra-0', '']) {
				const { end, faults, otherRules } = made({ recipe });
				expect([end, faults]).to.deep.equal(['unverifiable', []]);
				expect(otherRules).to.deep.include({ of: 'recipe', version: recipe });
			}
		});

		it('verdicts by other rules: what today’s would say stands beside it', () => {
			const alter = inTrial((trial) => (lcpIn(trial).verdict = 'undecided'));
			for (const judge of ['1', '0', '99']) {
				const { end, faults, today } = made({ judge }, alter);
				expect(today.join(), judge).to.match(/verdict of .*lcp.*"worse" for "undecided"/);
				expect(faults.filter(({ what }) => /verdict of/.test(what))).to.deep.equal([]);
				expect(end).to.not.equal('verified');
			}
		});

		it('invented shifts under other rules are never verified; medians still follow from the loads', () => {
			const invented = made(
				{ judge: '2' },
				inTrial((trial) => (lcpIn(trial).shift!.estimate = -900))
			);
			expect(invented.end).to.not.equal('verified');
			const found = made(
				{ judge: '2' },
				inTrial((trial) => (lcpIn(trial).armMedian! += 5))
			);
			expect(found.end).to.equal('forged');
			expect(found.faults.map(({ what }) => what).join()).to.match(/armMedian of .*lcp/);
		});

		it('say so in the manifest too', () => {
			const files = goodBundle();
			change<FrozenReport>(REPORT, (report) => (report.rules.judge = '1'))(files);
			const { faults } = verifyBundle(signed(files), { ...TOOLS, drawing: null });
			expect(faults.map(({ what }) => what)).to.include('rules: judge');
		});
	});

	it('drawn by another version are held by their signature', () => {
		const found = verifyBundle(signed(goodBundle(), { drawing: 'later' }), TOOLS);
		expect([found.end, found.otherRules]).to.deep.equal(['verified', [{ of: 'drawing', version: 'later' }]]);
	});
});

describe('a new version of a report', () => {
	it('tells which figures and blocks changed since the one before', () => {
		const files = goodBundle();
		const { view } = JSON.parse(textOf(files.get(REPORT)!)) as FrozenReport;
		const next = structuredClone(view);
		// The same figure stands in several blocks.
		const { ref } = bodyIn(next.blocks, 'score').rows[0]!.after;
		for (const figure of citedIn(next)) if (figure.ref === ref) figure.text = '9.99 s';
		next.blocks.push({ ...next.blocks[0]!, id: 'more', heading: 'One more', words: [] });
		next.blocks.shift();
		const found = changesBetween(view, next);
		expect(found.added).to.deep.equal(['One more']);
		expect(found.removed).to.deep.equal(['The answer']);
		expect(found.figures).to.have.length(1);
		expect(found.figures[0]).to.include({ after: '9.99 s' });
	});
});
