/** Audits and the worklist as the screens and the API show them. */
import { group } from 'd3-array';
import { levelOf, type AuditBand, type Level } from '$core/audits/audit';
import { RULES } from '$core/findings/finding';
import type { Cause } from '$core/findings/causes';
import { isUsual, type PageFinding } from '$core/findings/pageFindings';
import type { Scope } from '$core/field/reading';
import { metricOf, type MetricId } from '$core/metrics/catalogue';
import { formatBytes, formatDuration, formatIn, formatValue } from '$core/wording/format';
import { wordSpan } from '$core/wording/range';
import {
	describeFinding,
	wordHeadCheck,
	describeReach,
	wordEffort,
	wordFate,
	wordMender,
	wordNoWay,
	wordRank,
	wordTypes,
	wordWay
} from '$core/wording/findings';
import type { Db } from '../../base/db/connection';
import { existingAudit } from './commands';
import { findAuditFindings, type AuditFindings, type PageResult } from './findings';
import { findSavingsProgress } from './savings/progress';
import { clientNames } from '../clients/view';
import { thawConditions } from '../conditions/view';
import { fieldRowsOf, passesOnBoth, type FieldRow } from '../field/view';
import { findPage } from '../pages/view';
import { findLoad } from '../loads/view';
import { countAudits, listAudits, loadsOfAudit, progressOfAudit, type Audit, type AuditedLoad } from './queries/audits';

export {
	auditsWithoutFindings,
	auditTimes,
	findAudit,
	importedAudit,
	insertAuditSlot,
	loadsOfAudit,
	newestAudit
} from './queries/audits';
export { bodyFactsOf, insertBodyFacts } from './queries/bodies';
export { type SavingsProgress, findSavingsProgress, saveSavingsProgress } from './savings/progress';
export { findingOf, openLines } from './queries/findings';
export { findAuditFindings } from './findings';

/** Rows of a page of a list. */
export const ROWS = 25;

/** How far its files are looked through; null before that began, and where none were kept. */
function savingsView(db: Db, id: number, causes: readonly Cause[]) {
	const progress = findSavingsProgress(db, id);
	if (!progress?.total) return null;
	const bytes = causes.reduce((sum, { saving }) => sum + (saving?.bytes ?? 0), 0);
	return { ...progress, isOver: progress.done >= progress.total, bytes, words: formatBytes(bytes) };
}

/** What the table of an audit shows, in the order of what a visitor goes through. */
export const AUDIT_METRICS = [
	'score',
	'ttfb',
	'fcp',
	'lcp',
	'tbt',
	'cls',
	'wire',
	'requests'
] as const satisfies readonly MetricId[];

export function auditListView(db: Db, clientId: number | null, page = 1) {
	const total = countAudits(db, clientId);
	const names = new Map(clientNames(db).map(({ id, name }) => [id, name]));
	return {
		total,
		page,
		rows: listAudits(db, clientId, ROWS, (page - 1) * ROWS).map((audit) => ({
			id: audit.id,
			client: audit.clientId === null ? '' : (names.get(audit.clientId) ?? ''),
			name: auditName(audit),
			status: audit.status,
			createdAt: audit.createdAt,
			againOf: audit.againOf,
			progress: progressOfAudit(db, audit.id),
			causes: findAuditFindings(db, audit.id)?.causes.length ?? null
		}))
	};
}

