/** Causes in sentences. A sentence is told only where its metric has a verdict. */
import type { Cause } from '../compare/causes/cause';
import type { Why } from '../compare/why';
import type { Verdict } from '../trial/types';
import { localNumber } from './localNumber';
import { ENGLISH, type EvidenceWords, type MessageValues } from './words';

export type CauseText = Pick<Cause, 'metric' | 'shift' | 'subject' | 'weight'> & { words: string };
export type WhyText = Omit<Why, 'causes'> & { causes: CauseText[] };

export function describeCause(cause: Cause, words: EvidenceWords = ENGLISH): string {
	const direction = cause.shift > 0 ? 'up' : 'down';
	const shift = localNumber(sizeOf(cause), words.language);
	return words.say(`cause.${cause.kind}`, { direction, shift, ...cause.values, ...detailsOf(cause, words) });
}

const DIFFERENCES: readonly (Verdict | undefined)[] = ['better', 'worse', 'slight'];

/** Causes of what a verdict calls a difference. Requests are no metric of most trials: they go with the bytes. */
export function toldCauses(
	causes: readonly CauseText[],
	verdicts: Readonly<Partial<Record<string, Verdict>>>
): CauseText[] {
	return causes.filter(({ metric, shift }) => {
		const verdict = DIFFERENCES.includes(verdicts[metric])
			? verdicts[metric]
			: metric === 'requests' && DIFFERENCES.includes(verdicts.wire)
				? verdicts.wire
				: null;
		if (!verdict) return false;
		// Of all metrics that have causes less is better: what points the other way explains nothing.
		return verdict === 'slight' || shift > 0 === (verdict === 'worse');
	});
}

/** A whole time, without a sign. */
function duration(ms: number): string {
	const size = Math.abs(ms);
	return size < 1000 ? `${size.toFixed(0)}\u00a0ms` : `${(size / 1000).toFixed(2)}\u00a0s`;
}

function kilobytes(bytes: number): string {
	const size = Math.abs(bytes);
	return `${(size / 1000).toFixed(size < 100_000 ? 1 : 0)}\u00a0kB`;
}

function sizeOf({ metric, shift }: Cause): string {
	if (metric === 'wire') return kilobytes(shift);
	return metric === 'cls' ? Math.abs(shift).toFixed(3) : duration(shift);
}

function detailsOf({ kind, values }: Cause, words: EvidenceWords): MessageValues {
	if (kind === 'files') return { states: statesOf(values, words) };
	if (kind !== 'third-party-weight') return {};
	const [bytes, requests] = [Number(values.bytes), Number(values.requests)];
	return {
		bytes: localNumber(kilobytes(bytes), words.language),
		requests: Math.round(Math.abs(requests)),
		direction: bytes > 0 ? 'up' : 'down'
	};
}

function statesOf(values: Cause['values'], words: EvidenceWords): string {
	const states = (['added', 'gone', 'changed'] as const).filter((state) => Number(values[state]) > 0);
	return states.map((state) => words.say(`cause.files.${state}`, { n: values[state]! })).join(', ');
}
