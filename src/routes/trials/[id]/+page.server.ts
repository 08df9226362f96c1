import { error, redirect } from '@sveltejs/kit';
import type { RequestEvent } from './$types';
import * as v from 'valibot';
import { describeConditions } from '$core/load/conditions';
import { METRICS, isMetricId, noFigures, type MetricId } from '$core/metrics/catalogue';
import { outliers } from '$core/stats/summary';
import { restsOn } from '$core/trial/fairness';
import { ALL_PAGES, comparisonsOf } from '$core/trial/judge';
import { LOOKS, roundsOfNextLook } from '$core/trial/looks';
import { noiseFloorOf } from '$core/trial/noise';
import { isShown } from '$core/trial/shown';
import { wordBroke } from '$core/trial/broke';
import { Setup } from '$core/trial/setup';
import type { StabilityResult } from '$core/trial/stability';
import { wordHeld } from '$core/wording/held';
import { headlineOf } from '$core/wording/headline';
import { worthOf } from '$core/wording/worth';
import { idFrom } from '$lib/server/access/api';
import { formAction, jsonOf, textOf } from '$lib/server/access/form';
import { getDb } from '$lib/server/context';
import type { Db } from '$lib/server/db/connection';
import { settlingsOf, markersOf } from '$lib/server/db/evidence';
import { lastStage, nextStart, wholeRounds } from '$lib/server/db/jobs';
import { findRecord, loadsOfTrial, type LoadSummary } from '$lib/server/db/loads';
import { listSingles } from '$lib/server/db/singles';
import {
	changeDesign,
	deleteTrial,
	findTrial,
	repeatsOf,
	samePageTrials,
	setArmSetup,
	type Trial
} from '$lib/server/db/trials';
import { judgementForPage, judgementOf, timeLeftMs } from '$lib/server/queue/answer';
import { headlinesOf } from '$lib/server/queue/headlines';
import { evidenceOf } from '$lib/server/queue/evidence';
import { findRejudged } from '$lib/server/queue/rejudged';
import { repeatTrial } from '$lib/server/queue/repeat';
import { nudgeArm } from '$lib/server/queue/singles';
import {
	addRounds,
	leaveOut,
	NotPossible,
	noteChange,
	pauseTrial,
	startTrial,
	stopTrial
} from '$lib/server/queue/trials';

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

/** Machine speeds within a round further apart than this are marked (measurement rules, section 5). */
const SPEED_WITHIN = 0.1;

function loadsOffSpeed(loads: readonly LoadSummary[]): Set<number> {
	const rounds = new Map<string, LoadSummary[]>();
	for (const load of loads) {
		if (load.warmup || load.machineSpeed === null) continue;
		const key = `${load.conditionId}/${load.stage}/${load.round}`;
		rounds.set(key, [...(rounds.get(key) ?? []), load]);
	}
	const off = [...rounds.values()].filter((round) => {
		const speeds = round.map((load) => load.machineSpeed!);
		return Math.max(...speeds) / Math.min(...speeds) - 1 > SPEED_WITHIN;
	});
	return new Set(off.flatMap((round) => round.map((load) => load.id)));
}

/** The newest trial of one page against itself under conditions that measure alike: what the lab cannot tell there. */
function noiseFloors(trial: Trial): Record<string, { trial: number; floors: Partial<Record<MetricId, number>> }> {
	const db = getDb();
	const result: Record<string, { trial: number; floors: Partial<Record<MetricId, number>> }> = {};
	for (const other of samePageTrials(db).filter((one) => one.id !== trial.id))
		for (const conditions of trial.design.conditions) {
			if (result[conditions.id]) continue;
			const floor = noiseFloorOf(
				{ design: other.design, judgement: judgementOf(db, other), loads: loadsOfTrial(db, other.id) },
				conditions
			);
			if (floor) result[conditions.id] = { trial: other.id, floors: floor.floors };
		}
	return result;
}

/** Nudged loads asked for on behalf of the arms. */
function heldBack(trialId: number) {
	const db = getDb();
	return listSingles(db, { trialId }).map(({ id, armId, conditions, status, loadId }) => {
		const record = loadId === null ? null : findRecord(db, loadId);
		return {
			id,
			arm: armId,
			condition: conditions.id,
			status,
			load: loadId,
			heldBack: record?.heldBack ?? null,
			wire: record?.figures.wire ?? null,
			score: record?.figures.score ?? null,
			failed: record?.failure?.message ?? null
		};
	});
}

