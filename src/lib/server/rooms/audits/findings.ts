/** What an audit found, worked out once after its last load; and what it says of the worklist. */
import { group } from 'd3-array';
import { sideFindings, type SideFinding } from '$core/audits/side';
import { causesOf, type AuditedPage, type Cause } from '$core/findings/causes';
import { FINDINGS_VERSION, findingsOf } from '$core/findings/findings';
import type { Beside } from '$core/findings/inspection';
import { findingsOfPage, type PageFinding } from '$core/findings/pageFindings';
import { fateOf, type Fate } from '$core/findings/since';
import { shortestWay, type Way } from '$core/findings/shortestWay';
import { stateAfter } from '$core/findings/worklist';
import { METRICS, type MetricId } from '$core/metrics/catalogue';
import { targetsByConditions } from '$core/clients/targets';
import { sharesOf } from '$core/load/requests/owners';
import { medianOrNull } from '$core/stats/summary';
import type { Db } from '../../base/db/connection';
import { findDerived, saveDerived } from '../../base/queue/derived';
import { cdnHostsOf, findClient } from '../clients/view';
import { findRecord } from '../loads/loads';
import { registerOf } from '../loads/register';
import { findLoad } from '../loads/view';
import { findPage } from '../pages/view';
import { findAudit, loadsOfAudit, type Audit, type AuditedLoad } from './queries/audits';
import { bodyFactsOf } from './queries/bodies';
import { deleteUntouched, findingOf, insertFinding, updateSeen } from './queries/findings';

export interface PageResult {
	/** Number of the page in the design. */
	page: number;
	condition: string;
	/** Good loads. */
	good: number[];
	findings: PageFinding[];
	/** The third party with the most bytes in the middle load; null without any. */
	heaviest: { name: string; bytes: number } | null;
}

export interface AuditFindings {
	pages: PageResult[];
	causes: Cause[];
	/** Of causes of the audit before, by rule and resource. */
	since: { cause: Cause; fate: Fate }[];
	/** What stands beside every score. */
	side: SideFinding[];
	/** Rules that threw. */
	faults: string[];
	way: FoundWay;
}

const keyOf = (id: number) =>
	({ subject: { kind: 'audit', id }, kind: 'findings', version: FINDINGS_VERSION, fingerprint: '' }) as const;

export const findAuditFindings = (db: Db, id: number): AuditFindings | null =>
	findDerived<AuditFindings>(db, keyOf(id))?.body ?? null;

export function deriveFindings(db: Db, id: number): void {
	const audit = findAudit(db, id);
	if (!audit || audit.status === 'running') return;
	const faults = new Set<string>();
	const pages = pageResults(db, audit, { faults, ...besideOf(db, audit) });
	const audited = pages.map((page) => auditedPage(db, audit, page));
	const causes = causesOf(audited).map((cause) => withPageIds(audit, cause));
	const before = audit.againOf === null ? null : findAuditFindings(db, audit.againOf);
	const since = before ? sinceBefore(db, audit, { before, pages }) : [];
	const way = wayOf(audited);
	const body: AuditFindings = { pages, causes, since, side: sideOf(db, pages), faults: [...faults], way };
	db.transaction(() => {
		saveDerived(db, { ...keyOf(id), body });
		if (audit.clientId !== null) keepWorklist(db, { ...audit, clientId: audit.clientId }, body);
	}).immediate();
}

/** Of the loads that were asked for them. */
function sideOf(db: Db, pages: readonly PageResult[]): SideFinding[] {
	const checked = pages.flatMap(({ page, good }) =>
		good.flatMap((load) => {
			const checks = findRecord(db, load)?.sideChecks;
			return checks ? [{ page, checks }] : [];
		})
	);
	return sideFindings(checked);
}

const isGood = ({ status, isDisturbed, isExcluded }: AuditedLoad) => status === 'ok' && !isDisturbed && !isExcluded;

