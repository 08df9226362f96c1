/** What is said of a metric, and the metrics that there are. */
export type Unit = 'ms' | 'unitless' | 'bytes' | 'count' | 'points';

/** The words of a shift: [better, worse]. */
export type JudgementWords = readonly [better: string, worse: string];

export interface Thresholds {
	/** `good` is at or below this. */
	readonly good: number;
	/** `poor` is above this. */
	readonly poor: number;
	readonly source: string;
}

/** The smallest shift that matters: the larger of an absolute size and a share of the baseline. */
export interface Margin {
	/** In the metric's unit. */
	readonly absolute: number;
	/** Share of the baseline, 0.05 for 5 %. */
	readonly relative: number;
}

/** Written out, so that the published JSON Schema of a load can be generated from it. */
export type MetricId =
	| 'score'
	| 'lcp'
	| 'cls'
	| 'tbt'
	| 'wire'
	| 'inp'
	| 'ttfb'
	| 'fcp'
	| 'start'
	| 'si'
	| 'vc'
	| 'dcl'
	| 'onload'
	| 'full'
	| 'decoded'
	| 'requests'
	| 'elements'
	| 'depth'
	| 'unusedJs'
	| 'unusedCss'
	| 'stepShown'
	| 'stepQuiet';

export interface Metric {
	readonly id: MetricId;
	readonly name: string;
	/** What fits in a narrow column head. */
	readonly short: string;
	readonly unit: Unit;
	readonly higherIsBetter: boolean;
	readonly words: JudgementWords;
	readonly thresholds: Thresholds | null;
	readonly margin: Margin;
	readonly source: string;
}