export const load = async ({ params, url }) => {
	const db = getDb();
	const trial = findTrial(db, Number(params.id));
	if (!trial) error(404, `There is no trial ${params.id}.`);
	const loads = loadsOfTrial(db, trial.id);
	const shown = loads.filter((one) => isShown(trial.design, one));
	const judgement = await judgementForPage(db, trial, loads);
	const { design } = trial;
	const chosen = url.searchParams.get('metric') ?? '';
	const compared = design.arms.filter((arm) => !arm.reference);
	const stagesRun = design.kind === 'before-after' ? new Set(loads.map((one) => one.stage)).size : 0;
	const kept = evidenceOf(db, trial);
	const evidence = kept?.result ?? null;
	const pairs = comparisonsOf(design);
	const comparisons = pairs.map(({ arm, baseline }) => ({
		id: arm.id,
		name: arm.page ? `${arm.page}: ${arm.name}` : arm.name,
		baseline: baseline.name,
		baselineId: baseline.id,
		page: arm.page ?? null
	}));
	if (design.kind === 'sweep' && pairs.length > 1)
		comparisons.unshift({
			id: ALL_PAGES,
			name: `All ${pairs.length} pages`,
			baseline: pairs[0]!.baseline.name,
			baselineId: 0,
			page: null
		});
	const armName = (id: number) => design.arms.find((arm) => arm.id === id)?.name ?? '';
	const nudged = heldBack(trial.id);
	const off = loadsOffSpeed(loads);
	const repeats = [
		...(trial.repeatOf === null ? [] : [trial.repeatOf]),
		...repeatsOf(db, trial.repeatOf ?? trial.id).map((one) => one.id)
	].filter((id) => id !== trial.id);
	return {
		where: `Trials › ${trial.question}`,
		trial: {
			id: trial.id,
			question: trial.question,
			clientName: trial.clientName,
			status: trial.status,
			message: trial.message,
			paused: trial.paused,
			progress: trial.progress,
			startedAt: trial.startedAt,
			endedAt: trial.endedAt,
			unread: trial.endedAt !== null && trial.readAt === null,
			timeLeftMs: timeLeftMs(db, trial),
			begins: trial.status === 'queued' ? nextStart(db, trial.id) : null,
			kind: design.kind,
			adaptive: design.adaptive ?? false,
			added: design.added ?? 0,
			looks: design.looks ?? [],
			planned: LOOKS as readonly number[],
			nextLook: roundsOfNextLook(design),
			wholeRounds: wholeRounds(db, trial.id, Math.max(0, lastStage(db, trial.id))),
			rejudged: findRejudged(db, trial.id),
			rounds: design.rounds,
			warmups: design.warmups,
			seed: design.seed,
			primary: design.primary,
			intended: design.intended ?? [],
			steps: design.steps?.length ?? 0,
			nextStage: design.kind === 'before-after' ? (compared[stagesRun]?.name ?? null) : null,
			stagesRun
		},
		arms: design.arms,
		comparisons,
		conditions: design.conditions.map((conditions) => ({
			id: conditions.id,
			name: conditions.name,
			summary: conditions.summary,
			detail: describeConditions(conditions)
		})),
		metric: isMetricId(chosen) ? chosen : (design.primary[1] ?? design.primary[0]!),
		headlines: headlineOf(design, judgement).map((headline) => {
			const found = evidence?.arms.find((one) => one.condition === headline.condition && one.arm === headline.arm);
			return {
				...headline,
				broke: found?.broke.broken ? wordBroke(found.broke, armName(headline.arm)) : '',
				restsOn:
					found && design.kind !== 'same-page' ? restsOn(found.fairness).map((line) => line.name.toLowerCase()) : [],
				held: wordHeld(
					nudged.find((one) => one.arm === headline.arm && one.condition === headline.condition),
					armName(headline.arm)
				)
			};
		}),
		excludedAnswer: judgement.withoutExcluded && {
			headlines: headlineOf(design, { results: judgement.withoutExcluded }),
			loads: loads
				.filter((one) => one.excluded !== null && !one.warmup)
				.map((one) => ({ id: one.id, arm: armName(one.armId), round: one.round, reason: one.excluded! }))
		},
		worth: design.conditions.flatMap((conditions) =>
			pairs.map(({ arm, baseline }) => ({
				condition: conditions.id,
				arm: arm.id,
				...worthOf(
					judgement.results.filter((one) => one.condition === conditions.id),
					baseline,
					arm
				)
			}))
		),
		evidence,
		evidencePending: loads.some((one) => !one.warmup) && (kept === null || kept.stale),
		settlings: settlingsOf<StabilityResult>(db, trial.id).map(({ armId, conditionId, stage, result }) => ({
			arm: armName(armId),
			conditionId,
			stage,
			words: result.words,
			stable: result.stable,
			fetches: result.fetches
		})),
		markers: markersOf(db, trial.id),
		nudged,
		noise: noiseFloors(trial),
		repeats: repeats.map((id) => {
			const other = findTrial(db, id)!;
			return {
				id,
				createdAt: other.createdAt,
				status: other.status,
				headlines: other.status === 'done' ? headlinesOf(db, other) : []
			};
		}),
		judgement,
		outlying: outlyingLoads(shown),
		loads: loads.map(
			({
				id,
				armId,
				conditionId,
				stage,
				round,
				warmup,
				status,
				capped,
				reason,
				figures,
				startedAt,
				labMs,
				excluded,
				failedStep,
				source
			}) => ({
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
				excluded,
				failedStep,
				source,
				// Figures beside each other between looks would be an answer; each load can be opened all the same.
				figures: isShown(design, { stage, round, warmup }) ? figures : noFigures(),
				speedOff: off.has(id)
			})
		)
	};
};

