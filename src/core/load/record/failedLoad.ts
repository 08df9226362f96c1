/** The one place where the record of a failed load is begun. */
import { withoutCredentials } from '../requests/address';
import { withoutSecrets } from '../conditions/conditions';
import { emptyRecord } from './emptyRecord';
import type { LoadOrder } from '../journey/order';
import type { FailureReason, LoadRecord } from './record';

/** A record of a load about which nothing is known but why it failed. Secrets of the conditions never get into it. */
export function failedLoad(
	{ url, conditions }: Pick<LoadOrder, 'url' | 'conditions'>,
	startedAt: Date,
	reason: FailureReason
): LoadRecord {
	return emptyRecord(withoutCredentials(url), withoutSecrets(conditions), startedAt.toISOString(), reason);
}
