/** What can be done to an evidence bundle, and where it shows. */
import { strToU8 } from 'fflate';
import { FIGURES, loadsFile, PAGE, REPORT, trialFile } from '$core/report/bundle';
import type { BlockBody, FrozenReport, ReportView, TrialEvidence } from '$core/report/view';
import type { LoadRecord } from '$core/load/record/record';
import { bytesOf, change, edit, type Change } from './bundles';

/** Of the largest paint, which the trial decides on first. */
export const lcpIn = ({ results }: TrialEvidence) => results.find(({ metric }) => metric === 'lcp')!;
export const LOAD = /^loads\/\d+\.json$/;
const HAR = /^loads\/\d+\.har$/;
export const PICTURE = /^pictures\//;
export const TRIAL = trialFile(3);
type Blocks = FrozenReport['view']['blocks'];

export const inReport = (by: (view: ReportView, report: FrozenReport) => void) =>
	change<FrozenReport>(REPORT, (report) => by(report.view, report));
export function bodyIn<Kind extends BlockBody['kind']>(blocks: Blocks, kind: Kind, id?: string) {
	const block = blocks.find(({ body, id: own }) => body.kind === kind && (id === undefined || own === id))!;
	return block.body as Extract<BlockBody, { kind: Kind }>;
}
export const inTrial = (by: (trial: TrialEvidence) => void) => change<TrialEvidence>(TRIAL, by);
const inLoad = (by: (record: LoadRecord) => void) => change<LoadRecord>(LOAD, by);
export const nameIn = (files: Map<string, Uint8Array>, name: RegExp) =>
	[...files.keys()].find((key) => name.test(key))!;

/** What follows from the loads: found out without any signature. */
export const COMPUTED: [what: string, by: Change, file: string | RegExp, figure: RegExp][] = [
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
export const WRITTEN: [what: string, by: Change, file: string | RegExp][] = [
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
