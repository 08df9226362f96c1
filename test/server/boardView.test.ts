import type { LateKind } from '$core/compare/late/facts';
import type { LateLoadView } from '../../src/lib/server/rooms/trials/queries/lateView';
import { expect } from 'chai';
import { judge } from '$core/trial/judge/judge';
import { boardsOf, stripsOf } from '../../src/lib/server/rooms/trials/boardView';
import { partLines, type PartsInput } from '../../src/lib/server/rooms/trials/sheet/lines';
import { NO_SETUP } from '$core/trial/design/setup';
import { blankComponent } from '../../src/lib/parts/setupDraft';
import { wordsIn } from '$core/wording/words';
import { arm, design, load, rounds } from '../support/trials';

const looked = { looks: [{ rounds: 10, spent: 0.04, by: 'plan' as const }] };
const slower = rounds(400);
const trial = design(looked);

describe('the answer of a trial as boards', () => {
	it('has a row for each metric that the trial decides on, in the order in which it was chosen', () => {
		const [board] = boardsOf('Is it slower?', { design: trial, judgement: judge(trial, slower) });
		expect(board).to.include({ condition: 'desktop', name: 'Desktop' });
		expect(board!.answers[0]!.rows.map(({ metric, verdict }) => [metric, verdict])).to.deep.equal([
			['lcp', 'worse'],
			['wire', 'same']
		]);
		expect(board!.answers[0]!.sentence).to.equal('Yes. “Changed” is slower than “As it is”.');
		expect(board!.answers[0]).to.include({ arm: 2, armName: 'Changed', baselineName: 'As it is', page: null });
	});

	it('names what it will decide on before the first look, and shows nothing', () => {
		const early = design();
		const [board] = boardsOf('Is it slower?', { design: early, judgement: judge(early, slower.slice(0, 4)) });
		expect(board!.answers).to.deep.equal([]);
		expect(board!.metrics).to.deep.equal(['Largest paint', 'Bytes']);
		expect(stripsOf('Is it slower?', early, judge(early, slower))).to.deep.equal({ strips: [], more: 0 });
	});

	it('stands what must be said beside the verdict it belongs to', () => {
		const caveat = { broke: 'It broke.', held: '', restsOn: ['compression'] };
		const caveats = [
			{ condition: 'desktop', arm: 2, ...caveat },
			{ condition: 'phone', arm: 2, broke: 'Not here.', held: '', restsOn: [] }
		];
		const [board] = boardsOf('Is it?', { design: trial, judgement: judge(trial, slower), caveats });
		expect(board!.answers[0]!.caveats).to.deep.equal(caveat);
	});

	it('puts all pages of a sweep first, and says many variants in few sentences', () => {
		const arms = ['Home', 'Article', 'Shop'].flatMap((page, i) => [
			arm(2 * i + 1, 'Without', { page, baseline: true }),
			arm(2 * i + 2, 'With', { page, baseline: false })
		]);
		const sweep = design({ ...looked, kind: 'sweep', arms });
		const loads = [0, 1, 2].flatMap((pair) =>
			rounds(400).map((round) => ({ ...round, id: round.id + 1000 * pair, armId: round.armId + 2 * pair }))
		);
		const [board] = boardsOf('Is it slower?', { design: sweep, judgement: judge(sweep, loads) });
		expect(board!.answers.map(({ arm: id, page }) => [id, page])).to.deep.equal([
			[0, 'All 3 pages'],
			[2, 'Home'],
			[4, 'Article'],
			[6, 'Shop']
		]);
		// In a list the pages stand together.
		expect(stripsOf('Is it slower?', sweep, judge(sweep, loads)).strips).to.have.length(1);
	});

	it('counts the lines that a list leaves out', () => {
		const arms = [1, 2, 3, 4, 5, 6, 7].map((id) => arm(id, `Builder ${id}`));
		const many = design({ ...looked, arms });
		const loads = arms.flatMap(({ id }) =>
			slower.filter(({ armId }) => armId === 1).map((load) => ({ ...load, armId: id }))
		);
		const { strips, more } = stripsOf('Which is fastest?', many, judge(many, loads));
		expect([strips.length, more]).to.deep.equal([4, 2]);
		expect(strips[0]!.marks.map(({ short, word }) => [short, word])[1]).to.deep.equal([
			'Bytes',
			'identical in every round'
		]);
	});

	it('speaks a client’s language', () => {
		const [board] = boardsOf('¿Es más lenta?', {
			design: trial,
			judgement: judge(trial, slower),
			caveats: [],
			words: wordsIn('es')
		});
		expect(board!.answers[0]!.sentence).to.equal('Sí. «Changed» es más lenta que «As it is».');
		expect(board!.metrics[0]).to.equal('Renderizado principal');
	});
});

