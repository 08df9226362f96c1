/** The panel: an outside service that hands out readings over HTTP. Its address and key are settings. */
import * as v from 'valibot';
import { readMetric, type FieldReading, type MetricReading } from '$core/field/reading';
import { binOf, FIELD_METRICS, type FieldMetric } from '$core/field/histogram';
import { fetchOutward, OutwardFault, type Outward } from '../../base/outward';

export interface PanelSettings {
	/** Of its readings; empty without a panel. */
	url: string;
	key: string;
}

export interface PanelQuestion {
	scope: 'page' | 'origin';
	url: string;
	device: FieldReading['device'];
	until: string;
}

export type PanelFault = 'down' | 'key' | 'rate' | 'changed' | 'refused';

export class PanelTrouble extends Error {
	constructor(
		readonly fault: PanelFault,
		/** Seconds after which it may be asked again. */
		readonly retryAfterS: number | null = null
	) {
		super(fault);
	}
}

const number = v.pipe(v.number(), v.finite());
/** What the panel answers; anything else is another version of it. */
const PanelAnswer = v.object({
	device: v.picklist(['phone', 'desktop']),
	window: v.object({ from: v.string(), until: v.string() }),
	metrics: v.record(
		v.picklist(FIELD_METRICS),
		v.object({ p75: number, bins: v.array(v.object({ from: number, share: number })) })
	)
});

const FETCH = { withinMs: 20_000, mostBytes: 500_000, accept: 'application/json' };
const USUAL_RETRY_S = 20;

/** @returns null where it has too few visits @throws PanelTrouble when it could not be asked */
export async function askPanel(
	question: PanelQuestion,
	{ url, key }: PanelSettings,
	outward: Outward
): Promise<FieldReading | null> {
	const endpoint = new URL(url);
	endpoint.searchParams.set(question.scope, question.url);
	endpoint.searchParams.set('device', question.device);
	endpoint.searchParams.set('until', question.until);
	endpoint.searchParams.set('key', key);
	const { status, body } = await fetchOutward(endpoint.href, outward, FETCH).catch((error: unknown) => {
		throw error instanceof OutwardFault ? new PanelTrouble('down') : error;
	});
	if (status === 404) return null;
	if (status === 429) throw new PanelTrouble('rate', USUAL_RETRY_S);
	if (status === 401 || status === 403) throw new PanelTrouble('key');
	if (status >= 500) throw new PanelTrouble('down');
	if (status !== 200) throw new PanelTrouble('refused');
	return readingOf(question, body.toString('utf8'));
}

function readingOf({ scope, url }: PanelQuestion, text: string): FieldReading {
	let value: unknown;
	try {
		value = JSON.parse(text);
	} catch {
		throw new PanelTrouble('changed');
	}
	const read = v.safeParse(PanelAnswer, value);
	if (!read.success) throw new PanelTrouble('changed');
	const { device, window, metrics } = read.output;
	const readings = FIELD_METRICS.flatMap((metric) => {
		const entry = metrics[metric];
		const reading = entry && metricOf(metric, entry);
		return reading ? [[metric, reading] as const] : [];
	});
	return {
		scope,
		url,
		device,
		from: window.from,
		until: window.until,
		source: 'panel',
		metrics: Object.fromEntries(readings)
	};
}

/** The panel's own percentile; the shares from its bins, whose visits are taken to lie at the middle of each. */
function metricOf(
	metric: FieldMetric,
	{ p75, bins }: { p75: number; bins: { from: number; share: number }[] }
): MetricReading | null {
	const weights = new Map<number, number>();
	bins.forEach(({ from, share }, i) => {
		const to = bins[i + 1]?.from ?? from * 1.1;
		for (let part = 0; part < PARTS; part++) {
			const at = from + ((part + 0.5) / PARTS) * (to - from);
			const bin = binOf(metric, at);
			weights.set(bin, (weights.get(bin) ?? 0) + share / PARTS);
		}
	});
	const read = readMetric(metric, weights);
	return read && { p75, shares: read.shares, bins: bins.map(({ from, share }) => [from, share]) };
}

/** A bin of the panel is wider than ours: its visits are spread over it. */
const PARTS = 8;
