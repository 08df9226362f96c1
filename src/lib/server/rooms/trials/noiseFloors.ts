/** What the lab cannot tell apart under some conditions, from trials of one page against itself. */
import type { Conditions } from '$core/load/conditions/conditions';
import { noiseFloorOf } from '$core/trial/noise/noise';
import type { MetricId } from '$core/metrics/catalogue';
import type { Db } from '../../base/db/connection';
import { conditionsHash } from '../../base/db/functions';
import { judgementOf } from './judgement';
import { type Trial } from './trial';
import { samePageTrials } from './queries/trials';
import { loadsOfTrial } from '../loads/view';

export interface NoiseFloor {
	/** The trial that measured it. */
	trial: number;
	/** UTC ISO. */
	measuredAt: string | null;
	floors: Partial<Record<MetricId, number>>;
	/** Spread of the paired differences, as shares of the middle figure. */
	shares: Partial<Record<MetricId, number>>;
}

/** Of the newest same-page trial under conditions that measure alike; null without one. */
export function noiseFloor(db: Db, conditions: Conditions, exceptTrial: number | null = null): NoiseFloor | null {
	for (const trial of samePageTrials(db, conditionsHash(conditions))) {
		const floor = trial.id === exceptTrial ? null : floorFrom(db, trial, conditions);
		if (floor) return { trial: trial.id, measuredAt: trial.endedAt, floors: floor.floors, shares: floor.shares };
	}
	return null;
}

function floorFrom(db: Db, trial: Trial, conditions: Conditions) {
	const judged = { design: trial.design, judgement: judgementOf(db, trial), loads: loadsOfTrial(db, trial.id) };
	return noiseFloorOf(judged, conditions);
}
