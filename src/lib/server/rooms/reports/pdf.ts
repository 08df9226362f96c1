/** PDFs of frozen versions: ordered by web, printed by a lab, kept. */
import { gunzipSync, gzipSync } from 'node:zlib';
import type { Db } from '../../base/db/connection';
import { deleteArtifacts, findArtifact, storeArtifact } from '../../base/storage/artifacts';
import { insertJob, PRIORITY } from '../../base/queue/jobs';
import { findVersion, isPrinting } from './queries/reports';

export type Paper = 'A4' | 'Letter';
export const PAPERS: readonly Paper[] = ['A4', 'Letter'];

export type PdfState =
	| { state: 'none' | 'waiting' }
	| { state: 'ready' }
	/** Why it could not be printed, and what to do. */
	| { state: 'failed'; problem: string };

const ownerOf = (versionId: number) => ({ kind: 'report', id: versionId }) as const;

/** Order a PDF unless it is there or under way. @param html the version as one file with all it needs */
export function requestPdf(db: Db, versionId: number, paper: Paper, html: string): void {
	db.transaction(() => {
		if (['waiting', 'ready'].includes(pdfState(db, versionId, paper).state)) return;
		const owner = ownerOf(versionId);
		storeArtifact(db, { owner, role: 'page/html' }, 'application/gzip', gzipSync(html));
		deleteArtifacts(db, owner, `pdf/${paper}/problem`);
		insertJob(db, { kind: 'render', subject: owner, order: { paper }, priority: PRIORITY.awaited });
	}).immediate();
}

export function pdfState(db: Db, versionId: number, paper: Paper): PdfState {
	const owner = ownerOf(versionId);
	if (isPrinting(db, versionId, paper)) return { state: 'waiting' };
	if (findPdf(db, versionId, paper)) return { state: 'ready' };
	const problem = findArtifact(db, { owner, role: `pdf/${paper}/problem` });
	return problem ? { state: 'failed', problem: problem.toString('utf8') } : { state: 'none' };
}

export function findPdf(db: Db, versionId: number, paper: Paper): Buffer | null {
	return findArtifact(db, { owner: ownerOf(versionId), role: `pdf/${paper}` });
}

/** What is to be printed; null when the version was deleted meanwhile. */
export function takePage(db: Db, versionId: number): { html: string; title: string } | null {
	const version = findVersion(db, versionId);
	const page = findArtifact(db, { owner: ownerOf(versionId), role: 'page/html' });
	return version && page && { html: gunzipSync(page).toString('utf8'), title: version.title };
}

export function savePdf(db: Db, versionId: number, paper: Paper, pdf: Buffer): void {
	storeArtifact(db, { owner: ownerOf(versionId), role: `pdf/${paper}` }, 'application/pdf', pdf);
}

export function saveProblem(db: Db, versionId: number, paper: Paper, problem: string): void {
	storeArtifact(db, { owner: ownerOf(versionId), role: `pdf/${paper}/problem` }, 'text/plain', Buffer.from(problem));
}
