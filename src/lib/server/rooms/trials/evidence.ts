/**
 * The evidence of a trial, from its records: why, fairness, what broke, frames. Heavy: the lab derives it between
 * loads.
 */
import { explainedPairs } from '$core/trial/design/log';
import { digestLoad, type LoadDigest } from '$core/compare/digest';
import { compareFairness } from '$core/compare/fairness';
import type { FairnessLine } from '$core/compare/fairness/line';
import type { Film } from '$core/compare/film';
import { findRegressions, type Regressions } from '$core/compare/regressions';
import { explainShift, type Why } from '$core/compare/why';
import { middleLoad } from '$core/compare/middleLoad';
import { compareTimings, type TimingShift } from '$core/compare/timings';
import { countedLoads } from '$core/trial/judge/counted';
import { hasStages } from '$core/trial/design/kinds';
import { isShown } from '$core/trial/judge/shown';
import type { Comparison } from '$core/trial/design/comparisons';
import type { ArmHealth } from '$core/trial/types';
import type { Db } from '../../base/db/connection';
import { filmOfLoad } from '../loads/films';
import { findRecord } from '../loads/loads';
import { deleteArtifacts, findArtifact, storeArtifact } from '../../base/storage/artifacts';
import { findDerived, isDerived, saveDerived, type Derived } from '../../base/queue/derived';
import { judgementOf } from './judgement';
import { comparePictures } from './pictures';
import { findTrial, type Trial } from './trial';
import { fingerprintOfInputs } from './queries/trial';
import { cdnHostsOf } from '../clients/view';
import { loadsOfTrial, type LoadSummary } from '../loads/view';

export const EVIDENCE_VERSION = '7';

export interface ArmEvidence {
	condition: string;
	baseline: number;
	arm: number;
	why: Why | null;
	fairness: FairnessLine[];
	regressions: Regressions;
	timings: TimingShift[];
	/** Name of the difference picture; null without one. */
	picture: string | null;
}

export type FilmStrip = Film & { condition: string };

export interface Evidence {
	arms: ArmEvidence[];
	films: FilmStrip[];
}

const USUAL_LEVEL = 0.95;

const subjectOf = (id: number) => ({ kind: 'trial', id }) as const;

/** The stored evidence under today's rules, perhaps of an earlier state of the loads; null before the first. */
export function findEvidence(db: Db, id: number): Derived<Evidence> | null {
	return findDerived<Evidence>(db, {
		subject: subjectOf(id),
		kind: 'evidence',
		version: EVIDENCE_VERSION,
		fingerprint: fingerprintOfInputs(db, id)
	});
}

export function findDifferencePicture(db: Db, trialId: number, name: string): Buffer | null {
	return findArtifact(db, { owner: subjectOf(trialId), role: `difference/${name}` });
}

/** Work the evidence of a trial out and store it, unless that has been done. */
export async function deriveEvidence(db: Db, id: number): Promise<void> {
	const fingerprint = fingerprintOfInputs(db, id);
	if (isDerived(db, { subject: subjectOf(id), kind: 'evidence', version: EVIDENCE_VERSION, fingerprint })) return;
	const trial = findTrial(db, id);
	if (!trial) return;
	const { health, results } = judgementOf(db, trial);
	// All intervals of a sheet are of one level.
	const level = results[0]?.level ?? USUAL_LEVEL;
	const loads = countedLoads(trial.design, loadsOfTrial(db, id)).filter((load) => isEvidence(trial, load));
	const evidence: Evidence = { arms: [], films: [] };
	const pictures = new Map<string, Buffer>();
	for (const { id: condition } of trial.design.conditions) {
		const own = loads.filter((load) => load.conditionId === condition);
		const digests = await digestsByArm(db, trial.clientId, own);
		evidence.films.push(...filmsOf(db, trial, condition, own));
		for (const comparison of explainedPairs(trial.design))
			evidence.arms.push(
				await compareArms(db, trial, { condition, comparison, own, digests, health, level }, pictures)
			);
	}
	db.transaction(() => {
		saveDerived(db, {
			subject: subjectOf(id),
			kind: 'evidence',
			version: EVIDENCE_VERSION,
			fingerprint,
			body: evidence
		});
		deleteArtifacts(db, subjectOf(id), 'difference/');
		for (const [name, image] of pictures)
			storeArtifact(db, { owner: subjectOf(id), role: `difference/${name}` }, 'image/webp', image);
	})();
}

/** Loads that no analyst excluded and that a look has reached. */
function isEvidence({ design }: Trial, load: LoadSummary): boolean {
	return load.excluded === null && isShown(design, load);
}

/** One record at a time: hundreds of them would not fit. */
async function digestsByArm(
	db: Db,
	clientId: number | null,
	loads: readonly LoadSummary[]
): Promise<Map<number, LoadDigest[]>> {
	const digests = new Map<number, LoadDigest[]>();
	for (const { id, armId, conditionId, round } of loads) {
		const record = findRecord(db, id);
		if (!record) continue;
		const cdnHosts = cdnHostsOf(db, clientId, new URL(record.finalUrl || record.url).host);
		const digest = digestLoad(record, { loadId: id, armId, conditionId, round }, cdnHosts);
		digests.set(armId, [...(digests.get(armId) ?? []), digest]);
		await new Promise((next) => setImmediate(next));
	}
	return digests;
}

interface Material {
	condition: string;
	comparison: Comparison;
	own: readonly LoadSummary[];
	digests: ReadonlyMap<number, LoadDigest[]>;
	health: readonly ArmHealth[];
	level: number;
}

async function compareArms(
	db: Db,
	{ design }: Trial,
	{ condition, comparison: { baseline, arm }, own, digests, health, level }: Material,
	pictures: Map<string, Buffer>
): Promise<ArmEvidence> {
	const [before, after] = [digests.get(baseline.id) ?? [], digests.get(arm.id) ?? []];
	const loadsOf = (armId: number) => own.filter((load) => load.armId === armId);
	const difference = await comparePictures(db, loadsOf(baseline.id), loadsOf(arm.id));
	const name = difference ? `${condition}-${arm.id}` : null;
	if (difference && name) pictures.set(name, difference.image);
	const healthOf = (armId: number) =>
		health.find((candidate) => candidate.condition === condition && candidate.arm === armId) ?? null;
	return {
		condition,
		baseline: baseline.id,
		arm: arm.id,
		why: before.length && after.length ? explainShift(before, after) : null,
		fairness: compareFairness(
			design,
			{ arm: baseline, loads: before, health: healthOf(baseline.id) },
			{ arm, loads: after, health: healthOf(arm.id) },
			difference ? 1 - difference.share : null
		),
		regressions: findRegressions(before, after, difference?.share ?? null),
		timings: compareTimings(before, after, !hasStages(design.kind), level),
		picture: name
	};
}

function filmsOf(db: Db, { design }: Trial, condition: string, own: readonly LoadSummary[]): FilmStrip[] {
	return design.arms
		.filter((arm) => !arm.reference)
		.flatMap(({ id }) => {
			const load = middleLoad(own.filter((candidate) => candidate.armId === id));
			return load ? filmOf(db, condition, id, load.id) : [];
		});
}

function filmOf(db: Db, condition: string, arm: number, loadId: number): FilmStrip[] {
	const film = filmOfLoad(db, arm, loadId);
	return film ? [{ condition, ...film }] : [];
}
