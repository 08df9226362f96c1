/** Something that differs between two arms and may have moved a metric. */
import type { MetricId } from '../../metrics/catalogue';
import type { Breakdown, Part } from '../breakdowns';
import type { LoadDigest } from '../digest';

export type CauseKind =
	| 'third-party-weight'
	| 'third-party-blocking'
	| 'third-party-tail'
	| 'compression'
	| 'files'
	| 'cdn'
	| 'first-byte'
	| 'discovery'
	| 'resource-wait'
	| 'resource-receive'
	| 'render-delay'
	| 'layout'
	| 'own-blocking'
	| 'step-document'
	| 'step-requests';

export interface Cause {
	kind: CauseKind;
	/** Owner id, or which of the site's own. */
	subject: string;
	metric: MetricId;
	/** Change of the metric that this explains, in its unit. */
	shift: number;
	/** What the sentence needs; worded in core/wording. */
	values: Record<string, string | number>;
	/** Size beside the steps of its metric, for ranking. */
	weight: number;
}

/** What is compared: digests of the counted loads of both arms, and what was made of them. */
export interface Compared {
	before: readonly LoadDigest[];
	after: readonly LoadDigest[];
	breakdowns: readonly Breakdown[];
	files: readonly Part[];
}

/** A cause before it is weighed. @param factor how telling it is beside others of its size; 1 when left out */
export type Candidate = Omit<Cause, 'weight'> & { factor?: number };

export type CauseRule = (compared: Compared) => Candidate[];

export function breakdownOf({ breakdowns }: Compared, metric: MetricId): Breakdown | null {
	return breakdowns.find((breakdown) => breakdown.metric === metric) ?? null;
}

export function sumOfShifts(parts: readonly Part[]): number {
	return parts.reduce((sum, part) => sum + part.shift, 0);
}

export const isOwn = (part: Part): boolean => part.owner !== null && part.owner.kind !== 'third-party';
