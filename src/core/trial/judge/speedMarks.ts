/** Rounds during which the machine's speed changed: their loads are marked. */
import { groups } from 'd3-array';
import type { LoadPlace } from '../design/place';

/** Machine speeds within a round further apart than this are marked (house). */
const SPEED_WITHIN = 0.1;

interface SpeedyLoad extends LoadPlace {
	id: number;
	/** Rounds of the calibration loop per ms; null where it was not read. */
	machineSpeed: number | null;
}

/** Ids of the loads in rounds whose fastest and slowest machine speed are more than 10 % apart. */
export function loadsOffSpeed(loads: readonly SpeedyLoad[]): Set<number> {
	const read = loads.filter((load) => !load.warmup && load.machineSpeed !== null);
	const rounds = groups(read, ({ conditionId, stage, round }) => `${conditionId}/${stage}/${round}`);
	const off = rounds.filter(([, round]) => {
		const speeds = round.map((load) => load.machineSpeed!);
		return Math.max(...speeds) / Math.min(...speeds) - 1 > SPEED_WITHIN;
	});
	return new Set(off.flatMap(([, round]) => round.map((load) => load.id)));
}
