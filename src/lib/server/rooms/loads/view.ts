/** What the Load screen shows. */
import { digestLoad } from '$core/compare/digest';
import { explainLoad } from '$core/compare/explainLoad';
import { describeConditions } from '$core/load/conditions/conditions';
import { ownedTasks, timeByOwner } from '$core/load/vitals/mainThread';
import { ownedRequests } from '$core/load/requests/ownedRequests';
import { sharesOf } from '$core/load/requests/owners';
import { listedRequests } from '$core/load/requests/requestList';
import { scoreOf } from '$core/metrics/score';
import { wordCalm } from '$core/wording/calm';
import { describeLoad } from '$core/wording/explainLoad';
import { cdnHostsOf } from '../clients/sites';
import type { Db } from '../../base/db/connection';
import { clientOfLoad, findLoad, findRecord } from './loads';
import { identityView } from './identityView';
import { outageView } from './outageView';
import { tapView } from './tapView';
import { loadParts, openChecks } from './partsView';

/** A load that is explained alone stands nowhere. */
const NO_PLACE = { loadId: 0, armId: 0, conditionId: '', round: 0 };

/** The trial that a load belongs to, as its sheet names it. */
export interface TrialOfLoad {
	id: number;
	question: string;
	design: { arms: readonly { id: number; name: string }[] };
}

/** Null when there is no such load. @param trialOf trials belong to a later room */
export function loadView(db: Db, id: number, trialOf: (trialId: number) => TrialOfLoad | null) {
	const found = findLoad(db, id);
	const record = found && findRecord(db, found.id);
	if (!found || !record) return null;
	const trial = found.trialId === null ? null : trialOf(found.trialId);
	const siteHost = new URL(record.finalUrl || record.url).host;
	const cdnHosts = cdnHostsOf(db, clientOfLoad(db, id), siteHost);
	const shares = sharesOf(record.requests, siteHost, cdnHosts);
	const tasks = ownedTasks(record, siteHost, cdnHosts);
	const arm = trial?.design.arms.find((one) => one.id === found.armId);
	const outages = outageView(db, id, record, cdnHosts);
	const identity = identityView(db, id, record);
	const taps = tapView(db, id);
	return {
		where: trial ? `Trials › ${trial.question} › Load` : 'Loads › Load',
		load: { id: found.id, round: found.round, warmup: found.warmup, hasPicture: found.hasPicture },
		trial: trial && { id: trial.id, question: trial.question, arm: arm?.name ?? '' },
		detail: record.conditions && describeConditions(record.conditions),
		score: scoreOf(record.figures),
		calm: record.environment.calm ? wordCalm(record.environment.calm) : '',
		cdnHosts,
		outages,
		identity,
		taps,
		openChecks: openChecks(record, { outages, taps, identity }),
		parts: loadParts(record, found.hasPicture, { cdnHosts, outages, identity, taps }),
		why: record.failure ? [] : describeLoad(explainLoad(digestLoad(record, NO_PLACE, cdnHosts))),
		record: { ...record, requests: [] },
		requests: listedRequests(ownedRequests(record.requests, siteHost, cdnHosts)),
		shares,
		tasks,
		times: timeByOwner(tasks)
	};
}

export type LoadView = NonNullable<ReturnType<typeof loadView>>;
