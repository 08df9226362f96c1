/** What the late loads of a trial showed: rows for the sheet, and which gains are only put off. */
import { ownerFates } from '$core/compare/late/fates';
import type { LateKind } from '$core/compare/late/facts';
import { putOffIn, type LateLoads } from '$core/compare/late/putOff';
import { comparisonsOf } from '$core/trial/design/comparisons';
import type { TrialDesign } from '$core/trial/types';
import type { Db } from '../../base/db/connection';
import { findLateFacts } from '../loads/loads';
import { requestsOfTrial } from '../loads/requested';
import type { PutOffOf } from '$core/compare/late/putOff';
import type { Trial } from './trial';
import type { LateSeen, LateLoadView } from './queries/lateView';
import { cdnHostsOf } from '../clients/view';
import { findLoad } from '../loads/view';

/** Newest first. */
export function lateLoadsOf(db: Db, trialId: number): LateLoadView[] {
	return requestsOfTrial(db, trialId).map(({ id, armId, conditions, patience, status, loadId }) => {
		const facts = loadId === null ? null : findLateFacts(db, loadId);
		return {
			id,
			arm: armId,
			condition: conditions.id,
			kind: patience ? 'postponed' : 'held-back',
			status,
			load: loadId,
			facts,
			failed: loadId === null || facts ? null : (findLoad(db, loadId)?.reason ?? null)
		};
	});
}

/** The newest good late loads of a variant. */
function lateOf(loads: readonly LateSeen[], arm: number, condition: string): LateLoads {
	const newest = (kind: LateKind) =>
		loads.find((load) => load.arm === arm && load.condition === condition && load.kind === kind && load.facts)?.facts ??
		null;
	return { postponed: newest('postponed'), heldBack: newest('held-back') };
}

export function putOffFrom(design: TrialDesign, loads: readonly LateSeen[]): PutOffOf {
	const ids = new Set(design.arms.map(({ id }) => id));
	return (condition, arm, results) => {
		const [first] = results;
		if (!first || !ids.has(arm)) return [];
		return putOffIn(results, lateOf(loads, first.baseline, condition), lateOf(loads, arm, condition));
	};
}

/** By conditions and variant, what became of each owner's requests; without variants that were not asked. */
export function fatesView(db: Db, { clientId, design }: Trial, loads: readonly LateLoadView[]) {
	return design.conditions.flatMap(({ id: condition }) =>
		comparisonsOf(design).flatMap(({ baseline, arm }) => {
			const late = lateOf(loads, arm.id, condition);
			if (!late.postponed && !late.heldBack) return [];
			const { host } = new URL(arm.url);
			const before = lateOf(loads, baseline.id, condition);
			return [{ condition, arm: arm.id, owners: ownerFates(before, late, host, cdnHostsOf(db, clientId, host)) }];
		})
	);
}
