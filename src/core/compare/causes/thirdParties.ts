/**
 * Third parties that came, went or changed: a cause for each metric, since each is told only where it has a verdict.
 */
import { sum } from 'd3-array';
import { medianOrNull } from '../../stats/summary';
import type { LoadDigest } from '../digest';
import type { Owner } from '../../load/requests/owners';
import type { MetricId } from '../../metrics/catalogue';
import type { Part } from '../breakdowns';
import { breakdownOf, sumOfShifts, type Candidate, type CauseRule, type Compared } from './cause';

/**
 * A third party that comes or goes as a whole tells more than its bytes; how long it makes the page last tells least.
 */
const WHOLE = 2;
const TAIL = 0.3;

export const thirdPartyCauses: CauseRule = (compared) =>
	thirdPartiesOf(compared).flatMap((owner) => causesOfOwner(owner, compared));

function thirdPartiesOf({ before, after }: Compared): Owner[] {
	const owners = [...before, ...after].flatMap((load) => load.files.map((file) => file.owner));
	return [...new Map(owners.filter(({ kind }) => kind === 'third-party').map((owner) => [owner.id, owner])).values()];
}

function causesOfOwner(owner: Owner, compared: Compared): Candidate[] {
	const isIts = (part: Part) => part.owner?.id === owner.id;
	const shiftOf = (metric: MetricId) => sumOfShifts(breakdownOf(compared, metric)?.parts.filter(isIts) ?? []);
	const files = compared.files.filter(isIts);
	const state = partyChange(files);
	const factor = state === 'changed' ? 1 : WHOLE;
	const [bytes, requests] = [middleShift(owner, compared, 'wireBytes'), middleShift(owner, compared, 'count')];
	const byCount = Math.abs(requests) / 2 > Math.abs(bytes) / 10_000;
	const about = { subject: owner.id, factor };
	const values = { name: owner.name, state };
	return [
		{
			...about,
			kind: 'third-party-weight',
			metric: byCount ? 'requests' : 'wire',
			shift: byCount ? requests : bytes,
			values: { ...values, bytes, requests }
		},
		{ ...about, kind: 'third-party-blocking', metric: 'tbt', shift: shiftOf('tbt'), values },
		{ ...about, kind: 'third-party-tail', metric: 'full', shift: shiftOf('full'), values, factor: TAIL }
	];
}

/**
 * What the middle load asks of an owner more than the baseline's: verdicts speak of the middle, and one load in which
 * an ad was heavy must not move what is told beside them.
 */
function middleShift({ id }: Owner, { before, after }: Compared, what: 'wireBytes' | 'count'): number {
	const middle = (loads: readonly LoadDigest[]) =>
		medianOrNull(loads.map(({ files }) => sum(files, (file) => (file.owner.id === id ? file[what] : 0)))) ?? 0;
	return middle(after) - middle(before);
}

function partyChange(files: readonly Part[]): 'added' | 'gone' | 'changed' {
	if (files.every((file) => file.state === 'added')) return 'added';
	return files.every((file) => file.state === 'gone') ? 'gone' : 'changed';
}
