/** The frames of a load, for showing several side by side on one time axis. */
import type { Film } from '$core/compare/film';
import type { Db } from '../../base/db/connection';
import { findRecord } from './loads';

/** Shifts smaller than this are not seen (house). */
const SEEN_SHIFT = 0.0005;
const USUAL_SIZE = { width: 1420, height: 800 };

/** @param arm by which the row is known @returns null for a load without frames */
export function filmOfLoad(db: Db, arm: number, loadId: number): Film | null {
	const record = findRecord(db, loadId);
	if (!record?.frames.length) return null;
	const { width, height } = record.conditions?.device ?? USUAL_SIZE;
	const shiftsMs = record.shifts
		.filter((shift) => shift.value >= SEEN_SHIFT && !shift.recentInput)
		.map((shift) => shift.atMs);
	return { arm, load: loadId, frames: record.frames, lcpMs: record.figures.lcp, shiftsMs, width, height };
}
