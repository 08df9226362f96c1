/** A log of steps, from the page as it was to its end. */
import { expect } from 'chai';
import { trialAnswer } from '../../src/lib/server/rooms/trials/answer';
import { judgementOf } from '../../src/lib/server/rooms/trials/judgement';
import { markersOf } from '../../src/lib/server/rooms/trials/queries/notes';
import { addStep, decideStep, endLog, type NewStep } from '../../src/lib/server/rooms/trials/steps';
import { stepsView } from '../../src/lib/server/rooms/trials/stepsView';
import { repeatTrial } from '../../src/lib/server/rooms/trials/repeat';
import { startTrial, stopTrial } from '../../src/lib/server/rooms/trials/commands';
import { refusal, TestQueue } from '../support/queue';

const step = (words: string, extra: Partial<NewStep> = {}): NewStep => ({
	words,
	takesBack: false,
	fileName: null,
	file: null,
	checks: [],
	...extra
});

describe('a log of steps', () => {
	const q = { now: null as unknown as TestQueue };
	before(() => (q.now = new TestQueue()));
	after(() => q.now.end());
	/** What the page's largest paint is at each stage, ms. */
	const run = (figure: number) =>
		q.now.runAll((job) => ({ lcp: (job.armId === reference() ? 1000 : figure) + job.round }));
	let id: number;
	const reference = () => q.now.trial(id).design.arms.find((arm) => arm.reference)?.id;
	const view = () => {
		const trial = q.now.trial(id);
		return stepsView({
			design: trial.design,
			judgement: judgementOf(q.now.db, trial),
			loads: q.now.loads(id),
			markers: markersOf(q.now.db, id)
		})!;
	};
	const make = (plannedSteps = 4) => {
		id = q.now.make({
			kind: 'before-after',
			plannedSteps,
			arms: [{ name: 'As it was', url: 'http://a.test/' }],
			referenceUrl: 'http://a.test/about',
			rounds: 6,
			primary: ['lcp'],
			conditions: ['desktop']
		});
		run(2000);
	};

	it('waits after the page as it was, takes a step, measures and judges it, and keeps what was decided', async () => {
		make();
		expect(q.now.trial(id).status).to.equal('waiting');
		expect(view().rows[0]!.strips[0]!.figure).to.match(
			/^Largest paint 2\.00\u00a0s, 2\.00\u00a0s to 2\.01\u00a0s in 6$/
		);
		expect(addStep(q.now.db, id, step('Larder switched on', { fileName: 'larder.json', file: '{}' }))).to.equal(1);
		expect(q.now.trial(id).status).to.equal('queued');
		run(1500);
		const [, larder] = view().rows;
		expect(larder).to.include({
			name: 'Larder switched on',
			decision: 'open',
			fileName: 'larder.json',
			isMeasured: true
		});
		expect(larder!.strips[0]!.previous.map(({ verdict }) => verdict)).to.deep.equal(['better']);
		decideStep(q.now.db, id, 1, { decision: 'kept', note: 'Nothing broke.' });
		const answer = await trialAnswer(q.now.db, q.now.trial(id));
		expect(answer).to.deep.include({ plannedSteps: 4 });
		expect((answer as { stages: object[] }).stages[1]).to.include({
			stage: 1,
			name: 'Larder switched on',
			decision: 'kept',
			note: 'Nothing broke.'
		});
		const lcp = answer.results.filter(({ metric }) => metric === 'lcp') as { against?: string; verdict: string }[];
		expect(lcp.map(({ against, verdict }) => [against, verdict])).to.deep.equal([
			['start', 'better'],
			['previous', 'better']
		]);
	});

	it('measures a step that was taken back again before the next, and says when the page is not where it was', () => {
		addStep(q.now.db, id, step('Larder joins all scripts'));
		run(1400);
		decideStep(q.now.db, id, 2, { decision: 'taken-back', note: 'The basket no longer opens.' });
		expect(view().undone).to.equal('Larder joins all scripts');
		expect(refusal(() => addStep(q.now.db, id, step('Pictures')))).to.match(
			/^409 “Larder joins all scripts” was taken back/
		);
		expect(addStep(q.now.db, id, step('', { takesBack: true }))).to.equal(3);
		run(1300);
		const [without] = view().rows.slice(3);
		expect(without).to.include({ name: '“Larder joins all scripts” taken back', undoes: 'Larder joins all scripts' });
		expect(without!.strips[0]!.returned).to.match(/^The page did not come back to where it was\./);
		// Held against the stage before the step that was taken back.
		const arms = q.now.trial(id).design.arms.filter((arm) => !arm.reference);
		const { steps } = judgementOf(q.now.db, q.now.trial(id));
		expect(
			steps!.filter((result) => result.arm === arms[3]!.id).every(({ baseline }) => baseline === arms[1]!.id)
		).to.equal(true);
		expect(refusal(() => decideStep(q.now.db, id, 2, { decision: 'kept', note: null }))).to.match(/^409 Later steps/);
		expect(refusal(() => addStep(q.now.db, id, step('x', { takesBack: true })))).to.match(
			/^409 The step before was not/
		);
	});

	it('is ended and taken up again; at twelve steps it is full', () => {
		endLog(q.now.db, id);
		expect(q.now.trial(id).status).to.equal('done');
		expect(addStep(q.now.db, id, step('Pictures re-encoded'))).to.equal(4);
		expect(q.now.trial(id).status).to.equal('queued');
		expect(refusal(() => endLog(q.now.db, id))).to.match(/^409 A step of this log is not measured yet/);
		run(1200);
		for (let n = 5; n <= 12; n++) {
			addStep(q.now.db, id, step(`Step ${n}`));
			run(1200);
		}
		expect(q.now.trial(id).status).to.equal('done');
		expect(refusal(() => addStep(q.now.db, id, step('One more')))).to.match(/^409 A log holds 12 steps/);
		expect(view()).to.include({ planned: 4, made: 12, mayGrow: false });
		// Once more: from the page as it is now, without the steps.
		const again = q.now.trial(repeatTrial(q.now.db, id)).design;
		expect(again.arms.map(({ name }) => name)).to.deep.equal(['As it was', 'Reference page']);
		expect(again).to.include({ plannedSteps: 4 });
	});

	it('holds a step whose change did not take effect, and does not judge it', () => {
		make();
		addStep(q.now.db, id, step('Larder', { checks: [{ kind: 'host', value: 'larder.test', wanted: 'present' }] }));
		run(1000);
		const [, held] = view().rows;
		expect(held!.strips[0]!.held).to.contain('host larder.test');
	});

	it('refuses what cannot be: without words, twice the same, before the last is whole, on another trial', () => {
		make();
		expect(refusal(() => addStep(q.now.db, id, step('')))).to.equal('422 Say what was changed.');
		expect(refusal(() => startTrial(q.now.db, id))).to.match(/^409 Write the next step down first/);
		addStep(q.now.db, id, step('Larder'));
		expect(refusal(() => addStep(q.now.db, id, step('More')))).to.match(/^409 The step before is not measured yet/);
		expect(refusal(() => decideStep(q.now.db, id, 3, { decision: 'kept', note: null }))).to.match(/^404/);
		stopTrial(q.now.db, id);
		expect(refusal(() => addStep(q.now.db, id, step('More')))).to.match(/^409/);
		const other = q.now.make();
		expect(refusal(() => addStep(q.now.db, other, step('More')))).to.equal('409 This trial is no log of steps.');
	});

	it('loads every page of its sample in every stage, and has a strip of each', async () => {
		id = q.now.make({
			kind: 'before-after',
			plannedSteps: 4,
			arms: [{ name: 'As it was', url: 'http://a.test/' }],
			samplePages: ['http://a.test/fares'],
			referenceUrl: 'http://a.test/about',
			rounds: 6,
			primary: ['lcp'],
			conditions: ['desktop']
		});
		const fares = q.now.trial(id).design.arms.find(({ page }) => page === '/fares')!;
		const loadAll = (figures: { own: number; fares: number }) =>
			q.now.runAll(({ armId, round }) => ({
				lcp: (armId === fares.id ? figures.fares : armId === reference() ? 1000 : figures.own) + round
			}));
		loadAll({ own: 2000, fares: 1500 });
		addStep(q.now.db, id, step('Larder switched on'));
		loadAll({ own: 2000, fares: 1000 });
		expect(view().pages).to.deep.equal(['a.test', '/fares']);
		const [own, other] = view().rows[1]!.strips;
		expect([own!.name, other!.name].map((name) => name.split(', ')[1])).to.deep.equal(['a.test', '/fares']);
		expect(own!.previous.map(({ verdict }) => verdict)).to.deep.equal(['same']);
		expect(other!.previous.map(({ verdict }) => verdict)).to.deep.equal(['better']);
		const { results } = await trialAnswer(q.now.db, q.now.trial(id));
		expect(results.filter(({ metric, page }) => metric === 'lcp' && page === fares.id)).to.have.length(2);
		expect(q.now.trial(repeatTrial(q.now.db, id)).design.arms.map(({ page }) => page ?? null)).to.deep.equal([
			null,
			null,
			'/fares'
		]);
	});
});
