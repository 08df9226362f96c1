/** Working out the evidence of a trial from its records: why, fairness, what broke. Heavy: the runner does it. */
import pixelmatch from 'pixelmatch';
import sharp from 'sharp';
import { brokeOf, type Broke } from '$core/trial/broke';
import { digestOf, type LoadDigest } from '$core/trial/digest';
import { fairnessOf, type FairnessLine } from '$core/trial/fairness';
import type { Film } from '$core/trial/film';
import { comparisonsOf } from '$core/trial/judge';
import { isShown } from '$core/trial/shown';
import { whyOf, type Why } from '$core/trial/why';
import { median } from '$core/stats/summary';
import { cdnHostsOf } from '../db/clients';
import type { Db } from '../db/connection';
import { findEvidence, keepEvidence, trialWithoutDerived } from '../db/evidence';
import { findPicture, findRecord, loadsOfTrial, stampOfLoads, type LoadSummary } from '../db/loads';
import { findTrial, type Trial } from '../db/trials';
import { judgementOf } from './answer';

export const EVIDENCE_VERSION = '3';

export interface ArmEvidence {
	condition: string;
	baseline: number;
	arm: number;
	why: Why | null;
	fairness: FairnessLine[];
	broke: Broke;
	/** Name of the difference picture; null without one. */
	picture: string | null;
}

export type FilmStrip = Film & { condition: string };

export interface Evidence {
	arms: ArmEvidence[];
	films: FilmStrip[];
}

/** Evidence kept for a trial, perhaps of an earlier state of its loads; null before the first. */
export function evidenceOf(db: Db, trial: Trial): { result: Evidence; stale: boolean } | null {
	return findEvidence<Evidence>(db, trial.id, EVIDENCE_VERSION, stampOfLoads(db, trial.id));
}

/**
 * A trial at rest whose evidence is missing or out of date; null when all is done.
 * @param without trials that are not to be tried again
 */
export function trialWithoutEvidence(db: Db, without: ReadonlySet<number> = new Set()): number | null {
	return trialWithoutDerived(db, 'evidence', EVIDENCE_VERSION, [...without]);
}

export async function workOutEvidence(db: Db, id: number): Promise<void> {
	const trial = findTrial(db, id);
	if (!trial) return;
	const stamp = stampOfLoads(db, trial.id);
	const { design } = trial;
	const loads = loadsOfTrial(db, id).filter(
		(load) => !load.warmup && load.status === 'ok' && load.excluded === null && isShown(design, load)
	);
	const { health } = judgementOf(db, trial);
	const pictures = new Map<string, Buffer>();
	const arms: ArmEvidence[] = [];
	const films: FilmStrip[] = [];
	for (const { id: condition } of design.conditions) {
		// One record at a time: hundreds of them would not fit.
		const digests = new Map<number, LoadDigest[]>();
		for (const load of loads.filter((one) => one.conditionId === condition)) {
			const record = findRecord(db, load.id);
			if (record)
				digests.set(load.armId, [
					...(digests.get(load.armId) ?? []),
					digestOf(
						record,
						{ loadId: load.id, armId: load.armId, conditionId: condition, round: load.round },
						cdnHostsOf(db, new URL(record.finalUrl || record.url).host)
					)
				]);
			await new Promise((next) => setImmediate(next));
		}
		for (const arm of design.arms.filter((one) => !one.reference)) {
			const film = filmOf(
				db,
				condition,
				arm.id,
				loads.filter((load) => load.conditionId === condition && load.armId === arm.id)
			);
			if (film) films.push(film);
		}
		for (const { baseline, arm } of comparisonsOf(design)) {
			const [before, after] = [digests.get(baseline.id) ?? [], digests.get(arm.id) ?? []];
			const look = await comparePictures(
				db,
				loads.filter((load) => load.conditionId === condition),
				baseline.id,
				arm.id
			);
			const name = look ? `${condition}-${arm.id}` : null;
			if (look && name) pictures.set(name, look.image);
			const healthOf = (armId: number) =>
				health.find((one) => one.condition === condition && one.arm === armId) ?? null;
			arms.push({
				condition,
				baseline: baseline.id,
				arm: arm.id,
				why: before.length && after.length ? whyOf(before, after) : null,
				fairness: fairnessOf(
					design,
					{ arm: baseline, loads: before, health: healthOf(baseline.id) },
					{ arm, loads: after, health: healthOf(arm.id) },
					look ? 1 - look.share : null
				),
				broke: brokeOf(before, after, look?.share ?? null),
				picture: name
			});
		}
	}
	keepEvidence(db, id, EVIDENCE_VERSION, stamp, { arms, films } satisfies Evidence, pictures);
}

