/** What the rows of conditions, trials and watches may hold: by the schemas of the app’s own doors. */
import { Rewrites } from '$core/rewrites/rewrite';
import { TRIAL_AIMS } from '$core/trial/design/kinds';
import { MOST_STEPS, STEP_DECISIONS } from '$core/trial/design/log';
import * as v from 'valibot';
import { WebAddress } from '$core/load/requests/addressInput';
import type { Conditions } from '$core/load/conditions/conditions';
import { parseConditions } from '$core/load/conditions/conditionsInput';
import { FailureCode } from '$core/load/record/record';
import { conditionsFingerprint } from '$core/load/conditions/sameConditions';
import { Steps } from '$core/load/journey/steps';
import { VisitorState } from '$core/load/journey/visitorState';
import { isMetricId } from '$core/metrics/catalogue';
import { Cold } from '$core/trial/design/cold';
import { MustSendList } from '$core/trial/design/mustSend';
import { PresenceChecks } from '$core/trial/design/presence';
import { Setup } from '$core/trial/design/setup';
import { StoredWatch } from '$core/watch/input';
import { sha256 } from '../../base/db/functions';
import {
	amount,
	conditionId,
	conditionIndex,
	day,
	flag,
	hash,
	id,
	json,
	list,
	maybe,
	metric,
	named,
	number,
	roundNumber,
	share,
	text,
	time,
	whole,
	type RowSchema
} from './columns';

/** Frozen conditions: the name is the hash of what they hold, computed anew. */
const conditionsVersion = v.pipe(
	v.object({ hash, body: json(v.record(v.string(), v.unknown()), 200_000) }),
	v.rawCheck(({ dataset, addIssue }) => {
		if (!dataset.typed || dataset.issues) return;
		const problem = conditionsProblem(dataset.value);
		if (problem) addIssue({ message: problem });
	})
);

function conditionsProblem({ hash: name, body }: { hash: string; body: string }): string | null {
	const stored = JSON.parse(body) as Conditions;
	if (conditionsFingerprint(stored) !== body || sha256(body) !== name)
		return 'These conditions are not those that their hash names: the file was changed.';
	const read = parseConditions({ ...stored, id: 'archived', name: 'Archived', summary: '' });
	if (read.success) return null;
	const [issue] = read.issues;
	return `${v.getDotPath(issue) ?? 'body'}: ${issue.message}`;
}

const margins = v.record(metric, v.object({ absolute: amount, relative: amount }));
const targets = v.record(metric, amount);
/** The rest of a trial's design, as it is stored. */
const TrialOptions = v.object({
	aim: v.optional(v.picklist(TRIAL_AIMS)),
	plannedSteps: maybe(v.pipe(whole, v.minValue(1), v.maxValue(MOST_STEPS))),
	adaptive: v.optional(v.boolean()),
	countsDisturbed: v.optional(v.boolean()),
	lateLoads: v.optional(v.boolean()),
	lateAsked: v.optional(list(whole, 100)),
	mustSend: v.optional(MustSendList),
	returnStage: maybe(v.pipe(whole, v.maxValue(20))),
	twin: v.optional(v.boolean()),
	added: v.optional(v.pipe(whole, v.maxValue(1000))),
	looks: v.optional(
		list(
			v.object({
				rounds: roundNumber,
				stage: v.optional(conditionIndex),
				spent: share,
				by: v.picklist(['plan', 'stop', 'added'])
			}),
			2000
		)
	),
	margins: v.optional(margins),
	targets: v.optional(targets),
	conditionTargets: v.optional(v.record(text(60), targets)),
	settleWithinMs: maybe(v.pipe(amount, v.maxValue(86_400_000))),
	steps: v.optional(Steps),
	intended: v.optional(list(text(100), 200)),
	notBefore: maybe(text(40)),
	spreadMinutes: maybe(v.pipe(amount, v.maxValue(100_000)))
});

const VERDICTS = ['better', 'worse', 'same', 'slight', 'undecided', 'none'] as const;
const VerdictChanges = list(
	v.object({ condition: text(60), arm: whole, metric, before: v.picklist(VERDICTS), after: v.picklist(VERDICTS) }),
	10_000
);
const figureKey = v.pipe(
	text(300),
	v.check((key) => isMetricId(key) || key.startsWith('timing:'), 'There is no such metric.')
);
const ReadingFigures = v.record(figureKey, list(v.nullable(number), 200));
const ReadingSetting = v.object({ browser: text(200), conditions: hash, recipe: text(60), lab: text(300) });
const PageTrouble = v.object({
	failed: list(v.object({ code: FailureCode, status: v.nullable(number), loads: amount }), 100),
	redirectedTo: v.nullable(text(4000)),
	asksWhoOneIs: v.boolean(),
	likeness: v.nullable(number)
});

