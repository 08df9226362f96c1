/** Made-up evidence bundles of reports, and changes to them. */
import { expect } from 'chai';
import { createHash, generateKeyPairSync, sign } from 'node:crypto';
import { loadsCsv } from '$core/formats/csv';
import { harOf } from '$core/formats/har';
import {
	ABOUT,
	FIGURES,
	figuresCsv,
	harFile,
	loadFile,
	loadsFile,
	MANIFEST,
	PAGE,
	pictureFile,
	REPORT,
	reportFile,
	trialFile,
	type Manifest
} from '$core/report/bundle';
import { appendixTables } from '$core/wording/appendixTables';
import { fileSeal, manifestSeal } from '$core/report/seal';
import { citedIn, picturesIn } from '$core/report/view';
import type { Drawing, Tools } from '$core/verification/verify';
import { boardMark } from '$core/trial/judge/board';
import { isSignedBy } from '../../src/lib/server/rooms/reports/signing';
import type { OutsideFigure } from '$core/report/document';
import { formatRef } from '$core/report/figureRef';
import { ownFiguresIn } from '$core/report/outside';
import type { BlockView, FrozenReport, ReportView, TrialEvidence } from '$core/report/view';
import type { LoadRecord } from '$core/load/record/record';
import { judge, JUDGE_VERSION } from '$core/trial/judge/judge';
import { LAB_RECIPE } from '$core/metrics/score';
import { tellOutside } from '$core/wording/outside';
import { wordDay, wordFigure, wordShiftIn } from '$core/wording/report';
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