/** "6 pages of skerry-line.test" */
export function auditName({ design }: Pick<Audit, 'design'>): string {
	const hosts = [...new Set(design.pages.map(({ url }) => new URL(url).host))];
	const where = hosts.length > 2 ? `${hosts.length} hosts` : hosts.join(' and ');
	return design.pages.length === 1
		? design.pages[0]!.url.replace(/^https?:\/\//, '')
		: `${design.pages.length} pages of ${where}`;
}

/** What an audit is about, before its findings are worked out too. */
export function auditView(db: Db, id: number) {
	const audit = existingAudit(db, id);
	const found = findAuditFindings(db, id);
	const loads = group(loadsOfAudit(db, id), ({ page, condition }) => `${page}/${condition}`);
	const { design } = audit;
	const field = fieldBeside(db, audit);
	const types = design.pages.map(({ pageId }) => (pageId === null ? null : (findPage(db, pageId)?.type ?? null)));
	return {
		id,
		clientId: audit.clientId,
		name: auditName(audit),
		status: audit.status,
		createdAt: audit.createdAt,
		endedAt: audit.endedAt,
		againOf: audit.againOf,
		progress: progressOfAudit(db, id),
		loadsEach: design.loads,
		/** Its loads are over and what they show is worked out. */
		isLookedAt: found !== null,
		faults: found?.faults ?? [],
		savings: savingsView(db, id, found?.causes ?? []),
		conditions: design.conditions.map(({ id: condition, name }) => ({ id: condition, name })),
		pages: design.pages.flatMap(({ url, pageId }, page) =>
			design.conditions.map(({ id: condition }) =>
				pageRow(
					db,
					{ url, pageId, page, condition, field: field.of(pageId, condition) },
					{
						loads: loads.get(`${page}/${condition}`) ?? [],
						found
					}
				)
			)
		),
		/** Addresses of pages whose visitors have it good on both devices. */
		moveOn: design.pages.filter(({ pageId }) => field.passes(pageId)).map(({ url }) => url),
		causes: (found?.causes ?? []).map((cause) => causeView(cause, audit, types)),
		way: wayView(found),
		side: (found?.side ?? []).map((finding) => ({
			...finding,
			title: finding.kind === 'head' ? wordHeadCheck(finding.check) : finding.help,
			on: [finding.pages.length, design.pages.length] as const
		})),
		since: (found?.since ?? []).map(({ cause, fate }) => ({
			fate,
			words: wordFate(fate),
			title: describeFinding(cause.example.finding).title,
			rule: cause.rule,
			resource: cause.resource.name
		}))
	};
}

export type AuditView = ReturnType<typeof auditView>;

/** What visitors have on the audited pages, where a source knows the page itself. */
function fieldBeside(db: Db, { design }: Audit) {
	const rows = fieldRowsOf(
		db,
		design.pages.flatMap(({ pageId }) => pageId ?? [])
	);
	const devices = new Map(
		design.conditions.map((own) => [own.id, thawConditions(db, own).device.mobile ? 'phone' : 'desktop'])
	);
	return {
		passes: (pageId: number | null): boolean => {
			return passesOnBoth((pageId === null ? null : rows.get(pageId)) ?? []);
		},
		of: (pageId: number | null, condition: string): FieldBeside | null => {
			const own = pageId === null ? null : rows.get(pageId)?.find(({ device }) => device === devices.get(condition));
			if (!own || own.scope === null || own.metrics === null) return null;
			const { assessment, assessmentWords: words, scope, scopeWords } = own;
			return { assessment, words, scope, scopeWords };
		}
	};
}

type FieldBeside = Pick<FieldRow, 'assessment' | 'scopeWords'> & { words: string; scope: Scope };

/** How the pages come within their targets, in sentences; empty where all do. */
function wayView(found: AuditFindings | null): string[] {
	if (!found) return [];
	const { way } = found;
	const titleOf = (key: string) => {
		const cause = found.causes.find(({ rule, resource }) => `${rule}/${resource.key}` === key);
		return cause ? describeFinding(cause.example.finding).title : key;
	};
	return [
		...(way.pages ? [wordWay(way.way, (way.way?.causes ?? []).map(titleOf), way.pages)] : []),
		...(way.unknown.length ? [wordNoWay(way.unknown)] : [])
	];
}

interface PageAt {
	url: string;
	pageId: number | null;
	page: number;
	condition: string;
	field: FieldBeside | null;
}

function pageRow(db: Db, at: PageAt, { loads, found }: { loads: readonly AuditedLoad[]; found: AuditFindings | null }) {
	const result = found?.pages.find(({ page, condition }) => page === at.page && condition === at.condition) ?? null;
	const good =
		result?.good ?? loads.filter(({ status, isDisturbed }) => status === 'ok' && !isDisturbed).map(({ load }) => load);
	const summaries = good.flatMap((load) => findLoad(db, load) ?? []);
	const metrics = Object.fromEntries(
		AUDIT_METRICS.flatMap((metric) => {
			const level = levelOf(
				metric,
				summaries.flatMap(({ figures }) => figures[metric] ?? [])
			);
			return level
				? [
						[
							metric,
							{ ...level, words: formatValue(metric, level.middle), span: wordSpan(metric, [level.least, level.most]) }
						]
					]
				: [];
		})
	) as Partial<Record<MetricId, Level & { words: string; span: string }>>;
	return {
		...at,
		loads: loads.map(({ load }) => load),
		good: good.length,
		failed: loads.filter(({ status }) => status === 'failed').length,
		metrics,
		worst: worstOf(metrics),
		heaviest: result?.heaviest ? `${result.heaviest.name}, ${formatBytes(result.heaviest.bytes)}` : '',
		findings: (result?.findings ?? []).map(findingView)
	};
}

const BAD: readonly (AuditBand | null)[] = ['poor', 'needs improvement', 'line'];

/** The metric that is worst by its band, and farthest beyond its threshold among those. */
function worstOf(metrics: Partial<Record<MetricId, Level>>): MetricId | null {
	const judged = (Object.entries(metrics) as [MetricId, Level][]).filter(([metric]) => metricOf(metric).thresholds);
	const beyond = ([metric, { middle }]: [MetricId, Level]) => middle / metricOf(metric).thresholds!.good;
	for (const band of BAD) {
		const own = judged.filter(([, level]) => level.band === band).sort((a, b) => beyond(b) - beyond(a));
		if (own[0]) return own[0][0];
	}
	return null;
}

export function findingView(finding: PageFinding) {
	const { who, effort } = RULES[finding.rule];
	return {
		rule: finding.rule,
		resource: finding.resource,
		cost: { ...finding.cost, words: costWords(finding.cost) },
		who,
		effort,
		seen: [finding.seen.k, finding.seen.n] as const,
		isUsual: isUsual(finding),
		saving: finding.saving,
		limit: finding.limit,
		load: finding.load,
		evidence: finding.evidence,
		...describeFinding(finding)
	};
}

/** "48 kB, 160 ms of main thread, 0.30 s before LCP" */
export function costWords({
	bytes,
	threadMs,
	metric,
	delay
}: Pick<Cause, 'bytes' | 'threadMs' | 'metric' | 'delay'>): string {
	return [
		bytes ? formatBytes(bytes) : '',
		threadMs ? `${formatDuration(threadMs)} of main thread` : '',
		metric && delay ? delayWords(metric, delay) : ''
	]
		.filter(Boolean)
		.join(', ');
}

function delayWords(metric: MetricId, delay: number): string {
	const { unit, short } = metricOf(metric);
	return `${formatIn(unit, delay)} ${unit === 'ms' ? 'before' : 'of'} ${short}`;
}

/** Of the kinds of page that the audit has, how many pages have it. */
function typesOf({ pages }: Cause, types: readonly (string | null)[]): string {
	const named = [
		...group(
			types.map((type, page) => ({ type, page })).filter(({ type }) => type),
			({ type }) => type!
		)
	];
	const counted = named.map(([type, own]) => ({
		type,
		k: own.filter(({ page }) => pages.which.includes(page)).length,
		m: own.length
	}));
	// Where every page is of a kind of its own, the pages say it all.
	return counted.some(({ m }) => m > 1) ? wordTypes(counted.filter(({ k }) => k > 0)) : '';
}

function causeView(cause: Cause, { design }: Pick<Audit, 'design'>, types: readonly (string | null)[]) {
	const { who, effort, source } = RULES[cause.rule];
	return {
		rule: cause.rule,
		resource: cause.resource,
		pages: [cause.pages.k, cause.pages.m] as const,
		urls: cause.pages.which.flatMap((page) => design.pages[page]?.url ?? []),
		visits: cause.visits,
		seen: [cause.seen.k, cause.seen.n] as const,
		saving: cause.saving,
		hurts: cause.hurts,
		reach: describeReach(cause),
		rank: wordRank(cause),
		types: typesOf(cause, types),
		cost: costWords(cause),
		who: wordMender(who),
		effort: wordEffort(effort),
		source,
		load: cause.example.finding.load,
		evidence: cause.example.finding.evidence,
		...describeFinding(cause.example.finding)
	};
}

export type CauseView = ReturnType<typeof causeView>;

export type { PageResult };
