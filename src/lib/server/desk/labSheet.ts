/** The sheet of the lab: how calm this machine is, and what its trials can see. */
import { cpus } from 'node:os';
import type { Conditions } from '$core/load/conditions/conditions';
import { DEFAULT_PRIMARY } from '$core/metrics/catalogue';
import { median } from '$core/stats/summary';
import { fitnessOf, roundsToSee } from '$core/trial/noise/fitness';
import { wordFitness } from '$core/wording/fitness';
import { wordFloors } from '$core/wording/floors';
import { readFrequencyMhz } from '../../../lab/calm/procStat';
import { findConditions } from '../rooms/conditions/saved';
import type { Db } from '../base/db/connection';
import { noiseFloor } from '../rooms/trials/noiseFloors';
import { labNow } from './labNow';
import { listConditions } from '../rooms/conditions/view';
import { knownAddresses } from '../rooms/pages/view';
import { calmHours, recentSpeeds, type CalmHour } from '../rooms/labs/view';

const HOURS = 24;
const HOUR_MS = 3_600_000;
const MOST_SPEEDS = 200;

export function labSheet(db: Db, now = Date.now()) {
	const hours = lastDay(db, now);
	const floors = listConditions(db).map(({ id }) => floorView(db, findConditions(db, id)!));
	const speeds = recentSpeeds(db, MOST_SPEEDS);
	const day = { loads: sum(hours, 'loads'), disturbed: sum(hours, 'disturbed') };
	const fitness = fitnessOf(
		day,
		floors.flatMap(({ spread }) => (spread === null ? [] : [spread]))
	);
	return {
		now: labNow(db),
		fitness: { code: fitness.code, words: wordFitness(fitness) },
		browser: speeds.findLast(({ browser }) => browser !== null)?.browser ?? null,
		machine: { processors: cpus().length, frequencyMhz: readFrequencyMhz() },
		day,
		hours,
		speeds: speeds.map(({ at, speed }) => ({ at, speed })),
		usualSpeed: speeds.length ? median(speeds.map(({ speed }) => speed)) : null,
		floors,
		address: knownAddresses(db, null, 1)[0]?.url ?? ''
	};
}

export type LabSheet = ReturnType<typeof labSheet>;

/** The 24 hours until now, each with what is known of it. */
function lastDay(db: Db, now: number): CalmHour[] {
	const starts = Array.from({ length: HOURS }, (_, i) => new Date(now - (HOURS - 1 - i) * HOUR_MS).toISOString());
	const byHour = new Map(calmHours(db, `${starts[0]!.slice(0, 13)}:00`).map((hour) => [hour.hour, hour]));
	return starts
		.map((at) => at.slice(0, 13))
		.map((hour) => byHour.get(hour) ?? { hour, loads: 0, disturbed: 0, share: null });
}

function floorView(db: Db, conditions: Conditions) {
	const floor = noiseFloor(db, conditions);
	const spread = floor?.shares.lcp ?? null;
	return {
		id: conditions.id,
		name: conditions.name,
		trial: floor?.trial ?? null,
		measuredAt: floor?.measuredAt ?? null,
		words: floor ? wordFloors(floor.floors, DEFAULT_PRIMARY) : '',
		spread,
		/** With which a change of a tenth of the largest paint is seen. */
		rounds: spread === null ? null : roundsToSee(spread)
	};
}

function sum(hours: readonly CalmHour[], field: 'loads' | 'disturbed'): number {
	return hours.reduce((total, hour) => total + hour[field], 0);
}
