/** What is nearest to a figure from elsewhere: own loads of the page that a trial begins from, on the same device. */
import type { DeviceClass } from '$core/field/reading';
import type { OutsideFigure } from '$core/report/document';
import type { OwnFigures } from '$core/report/outside';
import type { Figures, MetricId } from '$core/metrics/catalogue';
import { countedLoads } from '$core/trial/counted';
import { findConditions } from '../conditions/saved';
import type { Db } from '../db/connection';
import { NotPossible } from '../http/refusal';
import { requestLoad } from '../loads/commands';
import { labLoadsOfUrl } from '../loads/pageFigures';
import { existingTrial } from '../trials/commands';
import type { Material, TrialMaterial } from './material';
import { existingReport } from './queries';

type Nearest = OwnFigures & { conditions: string };
type Loads = readonly { figures: Partial<Figures> }[];

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
		const lone = figuresOf(labLoadsOfUrl(material.db, baseline.url, figure.device), figure, figure.device);
		if (lone) return { ...lone, conditions: nameOf(material.db, figure.device) };
	}
	const conditions = same ?? design.conditions[0]!;
	const own = countedLoads(design, loads).filter(
		({ armId, conditionId }) => armId === baseline.id && conditionId === conditions.id
	);
	const figures = figuresOf(own, figure, deviceOf(conditions));
	return figures && { ...figures, conditions: conditions.name };
}

const baselineOf = ({ arms }: TrialMaterial['design']) => arms.find((arm) => arm.baseline) ?? arms[0]!;

const nameOf = (db: Db, device: DeviceClass) => findConditions(db, device)?.name ?? device;

function figuresOf(loads: Loads, { metric, definition }: OutsideFigure, device: DeviceClass): OwnFigures | null {
	const valuesOf = (id: MetricId) => loads.flatMap(({ figures }) => figures[id] ?? []);
	const values = valuesOf(metric);
	if (!values.length) return null;
	return { device, scope: 'page', from: 'lab', values, defined: definition === null ? null : valuesOf(definition) };
}

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
