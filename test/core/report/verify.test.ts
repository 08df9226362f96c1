import { expect } from 'chai';
import { unzipSync } from 'fflate';
import { readFileSync } from 'node:fs';
import { FIGURES, MANIFEST, PAGE, REPORT, trialFile, type Manifest } from '$core/report/bundle';
import { changesBetween } from '$core/report/changes';
import { verifyBundle, type FaultKind } from '$core/report/verify';
import type { FrozenReport, ReportView, TrialEvidence } from '$core/report/view';
import type { LoadRecord } from '$core/load/record';
import { bytesOf, change, edit, goodBundle, signed, sum, textOf, type Change } from '../../support/bundles';

/** Of the largest paint, which the trial decides on first. */
const lcpIn = ({ results }: TrialEvidence) => results.find(({ metric }) => metric === 'lcp')!;
const LOAD = /^loads\//;

/** What was done, whether the manifest was made to fit afterwards, and how it is found. */
const TAMPERINGS: [
	what: string,
	isSigned: boolean,
	by: Change,
	kind: FaultKind,
	file: string | RegExp,
	figure: RegExp
][] = [
	['a byte of the page', false, edit(PAGE, (text) => text.replace('It is', 'It was')), 'sum', PAGE, /SHA/],
	[
		'a load removed',
		false,
		(files) => void files.delete([...files.keys()].find((name) => LOAD.test(name))!),
		'missing',
		LOAD,
		/not there/
	],
	[
		'a file added',
		false,
		(files) => void files.set('loads/999.json', bytesOf('{}')),
		'extra',
		'loads/999.json',
		/not named/
	],
	['no manifest', false, (files) => void files.delete(MANIFEST), 'manifest', MANIFEST, /cannot be read/],
	['a manifest that is no JSON', false, edit(MANIFEST, () => '{'), 'manifest', MANIFEST, /cannot be read/],
	[
		'a manifest of another shape',
		false,
		change<{ format: number }>(MANIFEST, (value) => (value.format = 7)),
		'manifest',
		MANIFEST,
		/cannot be read/
	],
	[
		'a sum in the manifest',
		false,
		change<Manifest>(MANIFEST, ({ files }) => (files[0]!.sha256 = '0')),
		'sum',
		REPORT,
		/SHA/
	],
	[
		'the largest paint of a load',
		true,
		change<LoadRecord>(LOAD, ({ figures }) => (figures.lcp = 10)),
		'figure',
		LOAD,
		/lcp/
	],
	[
		'the bytes of a request',
		true,
		change<LoadRecord>(LOAD, ({ requests }) => (requests[0]!.wireBytes = 1)),
		'figure',
		LOAD,
		/wire/
	],
	[
		'the own figure beside one from elsewhere',
		true,
		change<FrozenReport>(REPORT, ({ view }) => {
			const { body } = view.blocks.find(({ from }) => from === 'outside')!;
			if (body.kind === 'outside') body.items[0]!.own = body.items[0]!.own.replace(/\d/, '9');
		}),
		'figure',
		REPORT,
		/elsewhere: Another program/
	],
	['a request removed', true, change<LoadRecord>(LOAD, (record) => (record.requests = [])), 'figure', LOAD, /requests/],
	[
		'a layout shift added',
		true,
		change<LoadRecord>(LOAD, ({ shifts }) => shifts.push({ atMs: 5, value: 0.3, recentInput: false, elements: [] })),
		'figure',
		LOAD,
		/cls/
	],
	['a record that is none', true, edit(LOAD, () => '{"url":7}'), 'unreadable', LOAD, /record/],
	[
		'a figure of a load in the trial',
		true,
		change<TrialEvidence>(trialFile(3), ({ loads }) => (loads[0]!.figures = { ...loads[0]!.figures, lcp: 1 })),
		'figure',
		trialFile(3),
		/lcp of load/
	],
	[
		'a middle figure in the trial',
		true,
		change<TrialEvidence>(trialFile(3), (trial) => (lcpIn(trial).armMedian = 1)),
		'figure',
		trialFile(3),
		/variant of desktop\/lcp\/2/
	],
	[
		'a shift in the trial',
		true,
		change<TrialEvidence>(trialFile(3), (trial) => (lcpIn(trial).shift!.estimate = -300)),
		'figure',
		trialFile(3),
		/shift of desktop\/lcp\/2/
	],
	[
		'an interval in the trial',
		true,
		change<TrialEvidence>(trialFile(3), (trial) => (lcpIn(trial).shift!.low = 299)),
		'figure',
		trialFile(3),
		/low of desktop\/lcp\/2/
	],
	[
		'a verdict in the trial',
		true,
		change<TrialEvidence>(trialFile(3), (trial) => (lcpIn(trial).verdict = 'better')),
		'figure',
		trialFile(3),
		/verdict of desktop\/lcp\/2/
	],
	[
		'a load left out of the trial',
		true,
		change<TrialEvidence>(trialFile(3), ({ loads }) => loads.splice(0, 2)),
		'figure',
		trialFile(3),
		/desktop\/lcp\/2/
	],
	['a cell of the table', true, edit(FIGURES, (text) => text.replace('worse', 'better')), 'figure', FIGURES, /row \d/],
	[
		'a figure in the words',
		true,
		edit(PAGE, (text) => text.replace(/\d+\s?ms more/, '1 ms more')),
		'figure',
		PAGE,
		/trial\/3\/desktop\/lcp\/2\/shift/
	],
	[
		'a figure in the report',
		true,
		change<{ view: ReportView }>(REPORT, ({ view }) => {
			const { body } = view.blocks[1]!;
			if (body.kind === 'score') body.rows[0]!.after.text = '1.00 s';
		}),
		'figure',
		REPORT,
		/trial\/3\/desktop\/lcp\/2\/variant/
	],
	['the trial removed', true, (files) => void files.delete(trialFile(3)), 'missing', trialFile(3), /not there/]
];

