/** What is nearest to a figure from elsewhere: own loads of the page that a trial begins from, on the same device. */
import type { DeviceClass } from '$core/field/reading';
import type { OutsideFigure } from '$core/report/document';
import { ownFiguresIn, ownFiguresOf, type OwnFigures } from '$core/report/outside';
import type { Db } from '../../base/db/connection';
import { NotPossible } from '../../base/refusal';
import { requestLoad } from '../loads/commands';
import { labLoadsOfUrl } from '../loads/pageFigures';
import { existingTrial } from '../trials/commands';
import type { Material, TrialMaterial } from './material';
import { existingReport } from './queries/reports';

interface Nearest extends OwnFigures {
	conditions: string;
	/** Whose loads of a trial they are; null for loads outside trials. */
	of: { trial: number; condition: string; arm: number } | null;
}

/**
 * The baseline's loads under conditions of the told device; where the trial has none, loads of the same page on that
 * device outside trials; else what the trial has. Null without any.
 */
export function nearestOwn(material: Material, trialId: number, figure: OutsideFigure): Nearest | null {
	const trial = material.trial(trialId);
	if (!trial) return null;
	const { design, loads } = trial;
	const baseline = baselineOf(design);
	const deviceOf = (conditions: (typeof design.conditions)[number]) => (conditions.device.mobile ? 'phone' : 'desktop');
	const same = design.conditions.find((candidate) => deviceOf(candidate) === figure.device);
	if (!same && figure.device !== 'unknown') {
		// Of one kind of conditions, those that a load on request is made under: others of the device are other networks.
		const ofPage = labLoadsOfUrl(material.db, baseline.url, figure.device);
		const lone = ownFiguresOf(
			ofPage.filter(({ conditionId }) => conditionId === figure.device),
			figure,
			figure.device
		);
		if (lone) return { ...lone, conditions: material.nameOfConditions(figure.device), of: null };
	}
	const source = { trial: trialId, condition: (same ?? design.conditions[0]!).id, arm: baseline.id };
	const own = ownFiguresIn({ design, loads }, source, figure);
	return own && { ...own, of: source };
}

const baselineOf = ({ arms }: TrialMaterial['design']) => arms.find((arm) => arm.baseline) ?? arms[0]!;

/**
 * Loads the page that a trial begins from once more, under the built-in conditions of a device: for a figure from
 * elsewhere that nothing of ours is near to. @returns the id of the job
 */
export function loadNearest(db: Db, reportId: number, trialId: number, device: DeviceClass): number {
	const { clientId } = existingReport(db, reportId);
	const trial = existingTrial(db, trialId);
	if (trial.clientId !== clientId)
		throw new NotPossible(422, 'This trial is not of the report’s client. Choose one of its own trials.', 'trial');
	return requestLoad(db, { url: baselineOf(trial.design).url, conditions: device, clientId });
}
