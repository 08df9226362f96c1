/** Made-up evidence bundles of reports, and changes to them. */
import { expect } from 'chai';
import { createHash } from 'node:crypto';
import {
	FIGURES,
	figuresCsv,
	loadFile,
	MANIFEST,
	PAGE,
	REPORT,
	reportFile,
	trialFile,
	type Manifest
} from '$core/report/bundle';
import type { OutsideFigure } from '$core/report/document';
import { formatRef } from '$core/report/figureRef';
import { ownFiguresIn } from '$core/report/outside';
import type { FrozenReport, ReportView, TrialEvidence } from '$core/report/view';
import type { LoadRecord } from '$core/load/record';
import { judge, JUDGE_VERSION } from '$core/trial/judge';
import { LAB_RECIPE } from '$core/metrics/score';
import { tellOutside } from '$core/wording/outside';
import { wordFigure } from '$core/wording/report';
import { reportWordsIn } from '$core/wording/reportWords';
import { recordOf, requestOf } from './records';
import { design, looked, rounds } from './trials';

export const sum = (bytes: Uint8Array) => createHash('sha256').update(bytes).digest('hex');
export const bytesOf = (value: unknown) =>
	new TextEncoder().encode(typeof value === 'string' ? value : JSON.stringify(value));
export const textOf = (bytes: Uint8Array) => new TextDecoder().decode(bytes);
const english = reportWordsIn('en');

const cited = (evidence: TrialEvidence, part: 'baseline' | 'variant' | 'shift' | 'verdict') => {
	const result = evidence.results.find(({ metric }) => metric === 'lcp')!;
	const ref = formatRef({ trial: evidence.id, condition: 'desktop', metric: 'lcp', arm: 2, part });
	return { ref, text: wordFigure(result, part, english) };
};

const ELSEWHERE: OutsideFigure = {
	program: 'Another program',
	metric: 'lcp',
	value: 3.1,
	unit: 's',
	device: 'desktop',
	place: '',
	day: '',
	scope: 'page',
	from: 'lab',
	loads: 1,
	definition: null
};

function viewOf(evidence: TrialEvidence): ReportView {
	const shift = cited(evidence, 'shift');
	const of = { trial: evidence.id, condition: 'desktop', arm: 1 };
	const outside = {
		...tellOutside(ELSEWHERE, ownFiguresIn(evidence, of, ELSEWHERE), english),
		rests: { figure: ELSEWHERE, of }
	};
	return {
		title: 'Is it slower?',
		language: 'en',
		client: 'Skerry Line',
		agency: { name: 'Quillmere Digital', contact: '', accent: '', logo: null, standing: '' },
		labels: {
			better: '',
			inside: '',
			worse: '',
			metric: '',
			verdict: '',
			stamp: '',
			contents: '',
			preparedFor: '',
			by: ''
		},
		blocks: [
			{
				id: 'answer',
				from: 'answer',
				heading: 'The answer',
				words: [{ type: 'paragraph', content: [{ type: 'figure', ...shift, about: '', isMissing: false }] }],
				body: { kind: 'text' }
			},
			{
				id: 'score',
				from: 'score',
				heading: 'Largest paint',
				words: [],
				body: {
					kind: 'score',
					rows: [
						{
							title: '',
							before: cited(evidence, 'baseline'),
							after: cited(evidence, 'variant'),
							shift: cited(evidence, 'verdict'),
							parts: [],
							about: ''
						}
					]
				}
			},
			{
				id: 'elsewhere',
				from: 'outside',
				heading: 'Figures from elsewhere',
				words: [],
				body: { kind: 'outside', items: [outside] }
			}
		]
	};
}

const LCP: NonNullable<LoadRecord['lcp']> = {
	atMs: 0,
	size: 1000,
	selector: 'h1',
	tag: 'h1',
	url: null,
	box: null,
	text: 'Timetable'
};

/** A good bundle of one trial with twenty loads, whose bytes and largest paint follow from their records. */
export function goodBundle(): Map<string, Uint8Array> {
	const plan = looked(design({ primary: ['lcp', 'wire'] }));
	const records = new Map<number, LoadRecord>();
	const loads = rounds(300).map((load) => {
		const url = `http://a${load.armId}.test/`;
		const record = recordOf({
			url,
			finalUrl: url,
			status: 'ok',
			lcp: { ...LCP, atMs: load.figures.lcp! },
			requests: [requestOf({ url, type: 'document', wireBytes: 500_000, decodedBytes: 900_000 })],
			figures: { lcp: load.figures.lcp, cls: 0, wire: 500_000, decoded: 900_000, requests: 1 }
		});
		records.set(load.id, record);
		return { ...load, figures: record.figures, startedAt: record.startedAt, url };
	});
	const { results } = judge(plan, loads);
	const evidence: TrialEvidence = { id: 3, question: 'Is it slower?', design: plan, loads, results };
	const view = viewOf(evidence);
	const frozen: FrozenReport = {
		format: 1,
		number: 1,
		frozenAt: '2026-11-27T10:00:00.000Z',
		rules: { judge: JUDGE_VERSION, recipe: LAB_RECIPE.version },
		view,
		trials: [evidence],
		pictures: []
	};
	const { ref, text } = cited(evidence, 'shift');
	const files = new Map<string, Uint8Array>([
		[REPORT, bytesOf(reportFile(frozen))],
		[PAGE, bytesOf(`<p>It is <span title="x" data-figure="${ref}">${text}</span></p>`)],
		[FIGURES, bytesOf(figuresCsv([evidence]))],
		[trialFile(3), bytesOf(evidence)],
		...[...records].map(([id, record]) => [loadFile(id), bytesOf(record)] as const)
	]);
	return signed(files);
}

/** With a manifest that fits its files. */
export function signed(
	files: Map<string, Uint8Array>,
	rules: Partial<Manifest['rules']> = {}
): Map<string, Uint8Array> {
	const own = new Map([...files].filter(([name]) => name !== MANIFEST));
	const manifest: Manifest = {
		format: 1,
		title: 'Is it slower?',
		number: 1,
		frozenAt: '2026-11-27T10:00:00.000Z',
		rules: { judge: JUDGE_VERSION, recipe: LAB_RECIPE.version, ...rules },
		files: [...own].map(([name, bytes]) => ({ name, bytes: bytes.length, sha256: sum(bytes) }))
	};
	return own.set(MANIFEST, bytesOf(manifest));
}

export type Change = (files: Map<string, Uint8Array>) => void;
export const edit =
	(name: string | RegExp, by: (text: string) => string): Change =>
	(files) => {
		const found = [...files.keys()].find((key) => (typeof name === 'string' ? key === name : name.test(key)))!;
		const before = textOf(files.get(found)!);
		const after = by(before);
		expect(after, found).to.not.equal(before);
		files.set(found, bytesOf(after));
	};
export const change = <Shape>(name: string | RegExp, by: (value: Shape) => void) =>
	edit(name, (text) => {
		const value = JSON.parse(text) as Shape;
		by(value);
		return JSON.stringify(value);
	});
