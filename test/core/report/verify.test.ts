import { expect } from 'chai';
import { strToU8, unzipSync } from 'fflate';
import { readFileSync } from 'node:fs';
import { FIGURES, loadsFile, MANIFEST, PAGE, REPORT, trialFile, type Manifest } from '$core/report/bundle';
import { changesBetween } from '$core/report/changes';
import { verifyBundle, type Verification } from '$core/report/verify';
import { citedIn } from '$core/report/view';
import type { BlockBody, FrozenReport, ReportView, TrialEvidence } from '$core/report/view';
import type { LoadRecord } from '$core/load/record';
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

/** Of the largest paint, which the trial decides on first. */
const lcpIn = ({ results }: TrialEvidence) => results.find(({ metric }) => metric === 'lcp')!;
const LOAD = /^loads\/\d+\.json$/;
const HAR = /^loads\/\d+\.har$/;
const PICTURE = /^pictures\//;
const TRIAL = trialFile(3);
type Blocks = FrozenReport['view']['blocks'];

const inReport = (by: (view: ReportView, report: FrozenReport) => void) =>
	change<FrozenReport>(REPORT, (report) => by(report.view, report));
function bodyIn<Kind extends BlockBody['kind']>(blocks: Blocks, kind: Kind, id?: string) {
	const block = blocks.find(({ body, id: own }) => body.kind === kind && (id === undefined || own === id))!;
	return block.body as Extract<BlockBody, { kind: Kind }>;
}
const inTrial = (by: (trial: TrialEvidence) => void) => change<TrialEvidence>(TRIAL, by);
const inLoad = (by: (record: LoadRecord) => void) => change<LoadRecord>(LOAD, by);
const nameIn = (files: Map<string, Uint8Array>, name: RegExp) => [...files.keys()].find((key) => name.test(key))!;

