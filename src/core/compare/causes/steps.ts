/** Why a step takes another time: it opens a whole document where the other swaps a part, or asks for more. */
import { medianOrNull } from '../../stats/summary';
import type { MetricId } from '../../metrics/catalogue';
import type { LoadDigest } from '../digest';
import type { Candidate, CauseRule, Compared } from './cause';

const TIMES = ['stepShown', 'stepQuiet'] as const satisfies readonly MetricId[];
type Count = keyof NonNullable<LoadDigest['journey']>;

export const stepCauses: CauseRule = (compared) => TIMES.flatMap((metric) => causeOf(compared, metric));

function causeOf(compared: Compared, metric: (typeof TIMES)[number]): Candidate[] {
	const [before, after] = [middle(compared.before, metric), middle(compared.after, metric)];
	if (before === null || after === null) return [];
	const shift = after - before;
	const change = (count: Count) => countOf(compared.after, count) - countOf(compared.before, count);
	const [documents, requests, bytes] = [change('documents'), change('requests'), change('wireBytes')];
	// Only what points the same way can be a cause: more work does not make a step faster.
	const explains = (more: number) => more !== 0 && Math.sign(more) === Math.sign(shift);
	const values = { requests, bytes };
	if (explains(documents)) return [{ kind: 'step-document', subject: 'step document', metric, shift, values }];
	if (explains(requests) || explains(bytes))
		return [{ kind: 'step-requests', subject: 'step requests', metric, shift, values }];
	return [];
}

function middle(loads: readonly LoadDigest[], metric: MetricId): number | null {
	return medianOrNull(loads.flatMap(({ figures }) => figures[metric] ?? []));
}

function countOf(loads: readonly LoadDigest[], count: Count): number {
	return medianOrNull(loads.flatMap(({ journey }) => journey?.[count] ?? [])) ?? 0;
}
