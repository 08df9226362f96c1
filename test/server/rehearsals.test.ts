/** Rehearsals: trials whose variants the lab changes on the page's way, and how they are told. */
import { ARRIVAL_CASES } from '../support/arrivalCases';
import { BODY_CASES } from '../support/bodyCases';
import { CONTENT_CASES } from '../support/contentCases';
import { expect } from 'chai';
import * as v from 'valibot';
import { NewTrialInput } from '$core/trial/design/input';
import { rehearsalOf } from '$core/rewrites/rehearsal';
import { Rewrites } from '$core/rewrites/rewrite';
import { existsSync, mkdirSync } from 'node:fs';
import { join } from 'node:path';
import { createAudit } from '../../src/lib/server/rooms/audits/commands';
import { listFindings } from '../../src/lib/server/rooms/audits/queries/findings';
import { rehearseFinding } from '../../src/lib/server/rooms/audits/rehearse';
import { worklistView } from '../../src/lib/server/rooms/audits/worklistView';
import { createTrial, deleteTrial } from '../../src/lib/server/rooms/trials/commands';
import { startSlot } from '../../src/lib/server/rooms/trials/orders';
import { boardsOf } from '../../src/lib/server/rooms/trials/boardView';
import { judgementOf } from '../../src/lib/server/rooms/trials/judgement';
import { loadsOfTrial } from '../../src/lib/server/rooms/loads/view';
import { findTrial } from '../../src/lib/server/rooms/trials/trial';
import { dropOrphanTwins, TWINS } from '../../src/lib/server/rooms/trials/twins';
import { findingsOf } from '$core/findings/findings';
import type { FindingCase } from '../support/findingCase';
import { refusal } from '../support/queue';
import { useAudits, withScript } from '../support/audits';
import { BUILT_IN_CONDITIONS } from '$core/load/conditions/conditions';
import { createConditions } from '../../src/lib/server/rooms/conditions/commands';
import { rewritingOf } from '../../src/lib/server/rooms/trials/orders';
import { presenceView, seenIn } from '../../src/lib/server/rooms/trials/seen';
import type { LoadSummary } from '../../src/lib/server/rooms/loads/view';
import { recordOf } from '../support/records';

const BLANK_LOAD = {
	id: 1,
	stage: 0,
	round: 1,
	warmup: false,
	status: 'ok',
	disturbed: false,
	excluded: null,
	figures: {}
};
const CHAT = { do: 'block' as const, owner: 'chat.example' };

