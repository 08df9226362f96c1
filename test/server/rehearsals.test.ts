/** Rehearsals: trials whose variants the lab changes on the page's way, and how they are told. */
import { expect } from 'chai';
import * as v from 'valibot';
import { AuditInput } from '$core/audits/audit';
import { NewTrialInput } from '$core/trial/design/input';
import { rehearsalOf } from '$core/rewrites/rehearsal';
import { Rewrites } from '$core/rewrites/rewrite';
import { existsSync, mkdirSync } from 'node:fs';
import { join } from 'node:path';
import { finishJob, leaseJob } from '../../src/lib/server/base/queue/jobs';
import { createAudit, storeAuditLoad } from '../../src/lib/server/rooms/audits/commands';
import { deriveFindings } from '../../src/lib/server/rooms/audits/findings';
import { listFindings } from '../../src/lib/server/rooms/audits/queries/findings';
import { rehearseFinding } from '../../src/lib/server/rooms/audits/rehearse';
import { worklistView } from '../../src/lib/server/rooms/audits/worklistView';
import { requestedOrder } from '../../src/lib/server/rooms/loads/requested';
import { changePages, pastePages } from '../../src/lib/server/rooms/pages/commands';
import { listPages } from '../../src/lib/server/rooms/pages/queries/pages';
import { createTrial, deleteTrial } from '../../src/lib/server/rooms/trials/commands';
import { startSlot } from '../../src/lib/server/rooms/trials/orders';
import { boardsOf } from '../../src/lib/server/rooms/trials/boardView';
import { judgementOf } from '../../src/lib/server/rooms/trials/judgement';
import { loadsOfTrial } from '../../src/lib/server/rooms/loads/view';
import { findTrial } from '../../src/lib/server/rooms/trials/trial';
import { dropOrphanTwins, TWINS } from '../../src/lib/server/rooms/trials/twins';
import { findingsOf } from '$core/findings/findings';
import { ARRIVAL_CASES } from '../support/arrivalCases';
import { BODY_CASES } from '../support/bodyCases';
import type { FindingCase } from '../support/findingCase';
import { CONTENT_CASES } from '../support/contentCases';
import { clientWithSite } from '../support/clients';
import { measuredLoad, refusal, useQueue } from '../support/queue';
import { requestOf } from '../support/records';

const CHAT = { do: 'block' as const, owner: 'chat.example' };

describe('rehearsals', () => {
	const q = useQueue();
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
		expect(answer('The menu no longer opens.').sentence).to.match(
			/so that no gain is told. The menu no longer opens\./
		);
	});

	it('begin from a line of the worklist whose rule knows its mend', () => {
		const { clientId, siteId } = clientWithSite(q.now.db);
		pastePages(q.now.db, siteId, '/a');
		const pages = listPages(q.now.db, { siteId }, 9).map(({ id }) => id);
		changePages(q.now.db, pages, { isChosen: true });
		createAudit(q.now.db, v.parse(AuditInput, { clientId, pages, conditions: ['phone'], loads: 1 }));
		const script = requestOf({
			...{ type: 'script', url: 'https://own.test/app.js', mimeType: 'text/javascript', endMs: 600 },
			...{ wireBytes: 100_000, decodedBytes: 100_000, body: { hash: 'a', bytes: 100_000, gzipBytes: 30_000 } },
			responseHeaders: [['cache-control', 'max-age=31536000']]
		});
		for (let job = leaseJob(q.now.db, 'me'); job; job = leaseJob(q.now.db, 'me')) {
			finishJob(q.now.db, job, 'me');
			if (job.kind !== 'load') {
				deriveFindings(q.now.db, job.subject.id);
				continue;
			}
			const { url, version } = requestedOrder(q.now.db, job);
			const requests = [requestOf({ type: 'document', url, wireBytes: 9000 }), script];
			storeAuditLoad(q.now.db, job, version, measuredLoad({ url, finalUrl: url, requests }));
		}
		const [row] = listFindings(q.now.db, { clientId }, 9);
		expect(row!.rule).to.equal('text-plain-sent');
		const trial = findTrial(q.now.db, rehearseFinding(q.now.db, row!.id))!;
		expect(trial).to.include({ status: 'queued', clientId });
		expect(trial.design.arms[1]!.rewrites).to.deep.equal([{ do: 'compress', address: '*//own.test/*' }]);
		const shown = worklistView(q.now.db, { clientId }).rows[0]!;
		expect(shown).to.deep.include({ canRehearse: true, rehearsal: { trial: trial.id, sentences: [] } });
		expect(refusal(() => rehearseFinding(q.now.db, 999))).to.match(/^404/);
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