/** Act on the trial of the address with what the form says. */
const act = (work: (db: Db, id: number, form: FormData) => void | Promise<void>) =>
	formAction(async (form, { params }: RequestEvent) => {
		await work(getDb(), idFrom(params.id, 'trial'), form);
		return { done: true };
	});

const MOST_SETTINGS_BYTES = 1_000_000;

async function settingsOf(form: FormData): Promise<{ fileName: string | null; file: string | null }> {
	const file = form.get('file');
	if (!(file instanceof File) || file.size === 0) return { fileName: null, file: null };
	if (file.size > MOST_SETTINGS_BYTES)
		throw new NotPossible(413, 'The settings file is larger than 1 MB: export the settings alone.', 'file');
	return { fileName: file.name.slice(0, 200), file: await file.text() };
}

export const actions = {
	start: act(async (db, id, form) => {
		const words = textOf(form, 'change').trim().slice(0, 2000);
		const settings = await settingsOf(form);
		if (words || settings.file)
			noteChange(db, id, { words: words || `Settings saved: ${settings.fileName}`, ...settings });
		startTrial(db, id);
	}),
	pause: act((db, id) => pauseTrial(db, id)),
	stop: act((db, id) => stopTrial(db, id)),
	rounds: act((db, id, form) => addRounds(db, id, Number(textOf(form, 'rounds')))),
	exclude: act((db, _, form) => leaveOut(db, idFrom(textOf(form, 'load'), 'load'), textOf(form, 'reason'))),
	restore: act((db, _, form) => leaveOut(db, idFrom(textOf(form, 'load'), 'load'), null)),
	intend: act((db, id, form) => {
		const trial = findTrial(db, id);
		if (!trial) throw new NotPossible(404, `There is no trial ${id}.`);
		const line = textOf(form, 'line').slice(0, 40);
		const now = trial.design.intended ?? [];
		changeDesign(db, trial, { intended: now.includes(line) ? now.filter((one) => one !== line) : [...now, line] });
	}),
	setup: act((db, id, form) => {
		const parsed = v.safeParse(Setup, jsonOf(textOf(form, 'setup') || '{}', 'setup'));
		if (!parsed.success) throw new NotPossible(422, `The setup was not saved: ${parsed.issues[0].message}`, 'setup');
		if (!setArmSetup(db, Number(textOf(form, 'arm')), id, parsed.output))
			throw new NotPossible(404, 'There is no such variant in this trial.');
	}),
	nudge: act((db, id, form) => nudgeArm(db, id, Number(textOf(form, 'arm')))),
	repeat: formAction((_, { params }: RequestEvent) =>
		redirect(303, `/trials/${repeatTrial(getDb(), idFrom(params.id, 'trial'))}`)
	),
	delete: formAction((_, { params }: RequestEvent) => {
		deleteTrial(getDb(), idFrom(params.id, 'trial'));
		redirect(303, '/trials');
	})
};
