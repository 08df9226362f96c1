/** An audit: a few loads of every chosen page on every device. It gives levels and findings, and compares nothing. */
import * as v from 'valibot';
import { bandOf, type Band, type MetricId } from '../metrics/catalogue';
import { WebAddress } from '../load/requests/addressInput';
import { ascending, median } from '../stats/summary';

export const MOST_AUDITED = 60;
const MOST_LOADS = 9;
/** A failed or disturbed load is made again so often (house; as trials do). */
export const MOST_RETRIES = 2;

const number = v.pipe(v.number('This is a number.'), v.safeInteger('This is a whole number.'));

export const AuditInput = v.pipe(
	v.object(
		{
			clientId: v.optional(v.nullable(number), null),
			/** Pages of the client's sites, by number. */
			pages: v.optional(v.array(number), []),
			/** Addresses beside them. */
			urls: v.optional(v.array(WebAddress), []),
			conditions: v.optional(
				v.pipe(v.array(v.string()), v.minLength(1, 'Choose at least one device.'), v.maxLength(4, 'At most four.')),
				['phone', 'desktop']
			),
			loads: v.optional(
				v.pipe(
					v.number('Loads a page are a number.'),
					v.integer('Loads a page are a whole number.'),
					v.minValue(1, 'At least one load a page.'),
					v.maxValue(MOST_LOADS, `At most ${MOST_LOADS} loads a page.`)
				),
				3
			)
		},
		'Send a JSON object that describes the audit.'
	),
	v.check(({ pages, urls }) => pages.length + urls.length > 0, 'Choose at least one page, or give an address.'),
	v.check(
		({ pages, urls }) => pages.length + urls.length <= MOST_AUDITED,
		`An audit has at most ${MOST_AUDITED} pages.`
	)
);
export type AuditInput = v.InferOutput<typeof AuditInput>;

export interface AuditDesign {
	pages: { pageId: number | null; url: string }[];
	/** Frozen: by their version. */
	conditions: { id: string; name: string; summary: string; hash: string }[];
	/** A page and device. */
	loads: number;
}

/** `line`: the loads fall on both sides of a threshold. */
export type AuditBand = Band | 'line';

export interface Level {
	middle: number;
	least: number;
	most: number;
	/** Null for a metric without thresholds. */
	band: AuditBand | null;
}

/** What a few loads say of a metric; null without figures. */
export function levelOf(metric: MetricId, figures: readonly number[]): Level | null {
	if (!figures.length) return null;
	const sorted = ascending(figures);
	const [least, most] = [sorted[0]!, sorted.at(-1)!];
	const bands = new Set(sorted.map((figure) => bandOf(metric, figure)));
	const band = bands.size > 1 ? 'line' : [...bands][0]!;
	return { middle: median(figures), least, most, band };
}
