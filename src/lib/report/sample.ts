/** A made-up report with every kind of block: drawn to name the way in which reports are drawn. */
import type { BlockBody, ReportView } from '$core/report/view';

const cited = (text: string) => ({ ref: 'trial/1/phone/lcp/2/shift', text });
const mark = { inMargins: { estimate: -2, low: -3, high: -1 }, isExact: false };

const BODIES: Record<BlockBody['kind'], BlockBody> = {
	text: { kind: 'text' },
	answer: {
		kind: 'answer',
		answers: [{ conditions: 'Phone', sentence: 'Yes.', detail: 'Less', tone: 'better', caveats: ['One'] }]
	},
	board: {
		kind: 'board',
		boards: [
			{
				title: 'Phone',
				baseline: 'A',
				variant: 'B',
				rows: (['better', 'worse', 'same', 'slight', 'undecided', 'none'] as const).map((verdict, i) => ({
					...mark,
					isExact: i === 1,
					metric: 'lcp',
					verdict,
					name: 'Largest paint',
					baseline: cited('2.00 s'),
					variant: cited('1.00 s'),
					word: cited(verdict),
					shift: '1.00 s less'
				}))
			}
		]
	},
	score: {
		kind: 'score',
		rows: [
			{
				title: 'Phone',
				before: cited('50'),
				after: cited('70'),
				shift: cited('20 more'),
				parts: [{ name: 'Largest paint', points: 20, text: '+20' }],
				about: 'About'
			}
		]
	},
	estimation: {
		kind: 'estimation',
		plots: [
			{
				title: 'Largest paint',
				unit: 'ms',
				arms: [{ name: 'A', colour: '#1d2b26', values: [1000, 1200], middle: cited('1.10 s') }],
				shift: '1.00 s less'
			}
		]
	},
	frames: {
		kind: 'frames',
		strips: [
			{
				title: 'Phone',
				times: ['0 ms'],
				arms: [{ name: 'A', pictures: [{ key: 'frame/1/0', alt: 'A, 0 ms', width: 384, height: 810 }] }]
			}
		]
	},
	lines: { kind: 'lines', groups: [{ title: 'Group', lines: ['Line'] }] },
	tables: {
		kind: 'tables',
		tables: [{ title: 'Table', head: ['a'], rows: [{ cells: ['1'], bars: [0.5] }] }],
		about: 'x'
	},
	recommendations: { kind: 'recommendations', items: [{ what: 'Do', facts: [{ name: 'Cost', text: '1' }] }] },
	outside: { kind: 'outside', items: [{ said: 'Said', own: 'Own', lines: ['Line'], rest: 'Rest' }] },
	missing: { kind: 'missing', why: 'Gone' }
};

export const SAMPLE: ReportView = {
	title: 'Sample',
	language: 'en',
	client: 'Client',
	agency: { name: 'Agency', contact: 'Contact', accent: '', logo: 'logo', standing: 'Standing' },
	labels: {
		better: 'better',
		inside: 'inside',
		worse: 'worse',
		metric: 'metric',
		verdict: 'verdict',
		stamp: 'stamp',
		contents: 'contents',
		preparedFor: 'for',
		by: 'by'
	},
	blocks: Object.values(BODIES).map((body) => ({
		id: body.kind,
		from: 'text',
		heading: body.kind,
		words: [
			{ type: 'paragraph', content: [{ type: 'figure', ...cited('1 s'), about: 'about', isMissing: false }] },
			{ type: 'list', items: [[{ type: 'text', text: 'point', marks: ['bold'] }]] }
		] as ReportView['blocks'][number]['words'],
		body
	}))
};
