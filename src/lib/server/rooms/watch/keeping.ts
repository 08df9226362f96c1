/** What the web process does for watches by the clock: readings that are due, notices that are to be sent. */
import type { Db } from '../../base/db/connection';
import type { Log } from '../../base/log';
import { deliverDue, type DeliverySettings } from './deliver';
import { requestDueReadings } from './due';

const LOOK_EVERY_MS = 15_000;

export function keepWatches(db: Db, settings: DeliverySettings, log: Log): void {
	let isSending = false;
	const look = async () => {
		try {
			requestDueReadings(db);
		} catch (error) {
			log.warn({ error: (error as Error).message }, 'a reading that is due could not be queued');
		}
		if (isSending) return;
		isSending = true;
		await deliverDue(db, settings, log).catch((error: Error) =>
			log.warn({ error: error.message }, 'notices could not be sent')
		);
		isSending = false;
	};
	setInterval(() => void look(), LOOK_EVERY_MS).unref();
}
