/** What the screens and the API show of reports. */
import { changesBetween } from '$core/report/changes';
import { trialsIn } from '$core/report/document';
import { formatMoment } from '$core/wording/format';
import { auditListView } from '../audits/view';
import { loneLoads } from '../loads/view';
import { chosenPageNames } from '../pages/chosen';
import { listTrials } from '../trials/listView';
import type { Db } from '../../base/db/connection';
import { agencyOf } from './queries/agency';
import { figureChoices } from './material';
import { PAPERS, pdfState } from './pdf';
import { existingReport, existingVersion, frozenOf, listReports, listVersions } from './queries/reports';
import { resolveReport } from './resolve';
import { listShares } from './queries/shares';
import { listWatches } from '../watch/view';

export { agencyOf, saveAgency } from './queries/agency';
export {
	type VersionLine,
	existingReport,
	existingVersion,
	frozenOf,
	listReports,
	listVersions
} from './queries/reports';
export {
	NewShare,
	type OpenedShare,
	countView,
	createShare,
	listShares,
	openShare,
	revokeShare
} from './queries/shares';

/** Trials that a report can be about. */
const MOST_TRIALS = 200;

export function reportListView(db: Db, clientId: number | null) {
	return { reports: listReports(db, clientId), trials: doneTrials(db, clientId), hasAgency: agencyOf(db).name !== '' };
}

export function doneTrials(db: Db, clientId: number | null) {
	const ended = (['done', 'stopped'] as const).flatMap((status) =>
		listTrials(db, { clientId, status }, MOST_TRIALS, 0)
	);
	return ended
		.filter(({ status, design }) => status === 'done' || (design.looks?.length ?? 0) > 0)
		.map(({ id, question }) => ({ id, question }));
}

/** `GET /api/reports/:id`: the draft with its figures as of now. */
export function reportView(db: Db, id: number) {
	const report = existingReport(db, id);
	const { view, material } = resolveReport(db, report);
	const trials = trialsIn(report.draft);
	return {
		id,
		clientId: report.clientId,
		clientName: report.clientName,
		revision: report.revision,
		changedAt: report.changedAt,
		draft: report.draft,
		view,
		versions: listVersions(db, id),
		choices: trials.flatMap((trial) => {
			const trialMaterial = material.trial(trial);
			return trialMaterial ? figureChoices(material, trialMaterial) : [];
		}),
		trials: doneTrials(db, report.clientId),
		pages: report.clientId === null ? [] : chosenPageNames(db, report.clientId),
		/** What the report can show of pages over time and against competitors. */
		watches: report.clientId === null ? [] : watchesOf(db, report.clientId),
		audits: auditsOf(db, report.clientId),
		loads: loadsOf(db, report.clientId)
	};
}

const watchesOf = (db: Db, clientId: number) =>
	(['watch', 'standing'] as const).flatMap((kind) =>
		listWatches(db, kind, clientId).map(({ id, name }) => ({ id, name, kind }))
	);

/** The newest audits that are over. */
const auditsOf = (db: Db, clientId: number | null) =>
	auditListView(db, clientId)
		.rows.filter(({ status, causes }) => status !== 'running' && causes !== null)
		.map(({ id, name, createdAt }) => ({ id, name: `${name}, ${formatMoment(createdAt)}` }));

/** Single loads that a report of this client can show. */
const MOST_LOADS = 25;

const loadsOf = (db: Db, clientId: number | null) =>
	(clientId === null ? [] : loneLoads(db, { clientId }, MOST_LOADS, 0))
		.filter(({ status }) => status === 'ok')
		.map(({ id, url, startedAt }) => ({ id, name: `${url.replace(/^https?:\/\//, '')}, ${formatMoment(startedAt)}` }));

/** A frozen version, its links and what can be downloaded. */
export function versionView(db: Db, reportId: number, number: number) {
	const version = existingVersion(db, reportId, number);
	const frozen = frozenOf(db, version.id);
	const before = listVersions(db, reportId).find((candidate) => candidate.number === number - 1);
	return {
		...version,
		view: frozen.view,
		rules: frozen.rules,
		trials: frozen.trials.map(({ id, question, loads }) => ({ id, question, loads: loads.length })),
		changes: before ? changesBetween(frozenOf(db, before.id).view, frozen.view) : null,
		shares: listShares(db, version.id),
		pdfs: PAPERS.map((paper) => ({ paper, ...pdfState(db, version.id, paper) }))
	};
}
