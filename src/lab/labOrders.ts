/** What the lab makes of an order, and of one that could not be measured. */
import { isWebUrl } from '$core/load/requests/address';
import type { Conditions } from '$core/load/conditions/conditions';
import type { LoadOrder } from '$core/load/journey/order';
import type { FailureReason, LoadRecord, MeasuredLoad } from '$core/load/record/record';
import { failure } from './failure';
import type { LoadOptions } from './loadOptions';

/** Access that a site gives for one of its hosts stands in where the conditions have none. */
export function conditionsOf({ conditions, access = null }: LoadOrder): Conditions {
	return access && !conditions.authentication ? { ...conditions, authentication: access } : conditions;
}

export const unmeasured = (record: LoadRecord): MeasuredLoad => ({
	record,
	frames: [],
	picture: null,
	stepPicture: null
});

export const isUnpainted = ({ status, figures }: LoadRecord) =>
	status === 'ok' && figures.fcp === null && figures.start === null;

/** What was measured beside a process that stood still is no measure of the page. */
export function failBecause(record: LoadRecord, reason: FailureReason): void {
	record.status = 'failed';
	record.failure = reason;
}

export function parseAddress(url: string): URL {
	let address: URL;
	try {
		address = new URL(url);
	} catch {
		throw failure('bad-url', url);
	}
	if (!isWebUrl(address)) throw failure('bad-url', url);
	return address;
}

/** What a session is asked to do; what the order leaves open is not done. */
export function sessionOf({
	steps,
	patience = false,
	selectors = [],
	shown = [],
	asVisitor = false,
	tap = null,
	before = null,
	survey = false,
	sideChecks = false,
	bodies = false
}: LoadOrder): Omit<LoadOptions, 'conditions' | 'address' | 'startedAt' | 'collects'> {
	return { steps, patience, selectors, shown, asVisitor, tap, before, survey, sideChecks, bodies };
}
