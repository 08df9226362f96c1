/** What the rows of loads and of their jobs and files may hold. */
import * as v from 'valibot';
import { LATE_KINDS } from '$core/compare/late/facts';
import { FailureCode } from '$core/load/record/record';
import { METRIC_IDS } from '$core/metrics/catalogue';
import { StoredOrder } from '../loads/requested';
import {
	amount,
	conditionId,
	conditionIndex,
	flag,
	hash,
	host,
	id,
	json,
	list,
	maybe,
	metric,
	number,
	roundNumber,
	text,
	time,
	whole,
	type RowSchema
} from './columns';

const LateFacts = v.object({
	kind: v.picklist(LATE_KINDS),
	requests: amount,
	wireBytes: amount,
	scriptMs: amount,
	fromMs: number,
	settledMs: v.nullable(number),
	added: v.record(metric, v.nullable(number)),
	figures: v.record(metric, v.nullable(number)),
	hosts: list(
		v.object({
			host: text(260),
			loadRequests: amount,
			loadBytes: amount,
			lateRequests: amount,
			lateBytes: amount,
			lateMs: v.nullable(number)
		}),
		10_000
	)
});
const LoadSeen = v.object({
	checks: list(v.nullable(v.boolean()), 100),
	sendings: list(v.object({ whileLoading: v.nullable(number), late: v.nullable(number) }), 100)
});
const StabilityResult = v.object({
	stable: v.boolean(),
	tookMs: amount,
	fetches: list(
		v.object({
			atMs: amount,
			status: v.nullable(whole),
			bytes: v.nullable(amount),
			etag: v.nullable(text(1000)),
			lastModified: v.nullable(text(200)),
			cacheControl: v.nullable(text(2000)),
			cache: v.nullable(v.picklist(['hit', 'miss'])),
			problem: v.nullable(text(2000))
		}),
		5000
	)
});
const figures = Object.fromEntries(METRIC_IDS.map((name) => [name, maybe(number)]));
const jobStatus = v.picklist(['done', 'cancelled'], 'Only jobs that are over may come with an archive.');
const role = v.pipe(
	text(200),
	v.regex(
		/^(record|frame|picture|step-picture|survey-picture|check-picture|difference\/[\w.-]{1,150})$/,
		'There is no such use of a file.'
	)
);

export const LOAD_ROWS: Readonly<Record<string, RowSchema>> = {
	job: v.object({
		id,
		kind: v.picklist(['load', 'settle'], 'Only jobs of loads may come with an archive.'),
		subject_kind: v.picklist(
			['trial', 'arm', 'client', 'reading', 'audit', 'nobody'],
			'A job serves a trial, an arm, a client, a reading or an audit.'
		),
		subject_id: whole,
		of_load: maybe(id),
		order: maybe(json(StoredOrder)),
		priority: v.optional(v.pipe(number, v.minValue(-100), v.maxValue(100)), 0),
		status: jobStatus,
		lab_id: v.optional(v.nullable(text(100))),
		leased_at: maybe(time),
		lease_until: maybe(time),
		not_before: maybe(time),
		attempts: v.optional(v.pipe(whole, v.maxValue(1000)), 0),
		created_at: time
	}),
	trial_place: v.object({
		job_id: id,
		trial_id: id,
		arm_id: id,
		condition_id: conditionId,
		stage: conditionIndex,
		round: roundNumber,
		warmup: flag,
		retry: v.optional(conditionIndex, 0)
	}),
	settling: v.object({
		job_id: id,
		trial_id: id,
		arm_id: id,
		condition_id: conditionId,
		stage: conditionIndex,
		result: json(StabilityResult, 5_000_000)
	}),
	load: v.object({
		id,
		job_id: maybe(id),
		trial_id: maybe(id),
		arm_id: maybe(id),
		condition_id: conditionId,
		stage: conditionIndex,
		round: roundNumber,
		warmup: flag,
		status: text(10),
		capped: flag,
		reason_code: maybe(FailureCode),
		reason: maybe(text(4000)),
		excluded: maybe(text(1000)),
		started_at: time,
		lab_ms: amount,
		machine_speed: maybe(amount),
		recipe: text(60),
		...figures,
		url: v.union([
			v.literal(''),
			v.pipe(
				text(4000),
				v.check((url) => URL.canParse(url), 'This is no address.')
			)
		]),
		source: v.picklist(['lab', 'har']),
		client_id: maybe(id),
		failed_step: maybe(v.pipe(whole, v.maxValue(1000))),
		nudged: v.optional(flag, 0),
		conditions_hash: maybe(hash),
		disturbed: v.optional(flag, 0),
		others_share: maybe(number),
		browser: maybe(text(200)),
		late: maybe(json(LateFacts, 5_000_000)),
		seen: maybe(json(LoadSeen)),
		stepShown: maybe(number),
		stepQuiet: maybe(number),
		hosts_noted: v.optional(flag, 0),
		landed: maybe(text(4000)),
		markup: maybe(v.pipe(text(400), v.regex(/^[A-Za-z0-9+/]*={0,2}$/, 'This is no code of a page’s markup.')))
	}),
	reading_place: v.object({
		job_id: id,
		reading_id: id,
		watched_page_id: id,
		condition_id: conditionId,
		round: roundNumber,
		turn: v.optional(conditionIndex, 0),
		retry: v.optional(conditionIndex, 0),
		late: maybe(text(20))
	}),
	host_seen: v.object({
		load_id: id,
		host,
		requests: whole,
		wire_bytes: amount,
		blocking_ms: amount,
		tail_ms: amount,
		asked_by: text(4000),
		is_seen: flag
	}),
	artifact_use: v.object({
		owner_kind: v.picklist(['load', 'trial'], 'A file belongs to a load or a trial.'),
		owner_id: id,
		role,
		position: v.optional(roundNumber, 0),
		sha256: hash
	})
};