/** What was worked out of the files, and what the client's register says of hosts. */
function besideOf(db: Db, { id, clientId }: Audit): Required<Beside> {
	const facts = bodyFactsOf(db, id);
	const lines = new Map((clientId === null ? [] : registerOf(db, clientId)).map((line) => [line.host, line]));
	return {
		facts: (url) => facts.get(url) ?? null,
		hosts: (host) => {
			const line = lines.get(host);
			if (!line) return null;
			const isConfirmed = !line.reasons.some((reason) => reason !== 'not-seen');
			return { purpose: line.purpose, isConfirmed, isSeen: !line.reasons.includes('not-seen') };
		}
	};
}

function pageResults(
	db: Db,
	audit: Audit,
	{ faults, ...beside }: Required<Beside> & { faults: Set<string> }
): PageResult[] {
	const byPage = group(loadsOfAudit(db, audit.id), ({ page, condition }) => `${page}/${condition}`);
	return audit.design.pages.flatMap(({ url }, page) =>
		audit.design.conditions.map(({ id: condition }) => {
			const cdnHosts = cdnHostsOf(db, audit.clientId, new URL(url).host);
			const good = (byPage.get(`${page}/${condition}`) ?? []).filter(isGood).map(({ load }) => load);
			const found = good.flatMap((load) => {
				const record = findRecord(db, load);
				if (!record) return [];
				const { findings, faults: own } = findingsOf(record, cdnHosts, beside);
				for (const fault of own) faults.add(fault);
				return [{ load, findings }];
			});
			return { page, condition, good, findings: findingsOfPage(found), heaviest: heaviestIn(db, good, cdnHosts) };
		})
	);
}

function heaviestIn(db: Db, good: readonly number[], cdnHosts: readonly string[]): PageResult['heaviest'] {
	const record = good.length ? findRecord(db, good[Math.floor(good.length / 2)]!) : null;
	if (!record) return null;
	const requests = record.requests.filter(({ during }) => during === 'load');
	const shares = sharesOf(requests, new URL(record.finalUrl || record.url).host, cdnHosts);
	const [first] = shares.filter(({ kind }) => kind === 'third-party').sort((a, b) => b.wireBytes - a.wireBytes);
	return first ? { name: first.name, bytes: first.wireBytes } : null;
}

/** With the metrics that miss their target there, and the page's share of visits. */
function auditedPage(db: Db, audit: Audit, { page, condition, good, findings }: PageResult): AuditedPage {
	const { pageId } = audit.design.pages[page]!;
	const known = pageId === null ? null : findPage(db, pageId);
	const client = audit.clientId === null ? null : findClient(db, audit.clientId);
	const { targets, conditionTargets } = targetsByConditions(client?.targets ?? []);
	const figures = good.flatMap((load) => findLoad(db, load)?.figures ?? []);
	const missed: Partial<Record<MetricId, number>> = {};
	for (const { id, thresholds, higherIsBetter } of METRICS) {
		const target = conditionTargets[condition]?.[id] ?? targets[id] ?? thresholds?.good;
		const middle = medianOrNull(figures.flatMap((own) => own[id] ?? []));
		if (target === undefined || middle === null) continue;
		const beyond = higherIsBetter ? target - middle : middle - target;
		if (beyond > 0) missed[id] = beyond;
	}
	return { page, condition, share: known?.share ?? null, missed, findings };
}

export interface FoundWay {
	/** Pages and devices over the target of bytes. */
	pages: number;
	/** Null where all computed savings together do not reach it. */
	way: Way | null;
	/** Metrics of time that miss a target. */
	unknown: MetricId[];
}

