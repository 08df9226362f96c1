/** Trends as text: thousands of small objects take longer to send than to draw. */

export interface TrendPoint {
	until: string;
	p75: number;
}

export const packTrend = (points: readonly TrendPoint[]): string =>
	points.map(({ until, p75 }) => `${until} ${p75}`).join(',');

export const unpackTrend = (text: string): TrendPoint[] =>
	text
		.split(',')
		.filter(Boolean)
		.map((point) => {
			const [until = '', p75] = point.split(' ');
			return { until, p75: Number(p75) };
		});