export const FROZEN_AT = '2026-11-27T10:00:00.000Z';

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
			stamp: english.say('report.stamp', { number: 1, day: wordDay(FROZEN_AT, 'en') }),
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
			boardOf(evidence),
			dotsOf(evidence),
			framesOf(evidence),
			{
				id: 'loads',
				from: 'appendix',
				heading: 'Loads',
				words: [],
				body: { kind: 'tables', tables: appendixTables(evidence.design, evidence.loads, english), about: '' }
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

function boardOf(evidence: TrialEvidence): BlockView {
	const result = evidence.results.find(({ metric }) => metric === 'lcp')!;
	const row = {
		...boardMark(result),
		name: 'Largest paint',
		baseline: cited(evidence, 'baseline'),
		variant: cited(evidence, 'variant'),
		word: cited(evidence, 'verdict'),
		shift: wordShiftIn(result, english)
	};
	const boards = [{ title: 'Desktop', baseline: 'A', variant: 'B', rows: [row] }];
	return { id: 'board', from: 'board', heading: 'The board', words: [], body: { kind: 'board', boards } };
}

function dotsOf(evidence: TrialEvidence): BlockView {
	const result = evidence.results.find(({ metric }) => metric === 'lcp')!;
	const side = (arm: number, part: 'baseline' | 'variant') => ({
		name: String(arm),
		colour: '#1d2b26',
		values: evidence.loads.filter(({ armId }) => armId === arm).map(({ figures }) => figures.lcp!),
		middle: cited(evidence, part)
	});
	const arms = [side(result.baseline, 'baseline'), side(result.arm, 'variant')];
	const plots = [{ title: 'Largest paint', unit: 'ms', arms, shift: wordShiftIn(result, english) }];
	return { id: 'dots', from: 'estimation', heading: 'Loads', words: [], body: { kind: 'estimation', plots } };
}

/** Two frames of a load: blank, and the page from 150 ms on. */
const FRAME_TIMES = [0, 150];
/** Largest paints up to 2.5 s: six columns of half a second, of which the first is blank. */
const COLUMNS = [0, 1, 1, 1, 1, 1];
const TIMES = ['0 ms', '500 ms', '1.00 s', '1.50 s', '2.00 s', '2.50 s'];

function framesOf({ loads }: TrialEvidence): BlockView {
	const arms = loads.slice(0, 2).map(({ id, armId }) => ({
		name: String(armId),
		pictures: COLUMNS.map((frame) => ({ key: `frame/${id}/${frame}`, alt: '', width: 400, height: 300 }))
	}));
	const strips = [{ title: 'Desktop', times: TIMES, arms }];
	return { id: 'frames', from: 'frames', heading: 'Frames', words: [], body: { kind: 'frames', strips } };
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
		const { url } = plan.arms.find(({ id }) => id === load.armId)!;
		const record = recordOf({
			url,
			finalUrl: url,
			status: 'ok',
			lcp: { ...LCP, atMs: load.figures.lcp! },
			frames: FRAME_TIMES.map((atMs, progress) => ({ atMs, progress })),
			conditions: plan.conditions[0]!,
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
		frozenAt: FROZEN_AT,
		rules: { judge: JUDGE_VERSION, recipe: LAB_RECIPE.version },
		view,
		trials: [evidence],
		pictures: picturesIn(view)
	};
	const files = new Map<string, Uint8Array>([
		[ABOUT, bytesOf('About')],
		[REPORT, bytesOf(reportFile(frozen))],
		[FIGURES, bytesOf(figuresCsv([evidence]))],
		[trialFile(3), bytesOf(evidence)],
		[
			loadsFile(3),
			bytesOf(
				loadsCsv(
					plan.arms,
					loads.map((load) => ({ ...load, reason: null, capped: false }))
				)
			)
		],
		...frozen.pictures.map((key) => [pictureFile(key), bytesOf(`picture ${key}`)] as const),
		...[...records].flatMap(([id, record]) => [
			[loadFile(id), bytesOf(record)] as const,
			[harFile(id), bytesOf(harOf(record, ZAFRA))] as const
		])
	]);
	files.set(PAGE, bytesOf(DRAWING.draw(view, OWN.key, (key) => files.get(pictureFile(key)) ?? null)));
	return signed(files);
}

const ZAFRA = '1.0';
const BY_HAND = { format: 2 as const, title: 'Is it slower?', number: 1, frozenAt: FROZEN_AT, zafra: ZAFRA };

/** Stands for what draws reports: figures with their references, all words, all pictures. */
export const DRAWING: Drawing = {
	version: 'by hand',
	draw: (view, key, pictureOf) => {
		const figures = citedIn(view).map(({ ref, text }) => `<span title="x" data-figure="${ref}">${text}</span>`);
		const pictures = picturesIn(view).map(pictureOf);
		return `<p>It is ${figures.join(' ')}</p>${JSON.stringify(view)}${pictures.map((bytes) => (bytes ? sum(bytes) : '')).join()}${key}`;
	}
};

interface Signer {
	key: string;
	sign(bytes: Uint8Array): string;
}

function newSigner(): Signer {
	const { publicKey, privateKey } = generateKeyPairSync('ed25519');
	return {
		key: publicKey.export({ format: 'jwk' }).x!,
		sign: (bytes) => sign(null, bytes, privateKey).toString('base64url')
	};
}

/** The agency's, and somebody else's. */
export const OWN = newSigner();
export const OTHER = newSigner();

export const TOOLS: Tools = { sha256: sum, isSigned: isSignedBy, pinned: OWN.key, drawing: DRAWING };

type Versions = Partial<Manifest['rules']> & { drawing?: string };

/** With a manifest that fits its files, signed. */
export function signed(
	files: Map<string, Uint8Array>,
	versions: Versions = {},
	by: Signer = OWN
): Map<string, Uint8Array> {
	const { drawing = DRAWING.version, ...rules } = versions;
	const head = {
		...BY_HAND,
		rules: { judge: JUDGE_VERSION, recipe: LAB_RECIPE.version, ...rules },
		drawing,
		key: by.key
	};
	const listed = listOf(files).map((file) => ({ ...file, signature: by.sign(fileSeal(head, file)) }));
	const manifest = { ...head, files: listed };
	return withManifest(files, { ...manifest, signature: by.sign(manifestSeal(manifest)) });
}

/** With a manifest whose sums fit, by somebody who has no key: signatures stay as they were, or go. */
export function summed(files: Map<string, Uint8Array>, signatures: 'stale' | 'none'): Map<string, Uint8Array> {
	const before = JSON.parse(textOf(files.get(MANIFEST)!)) as Manifest;
	const old = new Map(before.files.map((file) => [file.name, file.signature]));
	const [anySignature] = old.values();
	const listed = listOf(files).map((file) =>
		signatures === 'none' ? file : { ...file, signature: old.get(file.name) ?? anySignature }
	);
	const { signature, key, ...head } = before;
	return withManifest(
		files,
		signatures === 'none' ? { ...head, files: listed } : { ...head, key, files: listed, signature }
	);
}

const listOf = (files: Map<string, Uint8Array>) =>
	[...files]
		.filter(([name]) => name !== MANIFEST)
		.map(([name, bytes]) => ({ name, bytes: bytes.length, sha256: sum(bytes) }));

function withManifest(files: Map<string, Uint8Array>, manifest: Manifest): Map<string, Uint8Array> {
	return new Map([...files].filter(([name]) => name !== MANIFEST)).set(MANIFEST, bytesOf(manifest));
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