describe('the parts of a sheet in a line each', () => {
	const summary = (returnType: ReturnType<typeof load>) =>
		({ ...returnType, figures: { ...returnType.figures, requests: 12 } }) as unknown as PartsInput['loads'][number];
	const input = (extra: Partial<PartsInput> = {}): PartsInput => ({
		isLabOff: false,
		design: trial,
		judgement: judge(trial, slower),
		evidence: { pending: false, arms: [], films: [], stepEvidence: [] },
		loads: slower.map(summary),
		outlying: {},
		metric: 'lcp',
		isOpen: false,
		late: [],
		worth: [{ words: 'It loses 400 ms.' }],
		repeats: 0,
		...extra
	});
	const findings = (extra: Partial<PartsInput> = {}) =>
		Object.fromEntries(partLines(input(extra)).map(({ id, finding }) => [id, finding]));

	it('say what is not there yet, and why', () => {
		expect(findings().why).to.equal('Being worked out from the records');
		expect(findings({ isOpen: true }).fairness).to.equal('Worked out once the loads have ended');
		expect(findings().held).to.equal('Not checked what comes late');
	});

	it('count loads, those that failed and those that were excluded', () => {
		const loads = slower.map(summary).map((item, i) => ({
			...item,
			status: i === 0 ? ('failed' as const) : item.status,
			excluded: i === 1 ? 'a delivery came' : null
		}));
		const found = findings({ loads, outlying: { lcp: [3, 4], wire: [4] } });
		expect(found.loads).to.equal('20 loads, 1 failed, 1 excluded, 2 outlying');
		expect(findings().loads).to.equal('20 loads');
	});

	it('show no figures before the first look', () => {
		const early = design();
		const found = findings({ design: early, judgement: judge(early, slower) });
		expect(Object.keys(found)).to.deep.equal(['arms', 'method', 'loads']);
	});

	it('tell what waits for interaction, the heaviest first', () => {
		const late = (arm: number, kind: LateKind, requests: number, wireBytes: number): LateLoadView => ({
			id: arm,
			arm,
			condition: 'desktop',
			kind,
			status: 'done',
			load: 9,
			failed: null,
			facts: {
				kind,
				requests,
				wireBytes,
				scriptMs: 0,
				fromMs: 7000,
				settledMs: 2000,
				added: {},
				figures: { wire: 500_000, score: 80 },
				hosts: []
			}
		});
		const small = late(1, 'held-back', 1, 900);
		expect(findings({ late: [small, late(2, 'held-back', 12, 240_000)] }).held).to.equal(
			'“Changed”: 12 requests and 240\u00a0kB only after the visitor moves'
		);
		expect(findings({ late: [small, late(2, 'postponed', 12, 240_000)] }).held).to.equal(
			'“Changed”: 12 requests and 240\u00a0kB by themselves after the page has settled'
		);
		expect(findings({ late: [late(1, 'postponed', 0, 0)] }).held).to.equal('No request comes late in one load');
	});

	it('count differences in setup, and name the variant where there are several', () => {
		const setup = (names: string[]) => ({
			...NO_SETUP,
			components: names.map((name) => ({ ...blankComponent(), name }))
		});
		const arms = [arm(1, 'As it is', { setup: setup([]) }), arm(2, 'Changed', { setup: setup(['Larder']) })];
		expect(findings({ design: design({ ...looked, arms }) }).arms).to.equal('2 variants; 1 difference in setup');
		const fairness = [
			{ id: 'host', name: 'Server', state: 'differs', values: ['a', 'b'], meaning: '', intended: false },
			{ id: 'cdn', name: 'Own CDN', state: 'equal', values: ['a', 'a'], meaning: '', intended: false }
		] as PartsInput['evidence']['arms'][number]['fairness'];
		const broke = {
			newErrors: ['Oh'],
			newFailures: [],
			vanished: [],
			steps: { before: [0, 0], after: [0, 0], failed: null },
			pictureShare: 0,
			broken: true
		} as PartsInput['evidence']['arms'][number]['broke'];
		const seen = { condition: 'desktop', baseline: 1, arm: 2, why: null, fairness, broke, timings: [], picture: null };
		const evidence = { pending: false, films: [], stepEvidence: [], arms: [seen] };
		expect(findings({ evidence }).fairness).to.equal('1 of 2 lines differs');
		expect(findings({ evidence }).broke).to.equal('“Changed”: 1 new error in the console');
		const checked = (after: [number, number]) => ({
			...evidence,
			arms: [{ ...seen, broke: { ...broke, newErrors: [], broken: false, steps: { ...broke.steps, after } } }]
		});
		expect(findings({ evidence: checked([10, 10]) }).broke).to.match(/; all steps went well$/);
		expect(findings({ evidence: checked([9, 10]) }).broke).to.match(/; single steps failed$/);
		expect(findings({ evidence: checked([0, 0]) }).broke).to.match(/; no steps were checked$/);
		const three = design({ ...looked, arms: [...trial.arms, arm(3, 'Third')], intended: ['host'] });
		const found = findings({ evidence, design: three, judgement: judge(three, slower) });
		expect(found.fairness).to.equal('“Changed”: 1 of 2 lines differs, as intended');
	});

	it('have no explanation where both variants are the same page', () => {
		const same = design({ ...looked, kind: 'same-page' });
		const found = findings({ design: same, judgement: judge(same, slower) });
		expect(Object.keys(found)).to.deep.equal(['shifts', 'table', 'arms', 'method', 'loads']);
	});
});