describe('evidence bundles', () => {
	it('that are good have no fault, and every figure of them is computed anew', () => {
		const found = verifyBundle(goodBundle(), sum);
		expect(found.faults).to.deep.equal([]);
		// Twenty loads twice, the parts of two comparisons, four figures of the report and one of its page.
		expect(found.figures).to.be.above(20);
		expect(found.files).to.equal(25);
	});

	for (const [what, isSigned, by, kind, file, figure] of TAMPERINGS)
		it(`are caught with ${what}${isSigned ? ', though the sums fit' : ''}`, () => {
			let files = goodBundle();
			by(files);
			if (isSigned) files = signed(files);
			const { faults } = verifyBundle(files, sum);
			const hit = faults.find(
				(fault) =>
					fault.kind === kind &&
					(typeof file === 'string' ? fault.file === file : file.test(fault.file)) &&
					figure.test(fault.what)
			);
			expect(hit, JSON.stringify(faults.slice(0, 5))).to.not.equal(undefined);
		});

	it('that an earlier version of Zafra made still verify', () => {
		// Written once, when their format was released: a change that breaks it breaks what clients hold.
		const files = unzipSync(readFileSync('test/core/report/bundle-format-1.zip'));
		expect(verifyBundle(new Map(Object.entries(files)), sum).faults).to.deep.equal([]);
	});

	it('with scores of another recipe say so, and call them no fault', () => {
		const files = goodBundle();
		change<FrozenReport>(REPORT, (report) => (report.rules.recipe = 'zafra-1'))(files);
		const found = verifyBundle(signed(files, { recipe: 'zafra-1' }), sum);
		expect(found.otherRules).to.deep.equal([{ of: 'recipe', version: 'zafra-1' }]);
		expect(found.faults).to.deep.equal([]);
	});

	describe('that other rules judged', () => {
		const judgedBy = (alter: (evidence: TrialEvidence) => void) => {
			const files = goodBundle();
			change<FrozenReport>(REPORT, (report) => (report.rules.judge = '1'))(files);
			change<TrialEvidence>(trialFile(3), alter)(files);
			return verifyBundle(signed(files, { judge: '1' }), sum);
		};

		it('say what is judged otherwise today, and call it no fault', () => {
			const found = judgedBy((evidence) => (lcpIn(evidence).verdict = 'undecided'));
			expect(found.otherRules).to.deep.equal([{ of: 'judge', version: '1' }]);
			expect(found.today.join()).to.match(/verdict of .*lcp.*: worse for undecided/);
			expect(found.faults.filter(({ what }) => /verdict of/.test(what))).to.deep.equal([]);
		});

		it('still have middle figures that follow from the loads', () => {
			const found = judgedBy((evidence) => (lcpIn(evidence).armMedian! += 5));
			expect(found.faults.map(({ what }) => what).join()).to.match(/variant of .*lcp/);
		});

		it('say so in the manifest too', () => {
			const files = goodBundle();
			change<FrozenReport>(REPORT, (report) => (report.rules.judge = '1'))(files);
			expect(verifyBundle(signed(files), sum).faults.map(({ what }) => what)).to.deep.equal(['rules: judge']);
		});
	});
});

describe('a new version of a report', () => {
	it('tells which figures and blocks changed since the one before', () => {
		const files = goodBundle();
		const { view } = JSON.parse(textOf(files.get(REPORT)!)) as FrozenReport;
		const next = structuredClone(view);
		const [, scores] = next.blocks;
		if (scores!.body.kind === 'score') scores!.body.rows[0]!.after.text = '9.99 s';
		next.blocks.push({ ...next.blocks[0]!, id: 'more', heading: 'One more', words: [] });
		next.blocks.shift();
		const found = changesBetween(view, next);
		expect(found.added).to.deep.equal(['One more']);
		expect(found.removed).to.deep.equal(['The answer']);
		expect(found.figures).to.have.length(1);
		expect(found.figures[0]).to.include({ after: '9.99 s' });
	});
});