export const TRIAL_ROWS: Readonly<Record<string, RowSchema>> = {
	conditions_version: conditionsVersion,
	trial: v.object({
		id,
		client_id: id,
		question: named(400),
		kind: text(20),
		status: v.picklist(
			['draft', 'waiting', 'done', 'stopped', 'failed'],
			'A trial that runs or is paused cannot come with an archive.'
		),
		reason: maybe(text(40)),
		rounds: v.pipe(whole, v.minValue(1), v.maxValue(10_000)),
		warmups: conditionIndex,
		seed: v.pipe(whole, v.maxValue(0xffffffff)),
		primary_metrics: json(v.pipe(list(metric, 100), v.minLength(1, 'A trial decides on a metric.'))),
		options: json(TrialOptions),
		repeat_of: maybe(id),
		leased_at: maybe(time),
		created_at: time,
		started_at: maybe(time),
		ended_at: maybe(time),
		read_at: maybe(time),
		inputs: v.optional(whole, 1)
	}),
	arm: v.object({
		id,
		trial_id: id,
		position: v.pipe(whole, v.maxValue(1000)),
		name: named(200),
		url: WebAddress,
		is_baseline: flag,
		is_reference: v.optional(flag, 0),
		setup: maybe(json(Setup, 20_000_000)),
		page: maybe(text(200)),
		page_id: maybe(id),
		checks: maybe(json(PresenceChecks)),
		cold: maybe(json(Cold)),
		before: maybe(json(VisitorState)),
		decision: maybe(v.picklist(STEP_DECISIONS)),
		decision_note: maybe(text(500)),
		undoes: maybe(id),
		rewrites: maybe(json(Rewrites)),
		steps: maybe(json(Steps))
	}),
	trial_conditions: v.object({
		trial_id: id,
		position: conditionIndex,
		id: conditionId,
		name: named(100),
		summary: text(400),
		hash
	}),
	marker: v.object({
		id,
		trial_id: maybe(id),
		stage: maybe(conditionIndex),
		at: v.union([day, time], 'This is neither a day nor a time.'),
		words: text(4000),
		file_name: maybe(text(300)),
		file: maybe(text(2_000_000)),
		site_id: maybe(id),
		path: v.optional(text(2000), ''),
		kind: v.optional(text(20), 'other')
	}),
	rejudged: v.object({
		trial_id: id,
		at: time,
		from_version: text(60),
		from_recipe: text(60),
		changes: json(VerdictChanges)
	}),
	watch: v.pipe(
		v.object({
			id,
			client_id: id,
			kind: v.picklist(['watch', 'standing']),
			name: named(120),
			settings: json(StoredWatch),
			state: text(20),
			next_at: maybe(time),
			created_at: time
		})
	),
	watch_conditions: v.object({
		watch_id: id,
		position: conditionIndex,
		id: conditionId,
		name: named(100),
		summary: text(400),
		hash
	}),
	watched_page: v.object({
		id,
		watch_id: id,
		page_id: maybe(id),
		url: v.union([v.literal(''), WebAddress], 'This is not a web address.'),
		name: text(400),
		role: text(20),
		position: roundNumber,
		ended_at: maybe(time)
	}),
	reading: v.object({
		id,
		watch_id: id,
		why: text(20),
		state: v.picklist(['done']),
		planned_at: time,
		ended_at: maybe(time),
		missed: v.optional(roundNumber, 0),
		extended: maybe(json(list(v.object({ page: whole, condition: text(60) }), 10_000)))
	}),
	reading_figure: v.object({
		reading_id: id,
		watched_page_id: id,
		condition_id: conditionId,
		setting: maybe(json(ReadingSetting)),
		figures: json(ReadingFigures),
		rounds: json(list(whole, 1000)),
		trouble: maybe(json(PageTrouble)),
		disturbed: v.optional(v.pipe(whole, v.maxValue(10_000)), 0),
		load_id: maybe(id)
	})
};
