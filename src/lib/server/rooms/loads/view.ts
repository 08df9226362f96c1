/** What the sheet of a load shows: its first screen, and each part once it is opened. */
import { describeHostLook } from '$core/wording/hostLook';
import { formatMoment } from '$core/wording/format';
import { hostLookOf } from '../pages/view';
import { digestLoad } from '$core/compare/digest';
import { explainLoad } from '$core/compare/explainLoad';
import { describeConditions } from '$core/load/conditions/conditions';
import { landedElsewhere } from '$core/load/record/landing';
import type { LoadRecord } from '$core/load/record/record';
import { ownedRequests } from '$core/load/requests/ownedRequests';
import { sharesOf } from '$core/load/requests/owners';
import { listedRequests } from '$core/load/requests/requestList';
import { ownedTasks, timeByOwner } from '$core/load/vitals/mainThread';
import { frameShowing } from '$core/load/vitals/visual';
import { scoreOf } from '$core/metrics/score';
import { wordCalm } from '$core/wording/calm';
import { describeLoad } from '$core/wording/explainLoad';
import type { Db } from '../../base/db/connection';
import { identityView } from './identityView';
import { clientOfLoad, findLoad } from './queries/loads';
import { findRecord } from './loads';
import { outageView } from './outageView';
import { loadParts, openChecks, type LoadPartId } from './partLines';
import { tapView } from './tapView';
import { cdnHostsOf } from '../clients/view';

export {
	type LoadSeen,
	type LoadSummary,
	type LoneFilter,
	clientOfLoad,
	countLoneLoads,
	findLoad,
	loadsOfTrial,
	loneLoads,
	meanLabMs,
	recentLabMs
} from './queries/loads';
export { saveHostNote, unreadLoads } from './queries/register';

/** A load that is explained alone stands nowhere. */
const NO_PLACE = { loadId: 0, armId: 0, conditionId: '', round: 0 };
/** Smaller shifts are no moment of a film (house). */
const SEEN_SHIFT = 0.0005;

/** The trial that a load belongs to, as its sheet names it. */
export interface TrialOfLoad {
	id: number;
	question: string;
	design: { arms: readonly { id: number; name: string }[] };
}

/** Null when there is no such load. */
function materialOf(db: Db, id: number) {
	const load = findLoad(db, id);
	const record = load && findRecord(db, load.id);
	if (!load || !record) return null;
	const siteHost = new URL(record.finalUrl || record.url).host;
	return { db, load, record, siteHost, cdnHosts: cdnHostsOf(db, clientOfLoad(db, id), siteHost) };
}
type Material = NonNullable<ReturnType<typeof materialOf>>;

/** The first screen; null when there is no such load. @param trialOf trials belong to a later room */
export function loadHead(db: Db, id: number, trialOf: (trialId: number) => TrialOfLoad | null) {
	const material = materialOf(db, id);
	if (!material) return null;
	const { load, record, siteHost, cdnHosts } = material;
	const trial = load.trialId === null ? null : trialOf(load.trialId);
	const arm = trial?.design.arms.find((item) => item.id === load.armId);
	const checks = checksOf(material);
	return {
		where: trial ? `Trials › ${trial.question} › Load` : 'Loads › Load',
		load: { id: load.id, round: load.round, warmup: load.warmup, hasPicture: load.hasPicture },
		trial: trial && { id: trial.id, question: trial.question, arm: arm?.name ?? '' },
		calm: record.environment.calm ? wordCalm(record.environment.calm) : '',
		cdnHosts,
		parts: loadParts(record, load.hasPicture, { cdnHosts, ...checks }),
		why: record.failure ? [] : describeLoad(explainLoad(digestLoad(record, NO_PLACE, cdnHosts))),
		record: shortRecord(record),
		frameNotes: frameNotesOf(record),
		requests: listedRequests(ownedRequests(record.requests, siteHost, cdnHosts)),
		shares: sharesOf(record.requests, siteHost, cdnHosts)
	};
}