/** The load in the middle of its arm by LCP, or by what there is. */
function middleOf(loads: readonly LoadSummary[]): LoadSummary | null {
	const measured = loads.filter((load) => load.figures.lcp !== null);
	if (!measured.length) return loads[0] ?? null;
	const middle = median(measured.map((load) => load.figures.lcp!));
	return [...measured].sort(
		(a, b) => Math.abs(a.figures.lcp! - middle) - Math.abs(b.figures.lcp! - middle) || a.id - b.id
	)[0]!;
}

function filmOf(db: Db, condition: string, arm: number, loads: readonly LoadSummary[]): FilmStrip | null {
	const load = middleOf(loads);
	const record = load && findRecord(db, load.id);
	if (!record?.frames.length) return null;
	const { width, height } = record.conditions?.device ?? { width: 1366, height: 768 };
	return {
		condition,
		arm,
		load: load!.id,
		frames: record.frames,
		lcpMs: record.figures.lcp,
		shiftsMs: record.shifts.filter((shift) => shift.value >= 0.0005 && !shift.recentInput).map((shift) => shift.atMs),
		width,
		height
	};
}

interface Raw {
	data: Buffer;
	width: number;
	height: number;
}

async function rawPicture(db: Db, loadId: number): Promise<Raw | null> {
	const picture = findPicture(db, loadId);
	if (!picture) return null;
	const { data, info } = await sharp(picture).ensureAlpha().raw().toBuffer({ resolveWithObject: true });
	return { data, width: info.width, height: info.height };
}

/** Pixels that differ beyond this are seen as different (pixelmatch's scale; house). */
const THRESHOLD = 0.15;
/** Pictures of the baseline that show what moves by itself from load to load. */
const MASK_PICTURES = 4;

/**
 * The finished pages of both arms in their middle loads: share of pixels that differ, what differs anyway between loads
 * of one arm left out.
 */
async function comparePictures(
	db: Db,
	loads: readonly LoadSummary[],
	baseline: number,
	arm: number
): Promise<{ share: number; image: Buffer } | null> {
	const of = (armId: number) => loads.filter((load) => load.armId === armId && load.hasPicture);
	const [first, second] = [middleOf(of(baseline)), middleOf(of(arm))];
	if (!first || !second) return null;
	const [before, after] = [await rawPicture(db, first.id), await rawPicture(db, second.id)];
	if (!before || !after || before.width !== after.width || before.height !== after.height) return null;
	const { width, height } = before;
	const mask = new Uint8Array(width * height);
	for (const [armId, middle, picture] of [
		[baseline, first, before],
		[arm, second, after]
	] as const)
		for (const load of of(armId)
			.filter((one) => one.id !== middle.id)
			.slice(0, MASK_PICTURES)) {
			const other = await rawPicture(db, load.id);
			if (!other || other.width !== width || other.height !== height) continue;
			const moved = Buffer.alloc(width * height * 4);
			pixelmatch(picture.data, other.data, moved, width, height, { threshold: THRESHOLD, diffMask: true });
			for (let i = 0; i < mask.length; i++) if (moved[i * 4 + 3]) mask[i] = 1;
		}
	const difference = Buffer.alloc(width * height * 4);
	pixelmatch(before.data, after.data, difference, width, height, { threshold: THRESHOLD, diffMask: true });
	let differs = 0;
	let compared = 0;
	for (let i = 0; i < mask.length; i++) {
		if (mask[i]) {
			difference.fill(0, i * 4, i * 4 + 4);
			continue;
		}
		compared++;
		if (difference[i * 4 + 3]) differs++;
	}
	// The arm's page, pale, with what differs on it.
	const pale = await sharp(after.data, { raw: { width, height, channels: 4 } })
		.modulate({ saturation: 0.2 })
		.linear(0.45, 140)
		.png()
		.toBuffer();
	const marks = Buffer.alloc(width * height * 4);
	for (let i = 0; i < mask.length; i++) if (difference[i * 4 + 3]) marks.set([0x8a, 0x2e, 0x4f, 230], i * 4);
	const image = await sharp(pale)
		.composite([{ input: marks, raw: { width, height, channels: 4 } }])
		.webp({ quality: 60 })
		.toBuffer();
	return { share: compared ? differs / compared : 0, image };
}
