/**
 * Bringing what earlier versions stored under today's rules: scores by today's recipe, looks of trials that had
 * ended.
 */
import { hasStages } from '$core/trial/design/kinds';
import { METRIC_IDS, type Figures, type MetricId } from '$core/metrics/catalogue';
import { LAB_RECIPE, scoreOf } from '$core/metrics/score';
import { equalShare, LOOKS, nextLook, stageLook } from '$core/trial/design/looks';
import type { Look, TrialDesign, TrialKind } from '$core/trial/types';
import { sql, type Db } from './statements';

/** Cheap when there is nothing to do: it runs at every start. */
export function adoptEarlierData(db: Db): void {
	db.transaction(() => {
		scoreAnew(db);
		addLooks(db);
	}).immediate();
}

const COLUMNS = METRIC_IDS.map((id) => `"${id}"`).join(', ');

/** The record keeps what it was stored with; reading it scores it anew too. */
function scoreAnew(db: Db): void {
	const old = sql<Record<MetricId, number | null> & { id: number }>(
		db,
		`SELECT id, ${COLUMNS} FROM load WHERE recipe <> ?`
	).all(LAB_RECIPE.version);
	for (const { id, ...figures } of old)
		sql(db, 'UPDATE load SET score = ?, recipe = ? WHERE id = ?').run(
			scoreOf(figures as Figures).value,
			LAB_RECIPE.version,
			id
		);
	if (old.length) sql(db, 'UPDATE trial SET inputs = inputs + 1').run();
}

interface Ended {
	id: number;
	kind: TrialKind;
	rounds: number;
	options: string;
	stages: number;
}

/** Trials that ended before looks were written down: today's always have a list, if an empty one. */
function addLooks(db: Db): void {
	const ended = sql<Ended>(
		db,
		`SELECT id, kind, rounds, options, (SELECT count(*) FROM arm WHERE trial_id = trial.id AND is_reference = 0) AS stages
			FROM trial WHERE (status IN ('done', 'stopped') OR (status = 'waiting' AND kind = 'before-after')) AND EXISTS (SELECT 1 FROM load WHERE trial_id = trial.id AND warmup = 0)
			AND (json_type(options, '$.looks') IS NULL OR json_type(options, '$.looks[0]') = 'integer'
				OR (json_array_length(options, '$.looks') = 0 AND status = 'done'))`
	).all();
	for (const trial of ended) {
		const { looks: earlier = [], ...options } = JSON.parse(trial.options) as Partial<TrialDesign> & {
			looks?: number[];
		};
		const looks = hasStages(trial.kind) ? stageLooks(db, trial) : roundLooks(db, trial, options, earlier);
		sql(db, 'UPDATE trial SET options = ? WHERE id = ?').run(
			JSON.stringify({ ...options, looks, added: looks.filter((look) => look.by === 'added').length }),
			trial.id
		);
	}
}

/** Rounds of a stage in which every arm and device has a load, counted from the first. */
function roundsOf(db: Db, trialId: number, stage: number): number {
	const row = sql<{ n: number | null }>(
		db,
		`SELECT min(n) AS n FROM (SELECT max(round) AS n FROM load WHERE trial_id = ? AND stage = ? AND warmup = 0 GROUP BY arm_id, condition_id)`
	).get(trialId, stage);
	return row?.n ?? 0;
}

function roundLooks(db: Db, trial: Ended, options: Partial<TrialDesign>, earlier: readonly number[]): Look[] {
	const reached = roundsOf(db, trial.id, 0);
	const planned = options.adaptive ? LOOKS.filter((rounds) => rounds < (earlier[0] ?? reached)) : [];
	const first = earlier[0] ?? reached;
	const design = { adaptive: options.adaptive ?? false, rounds: first, looks: [] as Look[] };
	const add = (rounds: number, by: Look['by']) => rounds > 0 && design.looks.push(nextLook(design, rounds, by));
	for (const rounds of [...planned, first]) add(rounds, 'plan');
	if (earlier.length) for (const rounds of [...earlier.slice(1), reached]) if (rounds > first) add(rounds, 'added');
	return design.looks;
}

function stageLooks(db: Db, trial: Ended): Look[] {
	const looks: Look[] = [];
	for (let stage = 1; stage < trial.stages; stage++) {
		const rounds = roundsOf(db, trial.id, stage);
		if (rounds > 0)
			looks.push(
				stageLook({ rounds: trial.rounds, looks }, { stage, share: equalShare(trial.stages), rounds, by: 'plan' })
			);
	}
	return looks;
}
