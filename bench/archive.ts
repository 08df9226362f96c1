/** A data folder as an agency has it after some years: many trials, all judged, many loads. */
import { scoreOf } from '$core/metrics/score';
import { noFigures } from '$core/metrics/catalogue';
import { seededRandom } from '$core/stats/random';
import * as v from 'valibot';
import { NewTrialInput } from '$core/trial/design/input';
import type { Db } from '../src/lib/server/base/db/connection';
import { insertLoad } from '../src/lib/server/rooms/loads/loads';
import { createTrial } from '../src/lib/server/rooms/trials/commands';
import { deriveJudgement } from '../src/lib/server/rooms/trials/judgement';
import { finishSlots } from '../src/lib/server/rooms/trials/queries/slots';
import { insertPlan } from '../src/lib/server/rooms/trials/slots';
import { conditionsOfTrial } from '../src/lib/server/rooms/trials/queries/trial';
import { findTrial } from '../src/lib/server/rooms/trials/trial';
import { setTrialStatus, updateDesign } from '../src/lib/server/rooms/trials/queries/trials';
import { planLoads } from '$core/trial/design/plan';
import { nextLook } from '$core/trial/design/looks';
import { recordOf, requestOf } from '../test/support/records';

const random = seededRandom(5);

/** Side-by-side trials of two arms, done and judged. @returns the id of the newest */
export function fillArchive(db: Db, trials: number, rounds: number): number {
	let newest = 0;
	for (let i = 0; i < trials; i++) newest = db.transaction(() => addTrial(db, i, rounds)).immediate();
	db.prepare('DELETE FROM job WHERE kind = \'derive\' AND "order" = \'"evidence"\'').run();
	return newest;
}

function addTrial(db: Db, number: number, rounds: number): number {
	const arms = [
		{ name: 'As it is', url: `https://site-${number % 40}.test/page-${number}` },
		{ name: 'Changed', url: `https://new.site-${number % 40}.test/page-${number}` }
	];
	return addDone(db, {
		question: `Is page ${number} faster without its carousel?`,
		arms,
		conditions: ['desktop'],
		rounds,
		number
	});
}

/** The largest trial that a form makes: eight variants, 24 rounds, two conditions. @returns its id */
export function addLargestTrial(db: Db): number {
	const arms = Array.from({ length: 8 }, (_, i) => ({
		name: `Builder ${i + 1}`,
		url: `https://builder-${i + 1}.test/`
	}));
	const plan = {
		question: 'Which builder makes the page fastest?',
		arms,
		conditions: ['phone', 'desktop'],
		rounds: 24
	};
	return db.transaction(() => addDone(db, { ...plan, number: 2 })).immediate();
}

interface DoneTrial {
	question: string;
	arms: { name: string; url: string }[];
	conditions: string[];
	rounds: number;
	/** Seed, and which shift its variants have. */
	number: number;
}

function addDone(db: Db, { question, arms, conditions, rounds, number }: DoneTrial): number {
	const input = { question, kind: 'side-by-side', arms, conditions, rounds, warmups: 0, seed: number };
	const id = createTrial(db, v.parse(NewTrialInput, input));
	const { design } = findTrial(db, id)!;
	const plan = planLoads(design);
	insertPlan(db, id, plan);
	finishSlots(db, id);
	const hashes = new Map(conditionsOfTrial(db, id).map((version) => [version.id, version.hash]));
	const shift = [0, 0, 300, -300][number % 4]!;
	for (const slot of plan)
		addLoad(db, id, slot, hashes.get(slot.conditionId)!, slot.armId === design.arms[1]!.id ? shift : 0);
	updateDesign(db, findTrial(db, id)!, { looks: [nextLook(design, rounds, 'plan')] });
	setTrialStatus(db, id, 'done');
	deriveJudgement(db, id);
	return id;
}

function addLoad(db: Db, trialId: number, slot: ReturnType<typeof planLoads>[number], hash: string, shift: number) {
	const lcp = 2000 + shift + 150 * random();
	const figures = { ...noFigures(), ttfb: 300, fcp: 900, lcp, cls: 0.03, tbt: 150 + 30 * random(), wire: 500_000 };
	const record = recordOf({ figures: { ...figures, score: scoreOf(figures).value } });
	const stored = {
		jobId: null,
		slot: { ...slot, trialId },
		conditionId: slot.conditionId,
		conditionsHash: hash,
		clientId: null
	};
	insertLoad(db, stored, { record, frames: [], picture: null, stepPicture: null });
}

/** Loads outside trials, for their list. */
export function fillLoads(db: Db, count: number): void {
	db.transaction(() => {
		for (let i = 0; i < count; i++)
			insertLoad(
				db,
				{ jobId: null, slot: null, conditionId: 'desktop', conditionsHash: null, clientId: null },
				{ record: recordOf({ url: `https://site-${i}.test/` }), frames: [], picture: null, stepPicture: null }
			);
	})();
}

/** A load outside trials with so many requests, of twelve hosts. @returns its id */
export function addLoadOf(db: Db, count: number): number {
	const requests = Array.from({ length: count }, (_, i) =>
		requestOf({ url: `https://h${i % 12}.test/p?i=${i}`, host: `h${i % 12}.test`, startMs: 5 * i, endMs: 5 * i + 90 })
	);
	const stored = { jobId: null, slot: null, conditionId: 'desktop', conditionsHash: null, clientId: null };
	const record = recordOf({ url: 'https://h0.test/', requests });
	return db.transaction(() => insertLoad(db, stored, { record, frames: [], picture: null, stepPicture: null }))();
}
