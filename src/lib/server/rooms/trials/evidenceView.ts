/** The evidence of a trial in words, as the sheet and the API give it. */
import type { Breakdown } from '$core/compare/breakdowns';
import type { Cause } from '$core/compare/causes/cause';
import type { Regressions } from '$core/compare/regressions';
import type { StepEvidence } from '$core/findings/stepEvidence';
import type { TimingShift } from '$core/compare/timings';
import { describeCause, type CauseText, type WhyText } from '$core/wording/causes';
import { describeFairness, type FairnessText } from '$core/wording/fairness';
import { wordTimingMargin } from '$core/wording/shift';
import { ENGLISH } from '$core/wording/words';
import type { Db } from '../../base/db/connection';
import { customTimingsAt } from '../visits/customTimings';
import { findEvidence, type ArmEvidence, type FilmStrip } from './evidence';
import type { Trial } from './trial';

export interface ArmEvidenceView {
	condition: string;
	baseline: number;
	arm: number;
	why: WhyText | null;
	fairness: FairnessText[];
	broke: Regressions;
	/** The pages' own User Timing, to explore; with the margin, ms, that the analyst set for the site, where one is. */
	timings: (TimingShift & { margin: number | null; marginWords: string })[];
	/** Name of the difference picture; null without one. */
	picture: string | null;
}

export interface EvidenceView {
	/** It is being worked out, or worked out anew. */
	pending: boolean;
	arms: ArmEvidenceView[];
	films: FilmStrip[];
	/** Of a log: what broke and what was found, step by step. */
	stepEvidence: StepEvidence[];
}

export function evidenceView(db: Db, trial: Trial): EvidenceView {
	const stored = findEvidence(db, trial.id);
	const url = trial.design.arms[0]?.url ?? '';
	const defined = customTimingsAt(db, trial.clientId, url);
	return {
		pending: stored === null || stored.isOld,
		arms: stored?.body.arms.map((own) => armView(own, defined)) ?? [],
		films: stored?.body.films ?? [],
		stepEvidence: stored?.body.steps ?? []
	};
}

function armView(
	{ condition, baseline, arm, why, fairness, regressions, timings, picture }: ArmEvidence,
	defined: ReturnType<typeof customTimingsAt>
): ArmEvidenceView {
	return {
		condition,
		baseline,
		arm,
		why: why && { ...why, breakdowns: why.breakdowns.map(breakdownView), causes: why.causes.map(causeView) },
		fairness: fairness.map(describeFairness),
		broke: regressions,
		timings: timings.map((timing) => {
			const margin = defined.get(timing.name)?.margin ?? null;
			return { ...timing, margin, marginWords: wordTimingMargin(timing.shift, margin) };
		}),
		picture
	};
}

function causeView(cause: Cause): CauseText {
	const { metric, shift, subject, weight } = cause;
	return { metric, shift, subject, weight, words: describeCause(cause) };
}

type LcpPart = 'firstByte' | 'resourceDelay' | 'resourceLoad' | 'renderDelay';

function breakdownView(breakdown: Breakdown): Breakdown {
	if (breakdown.metric !== 'lcp') return breakdown;
	const parts = breakdown.parts.map((part) => ({ ...part, name: ENGLISH.say(`lcp-part.${part.key as LcpPart}`) }));
	return { ...breakdown, parts };
}
