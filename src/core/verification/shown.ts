/** Whether what a report shows follows from the figures beside it: words with figures, boards, dots, frames, tables. */
import { boardMark } from '../trial/judge/board';
import { countedLoads } from '../trial/judge/counted';
import type { LoadRecord } from '../load/record/record';
import { tellOutside } from '../wording/outside';
import { wordDay, wordFigure, wordShiftIn } from '../wording/report';
import { reportWordsIn, type ReportWords } from '../wording/reportWords';
import { appendixTables } from '../wording/appendixTables';
import { PAGE, REPORT, resultOf } from '../report/bundle';
import { columnsOfFilms, frameKey } from '../report/filmStrip';
import { ownFiguresIn } from '../report/outside';
import {
	citedIn,
	type BlockBody,
	type BlockView,
	type FrozenReport,
	type ReportView,
	type TrialEvidence
} from '../report/view';
import type { Files } from './tools';
import { fault, isSame, type Fault } from './faults';
import { textOf } from './sums';

type Body<Kind extends BlockBody['kind']> = Extract<BlockBody, { kind: Kind }>;

export class ShownCheck {
	readonly faults: Fault[] = [];
	figures = 0;
	#words: ReportWords;

	constructor(
		private readonly files: Files,
		private readonly view: ReportView,
		/** As they follow from their loads. */
		private readonly trials: readonly TrialEvidence[],
		private readonly records: ReadonlyMap<number, LoadRecord>
	) {
		this.#words = reportWordsIn(view.language);
	}

	run(): void {
		for (const { ref, text } of citedIn(this.view)) this.#cited(REPORT, ref, text);
		for (const block of this.view.blocks) this.#block(block);
		this.#page();
	}

	/** The stamp under the title names the version and its day. */
	stamp({ number, frozenAt }: Pick<FrozenReport, 'number' | 'frozenAt'>): void {
		const day = wordDay(frozenAt, this.view.language);
		this.#same('the stamp', this.view.labels.stamp, this.#words.say('report.stamp', { number, day }));
	}

	#block({ id, from, body }: BlockView): void {
		if (body.kind === 'outside') return this.#outside(id, body);
		if (body.kind === 'board') return this.#boards(id, body);
		if (body.kind === 'estimation') return this.#dots(id, body);
		if (body.kind === 'frames') return this.#frames(id, body);
		if (body.kind === 'tables' && from === 'appendix') this.#appendix(id, body);
	}

	#same(what: string, found: unknown, expected: unknown): void {
		this.figures++;
		if (isSame(found, expected)) return;
		const [is, should] = [found, expected].map((value) => (typeof value === 'string' ? value : JSON.stringify(value)));
		this.faults.push(fault('figure', REPORT, what, is, should));
	}

	#cited(file: string, ref: string, text: string): void {
		this.figures++;
		const figure = resultOf(this.trials, ref);
		const expected = figure ? wordFigure(figure.result, figure.part, this.#words) : '';
		if (text !== expected) this.faults.push(fault('figure', file, ref, text, expected));
	}

	/** Marks and intervals of each row, by the result that its figures name. */
	#boards(id: string, { boards }: Body<'board'>): void {
		for (const row of boards.flatMap(({ rows }) => rows)) {
			const judged = resultOf(this.trials, row.baseline.ref);
			if (!judged) {
				this.#same(`${id}: ${row.name}`, row.baseline.ref, 'a comparison of the trials');
				continue;
			}
			const { metric, verdict, inMargins, isExact } = boardMark(judged.result);
			const found = { metric: row.metric, verdict: row.verdict, inMargins: row.inMargins, isExact: row.isExact };
			this.#same(`${id}: mark of ${row.name}`, found, { metric, verdict, inMargins, isExact });
			this.#same(`${id}: interval of ${row.name}`, row.shift, wordShiftIn(judged.result, this.#words));
		}
	}

	#dots(id: string, { plots }: Body<'estimation'>): void {
		for (const { title, arms, shift } of plots) {
			const judgedArms = arms.map(({ middle }) => resultOf(this.trials, middle.ref));
			const [first] = judgedArms;
			const trial = first && this.trials.find(({ results }) => results.includes(first.result));
			if (!first || !trial) {
				this.#same(`${id}: ${title}`, arms[0]?.middle.ref ?? '', 'a comparison of the trials');
				continue;
			}
			const { condition, metric, baseline, arm } = first.result;
			const counted = countedLoads(trial.design, trial.loads).filter(({ conditionId }) => conditionId === condition);
			const valuesOf = (armId: number) =>
				counted.filter((load) => load.armId === armId).flatMap(({ figures }) => figures[metric] ?? []);
			const found = arms.map(({ values }) => values);
			this.#same(`${id}: loads of ${title}`, found, [valuesOf(baseline), valuesOf(arm)]);
			this.#same(`${id}: shift of ${title}`, shift, wordShiftIn(first.result, this.#words));
		}
	}

	/** Which frame stands at which time follows from the frames of the loads. */
	#frames(id: string, { strips }: Body<'frames'>): void {
		for (const { title, times, arms } of strips) {
			const loads = arms.map(({ pictures }) => Number(pictures[0]?.key.split('/')[1]));
			const films = loads.map((load) => {
				const record = this.records.get(load);
				return record ? { load, frames: record.frames, lcpMs: record.lcp?.atMs ?? null } : null;
			});
			if (films.some((film) => film === null)) {
				this.#same(`${id}: films of ${title}`, loads, 'loads of the trials');
				continue;
			}
			const shown = films.filter((film) => film !== null);
			const columns = columnsOfFilms(shown);
			this.#same(`${id}: times of ${title}`, times.length, columns.length);
			const keys = arms.map(({ pictures }) => pictures.map(({ key }) => key));
			this.#same(
				`${id}: frames of ${title}`,
				keys,
				shown.map((film) => columns.map((atMs) => frameKey(film, atMs)))
			);
		}
	}

	#appendix(id: string, { tables }: Body<'tables'>): void {
		const own = this.trials.map(({ design, loads }) => appendixTables(design, loads, this.#words));
		if (own.some((expected) => isSame(tables, expected))) this.figures++;
		else this.#same(`${id}: table of loads`, tables, own[0] ?? []);
	}

	/** What is said of figures from elsewhere, where it rests on loads of a trial. */
	#outside(id: string, { items }: Body<'outside'>): void {
		for (const { rests, ...found } of items) {
			const trial = rests && this.trials.find((candidate) => candidate.id === rests.of.trial);
			if (!rests || !trial) continue;
			const expected = tellOutside(rests.figure, ownFiguresIn(trial, rests.of, rests.figure), this.#words);
			const [is, should] = [found, expected].map(({ said, own, lines, rest }) => [said, own, ...lines, rest].join(' '));
			this.#same(`${id}: ${rests.figure.program}`, is, should);
		}
	}

	/** Figures stand in the page with their references: what is read there is what follows from the loads. */
	#page(): void {
		const bytes = this.files.get(PAGE);
		if (!bytes) return;
		for (const [, ref, text] of textOf(bytes).matchAll(/data-figure="([^"]+)"[^>]*>([^<]*)</g))
			this.#cited(PAGE, unescaped(ref!), unescaped(text!));
	}
}

const ENTITIES: Record<string, string> = { amp: '&', lt: '<', gt: '>', quot: '"', '#39': "'" };
const unescaped = (text: string) => text.replace(/&(amp|lt|gt|quot|#39);/g, (_, name: string) => ENTITIES[name]!);