/** How the pages come within their targets, where that is known. */
function wayOf(audited: readonly AuditedPage[]): FoundWay {
	const over = audited.flatMap(({ missed, findings }) => (missed.wire ? [{ excess: missed.wire, findings }] : []));
	const pages = over.map(({ excess, findings }) => ({
		excess,
		savings: new Map(
			findings.flatMap(({ rule, resource, saving }) =>
				saving?.bytes ? [[`${rule}/${resource.key}`, saving.bytes] as const] : []
			)
		)
	}));
	const unknown = METRICS.map(({ id }) => id).filter(
		(id) => id !== 'wire' && id !== 'score' && audited.some(({ missed }) => missed[id])
	);
	return { pages: pages.length, way: pages.length ? shortestWay(pages) : null, unknown };
}

/** The worklist is filtered by pages of sites. */
const withPageIds = ({ design }: Audit, cause: Cause): Cause & { pageIds: number[] } => ({
	...cause,
	pageIds: cause.pages.which.flatMap((page) => design.pages[page]?.pageId ?? [])
});

/** What became of the causes of the audit before, page by page of those that were looked at again. */
function sinceBefore(
	db: Db,
	audit: Audit,
	{ before, pages }: { before: AuditFindings; pages: readonly PageResult[] }
): AuditFindings['since'] {
	const earlier = findAudit(db, audit.againOf!);
	if (!earlier) return [];
	const numberThen = (page: number) =>
		earlier.design.pages.findIndex(({ url }) => url === audit.design.pages[page]?.url);
	const keys = [...before.causes, ...causesNow(pages)];
	const lookedAt = new Set(audit.design.pages.map(({ url }) => url));
	const seen = new Set<string>();
	return keys.flatMap((cause) => {
		const key = { rule: cause.rule, resource: cause.resource.key };
		const name = `${key.rule}/${key.resource}`;
		if (seen.has(name)) return [];
		seen.add(name);
		const fates = pages.flatMap(({ page, condition, good, findings }) => {
			const then = before.pages.find((own) => own.page === numberThen(page) && own.condition === condition);
			return fateOf(key, { before: then?.findings ?? [], now: findings, goodLoads: good.length }) ?? [];
		});
		const fate = fates.length ? worstOf(fates) : null;
		if (fate === null) return [];
		// Gone where it was looked for; of the other pages that had it nothing is known yet.
		const isWhole =
			fate !== 'gone' || pagesThat(before, key).every((page) => lookedAt.has(earlier.design.pages[page]!.url));
		return [{ cause, fate: isWhole ? fate : 'not-seen' }];
	});
}

const pagesThat = ({ causes }: AuditFindings, key: { rule: string; resource: string }): readonly number[] =>
	causes.find(({ rule, resource }) => rule === key.rule && resource.key === key.resource)?.pages.which ?? [];

const causesNow = (pages: readonly PageResult[]) =>
	causesOf(pages.map(({ page, condition, findings }) => ({ page, condition, share: null, missed: {}, findings })));

/** Gone only where it is gone everywhere. */
function worstOf(fates: readonly Fate[]): Fate {
	const order: readonly Fate[] = ['left', 'new', 'not-seen', 'gone'];
	return order.find((fate) => fates.includes(fate))!;
}

function keepWorklist(db: Db, { id, clientId }: { id: number; clientId: number }, body: AuditFindings): void {
	const now = new Set<string>();
	for (const cause of body.causes) {
		now.add(`${cause.rule}/${cause.resource.key}`);
		const row = findingOf(db, clientId, cause.rule, cause.resource.key);
		if (row) updateSeen(db, row.id, { auditId: id, cause, state: stateAfter(row.state, 'left') });
		else insertFinding(db, clientId, id, cause);
	}
	// What this audit found before its files were looked through, and does not find any more, was none.
	deleteUntouched(db, clientId, id, [...now]);
	for (const { cause, fate } of body.since) {
		const row = findingOf(db, clientId, cause.rule, cause.resource.key);
		if (!row || now.has(`${cause.rule}/${cause.resource.key}`)) continue;
		updateSeen(db, row.id, { auditId: id, cause: row.cause, state: stateAfter(row.state, fate) });
	}
}
