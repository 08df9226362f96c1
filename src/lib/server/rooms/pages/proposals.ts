/** Proposed types of a site's pages that have none: made anew with whatever changes them. */
import { proposeTypes, type TypeProposal } from '$core/pages/types';
import type { Db } from '../../base/db/connection';
import { findDerived, saveDerived } from '../../base/queue/derived';
import { pagesToChoose, skeletonsOf } from './queries/pages';

const VERSION = '1';
const subjectOf = (siteId: number) => ({ kind: 'site', id: siteId }) as const;

/** A proposal with some of its addresses. */
export interface SavedProposal extends TypeProposal {
	examples: string[];
}

const EXAMPLES = 3;

/** Proposed types of the pages that have none. */
export function findProposals(db: Db, siteId: number): SavedProposal[] {
	return (
		findDerived<SavedProposal[]>(db, {
			subject: subjectOf(siteId),
			kind: 'page-types',
			version: VERSION,
			fingerprint: ''
		})?.body ?? []
	);
}

export function saveProposals(db: Db, siteId: number): void {
	const skeletons = skeletonsOf(db, siteId);
	const open = pagesToChoose(db, siteId).filter(({ type }) => type === null);
	const proposals = proposeTypes(open.map(({ id, url }) => ({ id, url, skeleton: skeletons.get(id) ?? null })));
	const urls = new Map(open.map(({ id, url }) => [id, url]));
	const saved = proposals.map((proposal) => ({
		...proposal,
		examples: proposal.pages.slice(0, EXAMPLES).map((id) => urls.get(id)!)
	}));
	saveDerived(db, { subject: subjectOf(siteId), kind: 'page-types', version: VERSION, fingerprint: '', body: saved });
}
