/** What the lab found on a page that it looked at. */
import type { SurveyRecord } from '$core/load/journey/survey';
import { NotPossible } from '../../base/refusal';
import type { Db } from '../../base/db/connection';
import { findRecord } from './loads';

export interface SurveyView extends SurveyRecord {
	load: number;
	url: string;
	/** Of its picture, CSS pixels. */
	width: number;
	/** Why the page could not be looked at; empty when it could. */
	problem: string;
}

/** @throws NotPossible for a load that nobody asked to look */
export function surveyView(db: Db, id: number): SurveyView {
	const record = findRecord(db, id);
	if (!record) throw new NotPossible(404, `There is no load ${id}.`);
	const { survey, failure, url, conditions } = record;
	if (!survey && !failure)
		throw new NotPossible(404, 'This load did not look at what can be picked. Ask for one with “survey”.');
	return {
		...(survey ?? { elements: [], checks: [], height: 0 }),
		load: id,
		url,
		width: conditions?.device.width ?? 0,
		problem: failure ? `${failure.message} ${failure.advice}` : ''
	};
}
