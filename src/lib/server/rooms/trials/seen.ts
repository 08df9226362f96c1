/** What a trial asks of its loads beside figures: that a change took effect, and that what must be sent is. */
import type { LoadRecord } from '$core/load/record/record';
import { countedLoads } from '$core/trial/judge/counted';
import { comparisonsOf } from '$core/trial/design/comparisons';
import { brokenSends, sendingsOf, sendStates, type Sending, type SendState } from '$core/trial/design/mustSend';
import { meetsCheck } from '$core/trial/design/presence';
import { presenceOf, Samples } from '$core/trial/judge/samples';
import type { TrialArm, TrialDesign } from '$core/trial/types';
import { wordMissed, wordSend } from '$core/wording/presence';
import type { EvidenceWords } from '$core/wording/words';
import type { Db } from '../../base/db/connection';
import type { Subject } from '../../base/subject';
import type { LateLoadView } from './queries/lateView';
import { findTrial } from './trial';
import { trialOfArm } from './queries/trial';
import { findLoad, type LoadSeen, type LoadSummary } from '../loads/view';

/** Null where the trial asks for neither, and of a load that failed. */
export function seenIn(
	{ mustSend = [] }: Pick<TrialDesign, 'mustSend'>,
	{ checks = [], rewrites = [] }: Pick<TrialArm, 'checks' | 'rewrites'>,
	record: LoadRecord
): LoadSeen | null {
	if (record.status === 'failed' || (!mustSend.length && !checks.length && !rewrites.length)) return null;
	return {
		checks: [
			...checks.map((check) => meetsCheck(check, record)),
			// In the order in which `checksOf` names them.
			...rewrites.map((_, i) => (record.rewriting?.done[i]?.times ?? 0) > 0)
		],
		sendings: sendingsOf(mustSend, record)
	};
}

/** Of a load on behalf of an arm: only what is sent. */
export function seenOnBehalf(db: Db, subject: Subject, record: LoadRecord): LoadSeen | null {
	const id = trialOfArm(db, subject);
	const trial = id === null ? null : findTrial(db, id);
	return trial ? seenIn(trial.design, {}, record) : null;
}

export interface PresenceView {
	condition: string;
	arm: number;
	checks: { check: string; met: number; loads: number }[];
}

export function presenceView(design: TrialDesign, loads: readonly LoadSummary[]): PresenceView[] {
	const samples = new Samples(design, loads);
	return design.conditions.flatMap(({ id: condition }) =>
		design.arms
			.filter(({ checks, rewrites }) => checks?.length || rewrites?.length)
			.map((arm) => ({ condition, arm: arm.id, checks: presenceOf(samples, condition, arm) }))
	);
}

export interface SendsView {
	condition: string;
	arm: number;
	baseline: SendState[];
	own: SendState[];
}

/** What became of what must be sent, by conditions and variant. */
export function sendsView(
	db: Db,
	design: TrialDesign,
	loads: readonly LoadSummary[],
	late: readonly LateLoadView[]
): SendsView[] {
	const { mustSend = [] } = design;
	if (!mustSend.length) return [];
	const counted = countedLoads(design, loads);
	const statesOf = (condition: string, arm: number) => {
		const own = counted.filter((load) => load.conditionId === condition && load.armId === arm);
		const lateOf = (kind: LateLoadView['kind']): Sending[] | null => {
			const found = late.find(
				(view) => view.arm === arm && view.condition === condition && view.kind === kind && view.facts
			);
			return found?.load ? (findLoad(db, found.load)?.sendings ?? null) : null;
		};
		const rounds = own.map(({ sendings }) => sendings);
		return sendStates(mustSend, rounds, lateOf('postponed'), lateOf('held-back'));
	};
	return design.conditions.flatMap(({ id: condition }) =>
		comparisonsOf(design).map(({ baseline, arm }) => ({
			condition,
			arm: arm.id,
			baseline: statesOf(condition, baseline.id),
			own: statesOf(condition, arm.id)
		}))
	);
}

/** What a verdict on a variant must not be read without; empty when there is nothing. */
export function missedWords(
	condition: string,
	{
		arm,
		presence,
		sends,
		words
	}: {
		arm: Pick<TrialArm, 'id' | 'name'>;
		presence: readonly PresenceView[];
		sends: readonly SendsView[];
		words: EvidenceWords;
	}
): string {
	const checks = presence.find((view) => view.condition === condition && view.arm === arm.id)?.checks ?? [];
	const sent = sends.find((send) => send.condition === condition && send.arm === arm.id);
	return [
		...checks.filter(({ met, loads }) => met < loads).map((missed) => wordMissed(arm.name, missed, words)),
		...(sent ? brokenSends(sent.baseline, sent.own).map((state) => wordSend(arm.name, state, words)) : [])
	].join(' ');
}
