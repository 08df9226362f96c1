/** The demonstration data: clients of the scenario, and trials that the real lab recorded from the simulated web. */
import { existsSync, readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { brotliCompressSync, brotliDecompressSync, constants } from 'node:zlib';
import type { LateKind } from '$core/compare/late/facts';
import { parseRecord } from '$core/load/record/parseRecord';
import type { LoadRecord, MeasuredLoad } from '$core/load/record/record';
import { planLoads } from '$core/trial/design/plan';
import type { TrialArm, TrialDesign } from '$core/trial/types';
import { adoptEarlierData } from '../base/db/adopt';
import { laterBy, weeksSince } from './calendar';
import { insertScenario } from './clients';
import { readFact, writeFact } from '../base/db/facts';
import type { Db } from '../base/db/connection';
import { insertPlan } from '../rooms/trials/slots';
import { insertRequest } from '../rooms/loads/requested';
import { lateLoadsOf } from '../rooms/trials/lateView';
import { closeJob } from '../base/queue/jobs';
import { findPicture, findRecord, framesOfLoad, insertLoad } from '../rooms/loads/loads';
import { findTrial } from '../rooms/trials/trial';
import { judgementOf } from '../rooms/trials/judgement';
import { ROOT } from '../base/settings';
import { findClientByName } from '../rooms/clients/view';
import {
	insertMarker,
	markersOf,
	type Marker,
	saveSettling,
	settlingsOf,
	type SettlingRow,
	findSettleJob,
	finishSlots,
	conditionsOfTrial,
	insertTrial,
	setTrialStatus,
	setTrialTimes,
	setUndoes
} from '../rooms/trials/view';
import { freezeConditions } from '../rooms/conditions/view';
import { loadsOfTrial } from '../rooms/loads/view';

const FOLDER = join(ROOT, 'demo/trials');
const FACT = 'demonstration';

/** A recorded trial: the first line of its file; each further line is a load. */
interface RecordedTrial {
	clientName: string | null;
	question: string;
	createdAt: string;
	design: TrialDesign;
	/** What waiting for stable pages saw; arms by their id in the design. */
	settlings?: SettlingRow<unknown>[];
	/** What was changed between stages. */
	markers?: Marker[];
}

interface RecordedLoad {
	arm: number;
	conditionId: string;
	stage: number;
	round: number;
	warmup: boolean;
	record: LoadRecord;
	/** Base64. */
	frames: string[];
	picture: string | null;
}

/** A load after the rounds: the lab waited on, or made an input. */
interface RecordedLateLoad {
	late: LateKind;
	arm: number;
	conditionId: string;
	record: LoadRecord;
	frames: string[];
	picture: string | null;
}

/** Load the demonstration once into a data folder that has none. */
export function importDemo(db: Db, now = Date.now()): void {
	db.transaction(() => {
		insertScenario(db);
		if (readFact(db, FACT)) return;
		if (existsSync(FOLDER))
			for (const file of readdirSync(FOLDER)
				.filter((name) => name.endsWith('.ndjson.br'))
				.sort())
				importTrial(db, readFileSync(join(FOLDER, file)), now);
		writeFact(db, FACT, new Date(now).toISOString());
	}).immediate();
}

/** @param now moves the trial by whole weeks into the week before; without it, it stays where it was recorded */
export function importTrial(db: Db, packed: Buffer, now?: number): number {
	const [recorded, ...lines] = movedTo(now, readLines(packed));
	const clientId = recorded.clientName ? findClientByName(db, recorded.clientName) : null;
	const id = insertTrial(db, { clientId, question: recorded.question, design: recorded.design });
	const { design } = findTrial(db, id)!;
	const armIds = new Map(recorded.design.arms.map((arm, i) => [arm.id, design.arms[i]!.id]));
	const slotOf = <Slot extends { armId: number }>(slot: Slot) => ({
		...slot,
		trialId: id,
		armId: armIds.get(slot.armId)!
	});
	insertPlan(db, id, planLoads(design));
	finishSlots(db, id);
	const hashes = new Map(conditionsOfTrial(db, id).map((version) => [version.id, version.hash]));
	for (const parsed of lines) {
		if ('late' in parsed) {
			importLate(db, { ...parsed, arm: armIds.get(parsed.arm)! }, design);
			continue;
		}
		const { arm: armId, conditionId, stage, round, warmup, ...load } = parsed;
		const slot = slotOf({ armId, conditionId, stage, round, warmup });
		const conditionsHash = hashes.get(conditionId) ?? null;
		insertLoad(db, { jobId: null, slot, conditionId, conditionsHash, clientId: null }, measuredFrom(load));
	}
	for (const { result, ...settling } of recorded.settlings ?? []) {
		const slot = slotOf(settling);
		const { armId, conditionId, stage } = slot;
		const jobId = findSettleJob(db, { trialId: id, armId, conditionId, stage });
		if (jobId !== null) saveSettling(db, jobId, { ...slot, round: 0, warmup: true, retry: 0 }, result);
	}
	for (const marker of recorded.markers ?? []) insertMarker(db, id, marker);
	for (const arm of recorded.design.arms)
		if (arm.undoes != null) setUndoes(db, armIds.get(arm.id)!, armIds.get(arm.undoes)!);
	setTrialStatus(db, id, 'done');
	const loads = loadsOfTrial(db, id);
	const [first, last] = [loads[0], loads.at(-1)].map((load) => load?.startedAt ?? recorded.createdAt);
	setTrialTimes(db, { id, createdAt: recorded.createdAt, startedAt: first!, endedAt: last! });
	// Recorded before looks were written down.
	adoptEarlierData(db);
	judgementOf(db, findTrial(db, id)!);
	return id;
}

type RecordedLines = [RecordedTrial, ...(RecordedLoad | RecordedLateLoad)[]];

const readLines = (packed: Buffer): RecordedLines =>
	brotliDecompressSync(packed)
		.toString('utf8')
		.trim()
		.split('\n')
		.map((line) => JSON.parse(line) as unknown) as RecordedLines;

function movedTo(now: number | undefined, [head, ...lines]: RecordedLines): RecordedLines {
	const newest = [head.createdAt, ...lines.map(({ record }) => record.startedAt)].sort().at(-1)!;
	const weeks = now === undefined ? 0 : weeksSince(newest, now);
	const moved = lines.map((line) => ({
		...line,
		record: { ...line.record, startedAt: laterBy(weeks, line.record.startedAt) }
	}));
	return [{ ...head, createdAt: laterBy(weeks, head.createdAt) }, ...moved];
}

function importLate(db: Db, { late, arm, conditionId, ...load }: RecordedLateLoad, design: TrialDesign): void {
	const { url } = design.arms.find(({ id }) => id === arm)!;
	const frozen = design.conditions.find(({ id }) => id === conditionId)!;
	const conditions = { ...frozen, input: late === 'held-back' ? ('nudge' as const) : ('none' as const) };
	const jobId = insertRequest(
		db,
		{ kind: 'arm', id: arm },
		{ url, conditions, steps: [], patience: late === 'postponed' }
	);
	closeJob(db, jobId);
	const { hash } = freezeConditions(db, conditions);
	const stored = { jobId, slot: null, conditionId, conditionsHash: hash, clientId: null };
	insertLoad(db, stored, measuredFrom(load));
}

function measuredFrom({ record, frames, picture }: Pick<RecordedLoad, 'record' | 'frames' | 'picture'>): MeasuredLoad {
	return {
		record: parseRecord(record),
		frames: frames.map((frame) => Buffer.from(frame, 'base64')),
		picture: picture === null ? null : Buffer.from(picture, 'base64'),
		stepPicture: null
	};
}

/** Loads of a trial are much alike: a window as large as all of them finds that. */
export function packLines(lines: readonly string[], quality = 9): Buffer {
	return brotliCompressSync(lines.join('\n'), {
		params: { [constants.BROTLI_PARAM_QUALITY]: quality, [constants.BROTLI_PARAM_LGWIN]: 24 }
	});
}

/** A finished trial with all its evidence, as it is shipped. */
export function exportTrial(db: Db, id: number): Buffer {
	const trial = findTrial(db, id);
	if (!trial) throw new Error(`There is no trial ${id}.`);
	const arms: TrialArm[] = trial.design.arms;
	const head: RecordedTrial = {
		clientName: trial.clientName,
		question: trial.question,
		createdAt: trial.createdAt,
		design: { ...trial.design, arms },
		settlings: settlingsOf(db, id),
		markers: markersOf(db, id)
	};
	const lines = loadsOfTrial(db, id).map((load): RecordedLoad => {
		const { conditionId, stage, round, warmup } = load;
		return {
			arm: load.armId,
			conditionId,
			stage,
			round,
			warmup,
			record: findRecord(db, load.id)!,
			frames: framesOfLoad(db, load.id).map((frame) => frame.toString('base64')),
			picture: findPicture(db, load.id)?.toString('base64') ?? null
		};
	});
	return packLines([head, ...lines, ...lateLines(db, id)].map((line) => JSON.stringify(line)));
}

/** Oldest first, as they were made. */
function lateLines(db: Db, trialId: number): RecordedLateLoad[] {
	return lateLoadsOf(db, trialId)
		.reverse()
		.flatMap(({ arm, condition, kind, load }): RecordedLateLoad[] => {
			if (load === null || arm === null) return [];
			const frames = framesOfLoad(db, load).map((frame) => frame.toString('base64'));
			const picture = findPicture(db, load)?.toString('base64') ?? null;
			return [{ late: kind, arm, conditionId: condition, record: findRecord(db, load)!, frames, picture }];
		});
}
