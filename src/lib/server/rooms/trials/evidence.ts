/**
 * The evidence of a trial, from its records: why, fairness, what broke, frames. Heavy: the lab derives it between
 * loads.
 */
import { explainedPairs, isLog } from '$core/trial/design/log';
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
import { samplePagesOf, stagesOf, type Comparison } from '$core/trial/design/comparisons';
import type { ArmHealth, TrialArm, TrialDesign } from '$core/trial/types';
import { findingsOf } from '$core/findings/findings';
import { findingsOfPage, type LoadFindings } from '$core/findings/pageFindings';
import { stepFates, type StepEvidence } from '$core/findings/stepEvidence';
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

export const EVIDENCE_VERSION = '8';

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
	/** Of a log. */
	steps?: StepEvidence[];
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
	if (isLog(trial.design)) evidence.steps = [];
	const pictures = new Map<string, Buffer>();
	for (const { id: condition } of trial.design.conditions) {
		const own = loads.filter((load) => load.conditionId === condition);
		const { digests, findings } = await readRecords(db, trial, own);
		evidence.films.push(...filmsOf(db, trial, condition, own));
		for (const comparison of explainedPairs(trial.design))
			evidence.arms.push(
				await compareArms(db, trial, { condition, comparison, own, digests, health, level }, pictures)
			);
		evidence.steps?.push(...stepsEvidence(trial.design, { condition, digests, findings, arms: evidence.arms }));
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

type BySlot<Item> = ReadonlyMap<string, Item[]>;

/** Pages that are loaded in every stage are told apart by it. */
const slotKey = (armId: number, stage: number | null) => (stage === null ? String(armId) : `${armId}/${stage}`);

/** One record at a time: hundreds of them would not fit. */
async function readRecords(
	db: Db,
	{ clientId, design }: Trial,
	loads: readonly LoadSummary[]
): Promise<{ digests: BySlot<LoadDigest>; findings: BySlot<LoadFindings> }> {
	const digests = new Map<string, LoadDigest[]>();
	const findings = new Map<string, LoadFindings[]>();
	const everyStage = new Set(design.arms.filter(({ reference }) => reference).map(({ id }) => id));
	const put = <Item>(map: Map<string, Item[]>, key: string, item: Item) =>
		map.set(key, [...(map.get(key) ?? []), item]);
	for (const { id, armId, conditionId, round, stage, status } of loads) {
		const record = findRecord(db, id);
		if (!record) continue;
		const key = slotKey(armId, everyStage.has(armId) ? stage : null);
		const cdnHosts = cdnHostsOf(db, clientId, new URL(record.finalUrl || record.url).host);
		put(digests, key, digestLoad(record, { loadId: id, armId, conditionId, round }, cdnHosts));
		if (isLog(design) && status === 'ok') put(findings, key, { load: id, ...findingsOf(record, cdnHosts) });
		await new Promise((next) => setImmediate(next));
	}
	return { digests, findings };
}

/** Each step against the stage before it, on each page of the sample. */
function stepsEvidence(
	design: TrialDesign,
	at: {
		condition: string;
		digests: BySlot<LoadDigest>;
		findings: BySlot<LoadFindings>;
		arms: readonly ArmEvidence[];
	}
): StepEvidence[] {
	const { condition, digests, findings, arms } = at;
	const stages = stagesOf(design);
	return explainedPairs(design).flatMap(({ baseline, arm }) =>
		[null, ...samplePagesOf(design)].map((page): StepEvidence => {
			const keyOf = (stage: TrialArm) => (page ? slotKey(page.id, stages.indexOf(stage)) : slotKey(stage.id, null));
			const [before, after] = [findings.get(keyOf(baseline)) ?? [], findings.get(keyOf(arm)) ?? []];
			const own = arms.find((candidate) => candidate.condition === condition && candidate.arm === arm.id);
			return {
				condition,
				arm: arm.id,
				page: page?.id ?? null,
				pageName: page?.page ?? null,
				regressions: page
					? findRegressions(digests.get(keyOf(baseline)) ?? [], digests.get(keyOf(arm)) ?? [], null)
					: (own?.regressions ?? null),
				fates:
					before.length && after.length ? stepFates(findingsOfPage(before), findingsOfPage(after), after.length) : []
			};
		})
	);
}

interface Material {
	condition: string;
	comparison: Comparison;
	own: readonly LoadSummary[];
	digests: BySlot<LoadDigest>;
	health: readonly ArmHealth[];
	level: number;
}

async function compareArms(
	db: Db,
	{ design }: Trial,
	{ condition, comparison: { baseline, arm }, own, digests, health, level }: Material,
	pictures: Map<string, Buffer>
): Promise<ArmEvidence> {
	const [before, after] = [digests.get(String(baseline.id)) ?? [], digests.get(String(arm.id)) ?? []];
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