/** What follows from the loads: found out without any signature. */
const COMPUTED: [what: string, by: Change, file: string | RegExp, figure: RegExp][] = [
	['the largest paint of a load', inLoad(({ figures }) => (figures.lcp = 10)), LOAD, /lcp/],
	['the bytes of a request', inLoad(({ requests }) => (requests[0]!.wireBytes = 1)), LOAD, /wire/],
	['a request removed', inLoad((record) => (record.requests = [])), LOAD, /requests/],
	[
		'a layout shift added',
		inLoad(({ shifts }) => shifts.push({ atMs: 5, value: 0.3, recentInput: false, elements: [] })),
		LOAD,
		/cls/
	],
	['a record that is none', edit(LOAD, () => '{"url":7}'), LOAD, /record/],
	['the address of a record', inLoad((record) => (record.url = 'http://other.test/')), TRIAL, /address of load/],
	['the time of a record', inLoad((record) => (record.startedAt = '2020-01-01T00:00:00.000Z')), TRIAL, /start of load/],
	['the network of a record', inLoad(({ conditions }) => (conditions!.network.downKbps = 1)), TRIAL, /network of load/],
	['the HAR of a load', edit(HAR, (text) => text.replace('200', '404')), HAR, /not the HAR/],
	['a HAR that is none', edit(HAR, () => 'nothing'), HAR, /no JSON/],
	['the HARs of two loads exchanged', exchanged(HAR), HAR, /not the HAR/],
	[
		'a figure of a load in the trial',
		inTrial(({ loads }) => (loads[0]!.figures = { ...loads[0]!.figures, lcp: 1 })),
		TRIAL,
		/lcp of load/
	],
	['the address of a load in the trial', inTrial(({ loads }) => (loads[0]!.url = 'http://x.test/')), TRIAL, /address/],
	['a load said to have failed', inTrial(({ loads }) => (loads[0]!.status = 'failed')), TRIAL, /state of load/],
	['a load said to be disturbed', inTrial(({ loads }) => (loads[0]!.disturbed = true)), TRIAL, /disturbed/],
	['a load given to the other variant', inTrial(({ loads }) => (loads[0]!.armId = 2)), TRIAL, /page of its variant/],
	[
		'the page of a variant',
		inTrial(({ design }) => (design.arms[1]!.url = 'http://rival.test/')),
		TRIAL,
		/page of its variant/
	],
	[
		'the conditions of the trial',
		inTrial(({ design }) => (design.conditions[0]!.network.roundTripMs = 900)),
		TRIAL,
		/network of load/
	],
	['the device of the trial', inTrial(({ design }) => (design.conditions[0]!.device.width = 320)), TRIAL, /device/],
	[
		'a middle figure in the trial',
		inTrial((trial) => (lcpIn(trial).armMedian = 1)),
		TRIAL,
		/armMedian of desktop\/lcp/
	],
	['a shift in the trial', inTrial((trial) => (lcpIn(trial).shift!.estimate = -300)), TRIAL, /shift of desktop\/lcp/],
	['an interval in the trial', inTrial((trial) => (lcpIn(trial).shift!.low = 299)), TRIAL, /shift of desktop\/lcp/],
	['a verdict in the trial', inTrial((trial) => (lcpIn(trial).verdict = 'better')), TRIAL, /verdict of desktop\/lcp/],
	['a margin in the trial', inTrial((trial) => (lcpIn(trial).margin = 5000)), TRIAL, /margin of desktop\/lcp/],
	['a level in the trial', inTrial((trial) => (lcpIn(trial).level = 0.985)), TRIAL, /level of desktop\/lcp/],
	['a chance in the trial', inTrial((trial) => (lcpIn(trial).adjustedP = 0.5)), TRIAL, /adjustedP of desktop\/lcp/],
	['a target in the trial', inTrial((trial) => (lcpIn(trial).target!.value = 9000)), TRIAL, /target of desktop\/lcp/],
	['a comparison left out', inTrial(({ results }) => results.splice(0, 1)), TRIAL, /is missing/],
	['a comparison invented', inTrial(({ results }) => results.push({ ...results[0]!, arm: 9 })), TRIAL, /\/9$/],
	['a load left out of the trial', inTrial(({ loads }) => loads.splice(0, 2)), TRIAL, /desktop\/lcp\/2/],
	['the seed of the trial', inTrial(({ design }) => (design.looks = [])), TRIAL, /of desktop\/lcp/],
	['a cell of the table', edit(FIGURES, (text) => text.replace('worse', 'better')), FIGURES, /row \d/],
	['a row of the table', edit(FIGURES, (text) => `${text}more\r\n`), FIGURES, /row/],
	['a cell of the table of loads', edit(loadsFile(3), (text) => text.replace('ok', 'failed')), loadsFile(3), /row \d/],
	[
		'a figure in the words',
		edit(PAGE, (text) => text.replace(/\d+\s?ms more/, '1 ms more')),
		PAGE,
		/trial\/3\/desktop\/lcp\/2\/shift/
	],
	[
		'a figure in the report',
		inReport(({ blocks }) => (bodyIn(blocks, 'score').rows[0]!.after.text = '1.00 s')),
		REPORT,
		/trial\/3\/desktop\/lcp\/2\/variant/
	],
	[
		'the own figure beside one from elsewhere',
		inReport(({ blocks }) => {
			const [item] = bodyIn(blocks, 'outside').items;
			item!.own = item!.own.replace(/\d/, '9');
		}),
		REPORT,
		/elsewhere: Another program/
	],
	[
		'a mark of the board',
		inReport(({ blocks }) => (bodyIn(blocks, 'board').boards[0]!.rows[0]!.inMargins!.estimate = -4)),
		REPORT,
		/board: mark of/
	],
	[
		'the verdict of a mark',
		inReport(({ blocks }) => (bodyIn(blocks, 'board').boards[0]!.rows[0]!.verdict = 'better')),
		REPORT,
		/board: mark of/
	],
	[
		'the interval beside the board',
		inReport(({ blocks }) => (bodyIn(blocks, 'board').boards[0]!.rows[0]!.shift = '1 ms less')),
		REPORT,
		/board: interval of/
	],
	[
		'the reference of a mark',
		inReport(({ blocks }) => (bodyIn(blocks, 'board').boards[0]!.rows[0]!.baseline.ref = 'trial/9/x')),
		REPORT,
		/Largest paint|trial\/9/
	],
	[
		'a dot among the loads',
		inReport(({ blocks }) => (bodyIn(blocks, 'estimation').plots[0]!.arms[1]!.values[0] = 100)),
		REPORT,
		/dots: loads of/
	],
	[
		'the words under the dots',
		inReport(({ blocks }) => (bodyIn(blocks, 'estimation').plots[0]!.shift = 'nothing')),
		REPORT,
		/dots: shift of/
	],
	[
		'which frame is shown',
		inReport(({ blocks }) => {
			const [strip] = bodyIn(blocks, 'frames').strips;
			strip!.arms[0]!.pictures[3]!.key = strip!.arms[0]!.pictures[0]!.key;
		}),
		REPORT,
		/frames: frames of/
	],
	['a column of frames', inReport(({ blocks }) => bodyIn(blocks, 'frames').strips[0]!.times.pop()), REPORT, /times of/],
	[
		'frames of a load that nobody has',
		inReport(({ blocks }) => {
			const [strip] = bodyIn(blocks, 'frames').strips;
			for (const picture of strip!.arms[0]!.pictures) picture.key = 'frame/98765/0';
		}),
		REPORT,
		/frames: films of/
	],
	[
		'a cell of the appendix',
		inReport(({ blocks }) => (bodyIn(blocks, 'tables', 'loads').tables[0]!.rows[0]!.cells[4] = '1 ms')),
		REPORT,
		/table of loads/
	],
	['the stamp', inReport(({ labels }) => (labels.stamp = 'Version 7, 1 January 2020')), REPORT, /the stamp/],
	['the number of the version', inReport((_, report) => (report.number = 7)), REPORT, /the number/],
	['the day of freezing', inReport((_, report) => (report.frozenAt = '2020-01-01T00:00:00.000Z')), REPORT, /freezing/],
	['the title', inReport((view) => (view.title = 'Is it quicker?')), REPORT, /the title/],
	['the trial removed', (files) => void files.delete(TRIAL), TRIAL, /not there/],
	['a load removed', (files) => void files.delete(nameIn(files, LOAD)), LOAD, /not there/],
	['a HAR removed', (files) => void files.delete(nameIn(files, HAR)), HAR, /not there/],
	['the page removed', (files) => void files.delete(PAGE), PAGE, /not there/],
	['the table removed', (files) => void files.delete(FIGURES), FIGURES, /not there/],
	['a picture removed', (files) => void files.delete(nameIn(files, PICTURE)), PICTURE, /not there/],
	['the report removed', (files) => void files.delete(REPORT), REPORT, /not there/],
	['a file added', (files) => void files.set('loads/99999.json', bytesOf('{}')), 'loads/99999.json', /no file of this/],
	['a program added', (files) => void files.set('run-me.exe', strToU8('MZ')), 'run-me.exe', /no file of this/],
	['a report that is a list', edit(REPORT, () => '[]'), REPORT, /shape of a report/],
	['a report with no blocks', edit(REPORT, () => '{"trials":[3],"view":{}}'), REPORT, /shape of a report/],
	['a trial that is none', edit(TRIAL, () => 'null'), TRIAL, /holds nothing/],
	[
		'trials that are not there',
		edit(REPORT, (text) => text.replace('"trials":[3]', '"trials":[3,4]')),
		'trials/4.json',
		/not there/
	]
];

