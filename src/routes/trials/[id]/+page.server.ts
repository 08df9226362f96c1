import { error, fail, redirect } from '@sveltejs/kit';
import { describeConditions } from '../../../core/load/conditions';
import { METRICS, isMetricId } from '../../../core/metrics/catalogue';
import { outliers } from '../../../core/stats/summary';
import { headlineOf } from '../../../core/wording/headline';
import { getDb } from '$lib/server/context';
import { loadsOfTrial, type LoadSummary } from '$lib/server/db/loads';
import { deleteTrial, findTrial, markTrialRead } from '$lib/server/db/trials';
import { judgementOf, timeLeftMs } from '$lib/server/queue/answer';
import { NotPossible, startTrial, stopTrial } from '$lib/server/queue/trials';

/** Which loads lie far from the others of their arm and conditions, per metric. */
function outlyingLoads(loads: readonly LoadSummary[]): Record<string, number[]> {
	const groups = new Map<string, LoadSummary[]>();
	for (const load of loads) {
		if (load.warmup || load.status !== 'ok') continue;
		const key = `${load.conditionId}/${load.armId}`;
		groups.set(key, [...(groups.get(key) ?? []), load]);
	}
	const marked: Record<string, number[]> = {};
	for (const metric of METRICS)
		for (const group of groups.values()) {
			const measured = group.filter((load) => load.figures[metric.id] !== null);
			const flags = outliers(measured.map((load) => load.figures[metric.id]!));
			measured.forEach((load, i) => flags[i] && (marked[metric.id] ??= []).push(load.id));
		}
	return marked;
}

export const load = ({ params, url }) => {
	const db = getDb();
	const trial = findTrial(db, Number(params.id));
	if (!trial) error(404, `There is no trial ${params.id}.`);
	const loads = loadsOfTrial(db, trial.id);
	const judgement = judgementOf(db, trial, loads);
	markTrialRead(db, trial.id);
	const { design } = trial;
	const chosen = url.searchParams.get('metric') ?? '';
	const compared = design.arms.filter((arm) => !arm.reference);
	const stagesRun = design.kind === 'before-after' ? new Set(loads.map((one) => one.stage)).size : 0;
	return {
		where: `Trials › ${trial.question}`,
		trial: {
			id: trial.id,
			question: trial.question,
			clientName: trial.clientName,
			status: trial.status,
			message: trial.message,
			progress: trial.progress,
			startedAt: trial.startedAt,
			endedAt: trial.endedAt,
			timeLeftMs: timeLeftMs(db, trial),
			kind: design.kind,
			rounds: design.rounds,
			warmups: design.warmups,
			seed: design.seed,
			primary: design.primary,
			nextStage: design.kind === 'before-after' ? (compared[stagesRun]?.name ?? null) : null
		},
		arms: design.arms,
		conditions: design.conditions.map((conditions) => ({
			id: conditions.id,
			name: conditions.name,
			summary: conditions.summary,
			detail: describeConditions(conditions)
		})),
		metric: isMetricId(chosen) ? chosen : (design.primary[1] ?? design.primary[0]!),
		headlines: headlineOf(design, judgement),
		judgement,
		outlying: outlyingLoads(loads),
		loads: loads.map(({ id, armId, conditionId, stage, round, warmup, status, capped, reason, figures, startedAt, labMs }) => ({
			id,
			armId,
			conditionId,
			stage,
			round,
			warmup,
			status,
			capped,
			reason,
			startedAt,
			labMs,
			figures
		}))
	};
};

async function attempt(work: () => void) {
	try {
		work();
		return { done: true };
	} catch (problem) {
		if (problem instanceof NotPossible) return fail(problem.status, { problem: problem.message });
		throw problem;
	}
}

export const actions = {
	start: ({ params }) => attempt(() => startTrial(getDb(), Number(params.id))),
	stop: ({ params }) => attempt(() => stopTrial(getDb(), Number(params.id))),
	delete: ({ params }) => {
		deleteTrial(getDb(), Number(params.id));
		redirect(303, '/trials');
	}
};
