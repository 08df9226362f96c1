/** Results of a judged trial, drawn at random, whose verdicts follow from their figures. */
import fc from 'fast-check';
import { metricOf, type MetricId } from '$core/metrics/catalogue';
import type { Interval, ShiftResult, Verdict } from '$core/trial/types';
import { decide } from '$core/trial/judge/verdict';

export const PRIMARY: readonly MetricId[] = ['score', 'lcp', 'cls', 'tbt', 'wire', 'inp'];

/** A result whose verdict follows from its figures, as judging makes it. */
export const randomResult = (metric: MetricId): fc.Arbitrary<ShiftResult> =>
	fc
		.record({
			centre: fc.double({ min: -8, max: 8, noNaN: true }),
			half: fc.double({ min: 0, max: 6, noNaN: true }),
			called: fc.boolean(),
			measured: fc.integer({ min: 0, max: 9 }),
			median: fc.double({ min: 0, max: 40, noNaN: true }),
			rounds: fc.integer({ min: 1, max: 60 }),
			needed: fc.integer({ min: 6, max: 201 }),
			scale: fc.constantFrom('unit' as const, 'unit' as const, 'share' as const),
			off: fc.double({ min: -0.9, max: 0.9, noNaN: true })
		})
		.map((drawn): ShiftResult => {
			const size = drawn.scale === 'share' ? 0.02 : metricOf(metric).margin.absolute;
			const margin = size;
			const shift: Interval | null =
				drawn.measured === 0
					? null
					: drawn.measured === 1
						? { estimate: drawn.centre * size, low: null, high: null }
						: {
								estimate: (drawn.centre + drawn.off * drawn.half) * size,
								low: (drawn.centre - drawn.half) * size,
								high: (drawn.centre + drawn.half) * size
							};
			const verdict: Verdict = shift ? decide({ metric, shift, margin, called: drawn.called }) : 'none';
			const median = drawn.median * size;
			return {
				condition: 'phone',
				metric,
				baseline: 1,
				arm: 2,
				n: drawn.rounds,
				baselineMedian: median,
				armMedian: median + (shift?.estimate ?? 0),
				shift: shift && { ...shift, relative: median > 0 && drawn.scale === 'unit' ? shift.estimate / median : null },
				rawShift: null,
				referenceCorrelation: null,
				scale: drawn.scale,
				margin,
				p: 0.5,
				adjustedP: 0.5,
				primary: true,
				verdict,
				level: 0.95,
				decidedAt: null,
				reason: shift ? null : { code: 'failures', failed: 5, loads: 9, arm: 'Omega' },
				roundsNeeded: verdict === 'undecided' ? drawn.needed : null,
				hope: null,
				target: null
			};
		});
export const randomResults: fc.Arbitrary<ShiftResult[]> = fc.tuple(...PRIMARY.map(randomResult));