export type LoadHead = NonNullable<ReturnType<typeof loadHead>>;

/** What of the record the first screen needs. */
function shortRecord(record: LoadRecord) {
	const { url, finalUrl, startedAt, source, status, failure, figures, frames, conditions, environment, page } = record;
	return {
		url,
		finalUrl,
		title: page?.title ?? '',
		startedAt,
		source,
		status,
		failure,
		figures,
		frames,
		conditions,
		notes: environment.notes,
		calm: environment.calm,
		landed: landedElsewhere(record)
	};
}

/** Which frame holds LCP, and which each shift. */
function frameNotesOf({ frames, lcp, shifts }: LoadRecord): { frame: number; words: string }[] {
	const seen = shifts.filter(({ value }) => value >= SEEN_SHIFT);
	return [
		...(lcp ? [{ frame: frameShowing(frames, lcp.atMs), words: 'LCP' }] : []),
		...seen.map(({ atMs }) => ({ frame: frameShowing(frames, atMs), words: 'shift' }))
	].filter(({ frame }) => frame >= 0);
}

const checksOf = ({ db, load, record, cdnHosts }: Material) => ({
	outages: outageView(db, load.id, record, cdnHosts),
	identity: identityView(db, load.id, record),
	taps: tapView(db, load.id)
});

/** One for each part; what it gives is all that the part's component needs beside the head. */
const PART_VIEWS = {
	weight: () => ({}),
	frames: () => ({}),
	thread: ({ record, siteHost, cdnHosts }: Material) => {
		const tasks = ownedTasks(record, siteHost, cdnHosts);
		return { tasks, times: timeByOwner(tasks) };
	},
	held: ({ record: { heldBack, postponed } }: Material) => ({ heldBack, postponed }),
	outages: (material: Material) => ({ outages: checksOf(material).outages }),
	taps: (material: Material) => ({ taps: checksOf(material).taps }),
	identity: (material: Material) => ({ identity: checksOf(material).identity }),
	checks: (material: Material) => {
		const checks = checksOf(material);
		return { ...checks, openChecks: openChecks(material.record, checks) };
	},
	picture: ({ record: { lcp, shifts } }: Material) => ({ lcp, shifts }),
	steps: ({ record: { steps } }: Material) => ({ steps }),
	facts: ({ record: { page, marks } }: Material) => ({ page, marks }),
	figures: ({ record: { figures, firstVisit } }: Material) => ({ score: scoreOf(figures), firstVisit }),
	circumstances: ({ db, record }: Material) => ({
		host: hostWords(db, record),
		detail: record.conditions && describeConditions(record.conditions),
		environment: record.environment,
		rewriting: record.rewriting ?? null,
		settledMs: record.settledMs,
		capped: record.capped,
		recipe: record.recipe,
		redirects: record.redirects
	})
} satisfies Record<LoadPartId, (material: Material) => unknown>;

/** What the host is like without the shaped line, where somebody looked. */
function hostWords(db: Db, { url, finalUrl }: Pick<LoadRecord, 'url' | 'finalUrl'>): string {
	const address = finalUrl || url;
	const look = URL.canParse(address) ? hostLookOf(db, new URL(address).hostname) : null;
	return look ? describeHostLook(look, formatMoment(look.at)) : '';
}

export type LoadPart<Id extends LoadPartId> = ReturnType<(typeof PART_VIEWS)[Id]>;
export type LoadParts = { [Id in LoadPartId]?: LoadPart<Id> };

/** Of the parts that are asked for, those that there are; none of a load that there is not. */
export function openedParts(db: Db, id: number, ids: readonly string[]): LoadParts {
	const parts = (Object.keys(PART_VIEWS) as LoadPartId[]).filter((part) => ids.includes(part));
	const material = parts.length ? materialOf(db, id) : null;
	return material ? Object.fromEntries(parts.map((part) => [part, PART_VIEWS[part](material)])) : {};
}
