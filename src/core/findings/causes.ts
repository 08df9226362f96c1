/** Findings of all pages by rule and resource: what to mend once for many pages, dearest first. */
import { group, sum } from 'd3-array';
import type { MetricId } from '../metrics/catalogue';
import { marginFor } from '../metrics/catalogue';
import { isUsual, type PageFinding } from './pageFindings';
import { RULES, type Effort, type RuleId } from './finding';

/** Findings of a page under one set of conditions. */
export interface AuditedPage {
	/** Number of the page in the audit. */
	page: number;
	condition: string;
	/** Share of the site's visits that this page gets, 0 to 1; null where it is not known. */
	share: number | null;
	/** Metrics whose middle figure misses its target here, and by how much, in the metric's unit. */
	missed: Readonly<Partial<Record<MetricId, number>>>;
	findings: readonly PageFinding[];
}

export interface Cause {
	rule: RuleId;
	resource: PageFinding['resource'];
	/** On so many pages of so many audited ones. */
	pages: { k: number; m: number; which: number[] };
	/** Share of visits that these pages get; null where it is not known. */
	visits: number | null;
	/** In so many loads of so many, over those pages. */
	seen: { k: number; n: number };
	/** The most that it costs on any page. */
	bytes: number | null;
	threadMs: number | null;
	metric: MetricId | null;
	delay: number | null;
	/** Bytes that were computed to be saved, on the page where it is most. */
	saving: { bytes: number } | null;
	/** It stands in the way of a metric that misses its target on one of its pages. */
	hurts: MetricId | null;
	/** The finding that shows it best. */
	example: { page: number; condition: string; finding: PageFinding };
	/** Of the example, in margins; missing in causes from before. */
	size?: number;
	/** What it is ranked by. */
	weight: number;
}

export const EFFORT_WEIGHT: Readonly<Record<Effort, number>> = { hour: 1, day: 2, more: 4 };
/** Bytes and main-thread time that count as one margin (house): the floors of `wire` and `tbt`. */
const MARGIN_BYTES = 10_000;
const MARGIN_THREAD_MS = 50;

/**
 * The same resource under the same rule is one cause, on whatever pages and devices. Ranked by what it costs where it
 * matters: in margins, twice where a metric that misses its target is behind it, by the visits of its pages, against
 * the effort of mending.
 */
export function causesOf(audited: readonly AuditedPage[]): Cause[] {
	const all = audited.flatMap((own) => own.findings.filter(isUsual).map((finding) => ({ own, finding })));
	const pageCount = new Set(audited.map(({ page }) => page)).size;
	const causes = [...group(all, ({ finding }) => `${finding.rule}/${finding.resource.key}`).values()].map((same) =>
		causeOf(same, pageCount)
	);
	return causes.sort((a, b) => b.weight - a.weight || a.rule.localeCompare(b.rule));
}

interface Seen {
	own: AuditedPage;
	finding: PageFinding;
}

function causeOf(same: readonly Seen[], pageCount: number): Cause {
	const dearest = same.reduce((a, b) => (sizeOf(b.finding) > sizeOf(a.finding) ? b : a));
	const { finding } = dearest;
	const which = [...new Set(same.map(({ own }) => own.page))].sort((a, b) => a - b);
	const shares = which.map((page) => same.find(({ own }) => own.page === page)!.own.share);
	const visits = shares.some((share) => share === null) ? null : sum(shares, (share) => share!);
	const hurts = same.find(
		({ own, finding: { cost } }) => cost.metric !== null && own.missed[cost.metric] !== undefined
	);
	const most = (of: (finding: PageFinding) => number | null) => {
		const known = same.flatMap((seen) => of(seen.finding) ?? []);
		return known.length ? Math.max(...known) : null;
	};
	const saved = most(({ saving }) => saving?.bytes ?? null);
	const reach = visits ?? which.length / pageCount;
	const size = sizeOf(finding) * (hurts ? 2 : 1);
	return {
		rule: finding.rule,
		resource: finding.resource,
		pages: { k: which.length, m: pageCount, which },
		visits,
		seen: { k: sum(same, ({ finding: { seen } }) => seen.k), n: sum(same, ({ finding: { seen } }) => seen.n) },
		bytes: most(({ cost }) => cost.bytes),
		threadMs: most(({ cost }) => cost.threadMs),
		metric: finding.cost.metric,
		delay: most(({ cost }) => cost.delay),
		saving: saved === null ? null : { bytes: saved },
		hurts: hurts?.finding.cost.metric ?? null,
		example: { page: dearest.own.page, condition: dearest.own.condition, finding },
		size: sizeOf(finding),
		weight: (size * reach) / EFFORT_WEIGHT[RULES[finding.rule].effort]
	};
}

/** In margins: bytes, thread time and delay have each their own; what has no figure counts as half a margin. */
function sizeOf({ cost }: PageFinding): number {
	const delay = cost.metric !== null && cost.delay !== null ? cost.delay / marginFor(cost.metric, 0) : 0;
	const size = (cost.bytes ?? 0) / MARGIN_BYTES + (cost.threadMs ?? 0) / MARGIN_THREAD_MS + delay;
	return Math.max(0.5, size);
}