/** What only its author can know: held by the signature, and by drawing the page anew. */
const WRITTEN: [what: string, by: Change, file: string | RegExp][] = [
	['a prototype', edit(REPORT, (text) => text.replace('{', '{"__proto__":{"view":1},')), REPORT],
	['a word of the page', edit(PAGE, (text) => text.replace('It is', 'It was')), PAGE],
	['the page replaced', edit(PAGE, () => '<p>All is well, and much faster.</p>'), PAGE],
	['a script in the page', edit(PAGE, (text) => `${text}<script>1</script>`), PAGE],
	['a heading', inReport(({ blocks }) => (blocks[0]!.heading = 'A triumph')), REPORT],
	['a block added', inReport(({ blocks }) => blocks.push({ ...blocks[0]!, id: 'more', words: [] })), REPORT],
	['a block removed', inReport(({ blocks }) => blocks.splice(1, 1)), REPORT],
	['the agency', inReport(({ agency }) => (agency.name = 'Another agency')), REPORT],
	['the client', inReport((view) => (view.client = 'Another client')), REPORT],
	['words from elsewhere', inReport(({ blocks }) => delete bodyIn(blocks, 'outside').items[0]!.rests), REPORT],
	['a picture', edit(PICTURE, () => 'another picture'), PICTURE],
	['two pictures exchanged', exchanged(PICTURE), PICTURE],
	['the words about the bundle', edit('README.txt', () => 'Trust me'), 'README.txt']
];

function exchanged(name: RegExp): Change {
	return (files) => {
		const [first, second] = [...files.keys()].filter((key) => name.test(key));
		const bytes = files.get(first!)!;
		files.set(first!, files.get(second!)!);
		files.set(second!, bytes);
	};
}

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
