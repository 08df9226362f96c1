/** Recorded audits of the demonstration: real loads of the simulated web, with their findings worked out anew. */
import { existsSync, readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { brotliDecompressSync } from 'node:zlib';
import type { AuditDesign } from '$core/audits/audit';
import type { BodyFacts } from '$core/findings/bodyFacts';
import { parseRecord } from '$core/load/record/parseRecord';
import type { LoadRecord } from '$core/load/record/record';
import type { Conditions } from '$core/load/conditions/conditions';
import { laterBy, weeksSince } from './calendar';
import { packLines } from './demo';
import type { Db } from '../base/db/connection';
import { readFact, writeFact } from '../base/db/facts';
import { ROOT } from '../base/settings';
import { closeJob } from '../base/queue/jobs';
import { changeFindings, type FindingChange } from '../rooms/audits/commands';
import { deriveFindings, findAuditFindings } from '../rooms/audits/findings';
import {
	auditTimes,
	bodyFactsOf,
	findAudit,
	findingOf,
	findSavingsProgress,
	importedAudit,
	insertAuditSlot,
	insertBodyFacts,
	loadsOfAudit,
	saveSavingsProgress,
	type SavingsProgress
} from '../rooms/audits/view';
import { findClientByName } from '../rooms/clients/view';
import { freezeConditions, thawConditions } from '../rooms/conditions/view';
import { findPicture, findRecord, framesOfLoad, insertLoad } from '../rooms/loads/loads';
import { insertRequest } from '../rooms/loads/requested';
import { pageWithUrl } from '../rooms/pages/view';

const FOLDER = join(ROOT, 'demo/audits');
const FACT = 'demonstration audits';

/** Once: each repeats the one before of its client. */
export function importDemoAudits(db: Db, now = Date.now()): void {
	db.transaction(() => {
		if (readFact(db, FACT) || !existsSync(FOLDER)) return;
		const files = readdirSync(FOLDER).filter((name) => name.endsWith('.ndjson.br'));
		const newest = new Map<string, number>();
		for (const file of files.sort()) importAudit(db, readFileSync(join(FOLDER, file)), { now, newest });
		writeFact(db, FACT, new Date(now).toISOString());
	}).immediate();
}

/** The first line of a file; each further line is a load. */
interface RecordedAudit {
	clientName: string;
	createdAt: string;
	urls: string[];
	conditions: Conditions[];
	loads: number;
	/** What was written on the worklist after it, by rule. */
	said: (FindingChange & { rule: string })[];
	/** What was worked out of its files, by address; missing where none was kept. */
	bodies?: [string, BodyFacts][];
}

interface RecordedLoad {
	page: number;
	condition: string;
	round: number;
	record: LoadRecord;
	/** Base64; of one load of each page. */
	frames: string[];
	picture: string | null;
}

/** @param clientName of the demonstration @param said what is written on the worklist after it */
export function exportAudit(db: Db, id: number, clientName: string, said: RecordedAudit['said']): Buffer {
	const { design, createdAt } = findAudit(db, id)!;
	const head: RecordedAudit = {
		clientName,
		createdAt,
		urls: design.pages.map(({ url }) => url),
		conditions: design.conditions.map((version) => thawConditions(db, version)),
		loads: design.loads,
		said,
		bodies: [...bodyFactsOf(db, id)]
	};
	const lines = loadsOfAudit(db, id).map(({ load, page, condition, round }): RecordedLoad => ({
		page,
		condition,
		round,
		record: findRecord(db, load)!,
		frames: round === 1 ? framesOfLoad(db, load).map((frame) => frame.toString('base64')) : [],
		picture: round === 1 ? (findPicture(db, load)?.toString('base64') ?? null) : null
	}));
	return packLines([head, ...lines].map((line) => JSON.stringify(line)));
}

/** @param newest audit of each client by its name, which this one repeats and then is @returns its id */
export function importAudit(
	db: Db,
	packed: Buffer,
	{ now, newest }: { now: number; newest: Map<string, number> }
): number {
	const [head, ...loads] = brotliDecompressSync(packed)
		.toString('utf8')
		.trim()
		.split('\n')
		.map((line) => JSON.parse(line) as unknown) as [RecordedAudit, ...RecordedLoad[]];
	const weeks = weeksSince(head.createdAt, now);
	const clientId = findClientByName(db, head.clientName);
	const design: AuditDesign = {
		pages: head.urls.map((url) => ({ url, pageId: pageWithUrl(db, clientId, url) })),
		conditions: head.conditions.map((conditions) => freezeConditions(db, conditions)),
		loads: head.loads
	};
	const id = importedAudit(db, { clientId, againOf: newest.get(head.clientName) ?? null, design });
	newest.set(head.clientName, id);
	for (const { page, condition, round, record, frames, picture } of loads)
		insertRecorded(
			db,
			{ id, clientId, design },
			{ page, condition, round, frames, picture, record: movedBy(weeks, record) }
		);
	const times = loads.map(({ record }) => laterBy(weeks, record.startedAt)).sort();
	auditTimes(db, {
		id,
		createdAt: laterBy(weeks, head.createdAt),
		endedAt: times.at(-1) ?? laterBy(weeks, head.createdAt)
	});
	const bodies = head.bodies ?? [];
	for (const [url, facts] of bodies) insertBodyFacts(db, id, url, facts);
	if (bodies.length) saveSavingsProgress(db, id, savingsOf(bodies));
	deriveFindings(db, id);
	if (clientId !== null) writeDown(db, clientId, id, head.said);
	return id;
}

/** Equal files count once. */
function savingsOf(bodies: readonly [string, BodyFacts][]): SavingsProgress {
	const total = new Set(bodies.map(([, { hash }]) => hash)).size;
	return { done: total, total };
}

/** All its files are looked through, or none were kept. */
export function isLookedThrough(db: Db, id: number): boolean {
	const progress = findSavingsProgress(db, id);
	return progress !== null && progress.done >= progress.total;
}

const movedBy = (weeks: number, record: LoadRecord): LoadRecord =>
	parseRecord({ ...record, startedAt: laterBy(weeks, record.startedAt) });

function insertRecorded(
	db: Db,
	{ id, clientId, design }: { id: number; clientId: number | null; design: AuditDesign },
	{ page, condition, round, record, frames, picture }: RecordedLoad
): void {
	const version = design.conditions.find((own) => own.id === condition)!;
	const order = { url: design.pages[page]!.url, conditions: thawConditions(db, version), steps: [] };
	const jobId = insertRequest(db, { kind: 'audit', id }, order);
	closeJob(db, jobId);
	insertAuditSlot(db, { jobId, auditId: id, page, condition, round, retry: 0 });
	insertLoad(
		db,
		{ jobId, slot: null, conditionId: condition, conditionsHash: version.hash, clientId },
		{
			record,
			frames: frames.map((frame) => Buffer.from(frame, 'base64')),
			picture: picture === null ? null : Buffer.from(picture, 'base64'),
			stepPicture: null
		}
	);
}

/** What the agency wrote after it: the dearest line of each rule that is named. */
function writeDown(db: Db, clientId: number, id: number, said: RecordedAudit['said']): void {
	const causes = findAuditFindings(db, id)?.causes ?? [];
	for (const { rule, ...change } of said) {
		const cause = causes.find((candidate) => candidate.rule === rule);
		const row = cause && findingOf(db, clientId, cause.rule, cause.resource.key);
		if (row) changeFindings(db, [row.id], change);
	}
}