describe('rehearsals', () => {
	const { q, made: own, input: auditInput, work } = useAudits();
	const input = (extra: Partial<v.InferInput<typeof NewTrialInput>> = {}) => ({
		question: 'What would it bring to take the chat out?',
		kind: 'side-by-side' as const,
		arms: [
			{ name: 'As it is', url: 'https://own.test/', baseline: true },
			{ name: 'Without chat', url: 'https://own.test/', rewrites: [CHAT] }
		],
		conditions: ['phone'],
		rounds: 8,
		warmups: 0,
		...extra
	});
	const made = (extra: Partial<v.InferInput<typeof NewTrialInput>> = {}) =>
		createTrial(q.now.db, v.parse(NewTrialInput, input(extra)));

	it('keep what is changed, and send every variant through the rewriting server', () => {
		const trial = findTrial(q.now.db, made())!;
		expect(trial.design.twin).to.equal(true);
		expect(trial.design.arms.map(({ rewrites }) => rewrites ?? null)).to.deep.equal([null, [CHAT]]);
		const orderOf = (n: number) =>
			startSlot(q.now.db, { trialId: trial.id, armId: trial.design.arms[n]!.id, conditionId: 'phone' } as never).order;
		const twin = `${trial.id}-phone`;
		expect(orderOf(0).rewriting).to.deep.equal({ rewrites: [], twin });
		expect(orderOf(1).rewriting).to.deep.equal({ rewrites: [CHAT], twin });
		const live = findTrial(q.now.db, made({ twin: false }))!;
		const [first] = live.design.arms;
		expect(
			startSlot(q.now.db, { trialId: live.id, armId: first!.id, conditionId: 'phone' } as never).order.rewriting
		).to.deep.equal({ rewrites: [], twin: null });
	});

	it('are refused where they cannot be', () => {
		const problem = (extra: Partial<v.InferInput<typeof NewTrialInput>>) =>
			v.safeParse(NewTrialInput, input(extra)).issues?.[0].message;
		expect(problem({ kind: 'before-after' })).to.match(/A rehearsal compares variants side by side/);
		const bad = { name: 'B', url: 'https://own.test/', rewrites: [{ do: 'block' as const }] };
		expect(problem({ arms: [input().arms[0]!, bad] })).to.not.equal(undefined);
	});

	it('say in every sentence that the lab changed the page; one that broke it tells no gain', () => {
		const id = q.now.make({ rounds: 8, primary: ['wire'] });
		const trial = q.now.trial(id);
		const [a, b] = trial.design.arms;
		for (let job = q.now.lease(); job; job = q.now.lease()) {
			const url = job.armId === a!.id ? 'http://a.test/' : 'http://b.test/';
			const wire = job.armId === a!.id ? 300_000 : 100_000;
			q.now.finish(job, { url, finalUrl: url, figures: { wire } });
		}
		const design = { ...q.now.trial(id).design, arms: [a!, { ...b!, rewrites: [CHAT] }] };
		const judgement = judgementOf(q.now.db, q.now.trial(id), loadsOfTrial(q.now.db, id));
		const answer = (broke: string) =>
			boardsOf(trial.question, {
				design,
				judgement,
				caveats: design.conditions.map(({ id: condition }) => ({ condition, arm: b!.id, broke, held: '', restsOn: [] }))
			})[0]!.answers[0]!;
		expect(answer('').sentence).to.match(
			/^Rehearsed, the page changed by the lab on its way \(chat\.example taken out\):/
		);
		expect(answer('').tone).to.equal('better');
		expect(answer('The menu no longer opens.')).to.include({ tone: 'none', detail: '' });
		expect(answer('The menu no longer opens.').sentence).to.match(/It tells no gain\. The menu no longer opens\./);
	});

	it('begin from a line of the worklist whose rule knows its mend', () => {
		const { clientId } = own;
		createAudit(q.now.db, auditInput({ pages: [own.pages[0]!], loads: 1 }));
		work((url) => ({ ...withScript(), finalUrl: url }));
		const [row] = listFindings(q.now.db, { clientId }, 9);
		expect(row!.rule).to.equal('text-plain-sent');
		const trial = findTrial(q.now.db, rehearseFinding(q.now.db, row!.id))!;
		expect(trial).to.include({ status: 'queued', clientId });
		expect(trial.design.arms[1]!.rewrites).to.deep.equal([{ do: 'compress', address: '*//own.test/*' }]);
		const shown = worklistView(q.now.db, { clientId }).rows[0]!;
		expect(shown).to.deep.include({ canRehearse: true, rehearsal: { trial: trial.id, sentences: [] } });
		expect(refusal(() => rehearseFinding(q.now.db, 999))).to.match(/^404/);
	});

	it('keep no twin of what comes only for somebody who is known', () => {
		const before = { name: 'Signed in', url: null, steps: [], cookies: [{ name: 'a', value: 'b' }] };
		const known = findTrial(q.now.db, made({ arms: input().arms.map((arm) => ({ ...arm, before })) }))!;
		for (const arm of known.design.arms) expect(rewritingOf(known, arm, 'phone')!.twin).to.equal(null);
		const authentication = { username: 'ines', password: 'secret' };
		createConditions(q.now.db, { ...BUILT_IN_CONDITIONS[0]!, id: 'staff', name: 'Staff', authentication }, null);
		const staff = findTrial(q.now.db, made({ conditions: ['staff'] }))!;
		expect(rewritingOf(staff, staff.design.arms[0]!, 'staff')!.twin).to.equal(null);
	});

	it('say nothing where the lab did not do what it should', () => {
		const trial = findTrial(q.now.db, made())!;
		const [, mended] = trial.design.arms;
		const record = (times: number) => ({
			...recordOf(),
			rewriting: { done: [{ words: '', times }], twin: true, requests: 9, fromTwin: 9, workMs: 0, notes: [] }
		});
		expect(seenIn(trial.design, mended!, record(2))!.checks).to.deep.equal([true]);
		expect(seenIn(trial.design, mended!, record(0))!.checks).to.deep.equal([false]);
		const load = (isDone: boolean, i: number) => ({
			...BLANK_LOAD,
			...{ id: i + 1, round: i + 1, armId: mended!.id, conditionId: 'phone', checks: [isDone] }
		});
		const loads = [false, true, false].map(load) as unknown as LoadSummary[];
		const [seen] = presenceView(trial.design, loads);
		expect(seen!.checks).to.deep.equal([{ check: 'chat.example taken out', met: 1, loads: 3 }]);
	});

	it('drop a twin with its trial', () => {
		const id = made();
		const folder = (name: string) => join(q.now.folder, TWINS, name);
		mkdirSync(folder(`${id}-phone`), { recursive: true });
		expect(dropOrphanTwins(q.now.db, q.now.folder)).to.equal(0);
		deleteTrial(q.now.db, id);
		expect(dropOrphanTwins(q.now.db, q.now.folder)).to.equal(1);
		expect(existsSync(folder(`${id}-phone`))).to.equal(false);
	});
});

describe('mends that rules know', () => {
	const cases = { ...ARRIVAL_CASES, ...CONTENT_CASES, ...BODY_CASES };
	for (const [rule, { has, beside }] of Object.entries<FindingCase>(cases))
		it(`${rule}: rewrites that can be read`, () => {
			const found = findingsOf(has, [], beside?.has ?? {}).findings.filter((finding) => finding.rule === rule);
			expect(found.length).to.be.above(0);
			for (const finding of found)
				expect(v.safeParse(Rewrites, rehearsalOf(finding)).issues?.[0].message, rule).to.equal(undefined);
		});
});
