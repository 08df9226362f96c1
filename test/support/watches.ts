/** A client with two pages that are watched, and a lab that does their readings with made-up loads. */
import * as v from 'valibot';
import { WatchInput } from '$core/watch/input';
import { failedLoad } from '$core/load/record/failedLoad';
import type { LoadOrder } from '$core/load/journey/order';
import type { MeasuredLoad } from '$core/load/record/record';
import type { Db } from '../../src/lib/server/base/db/connection';
import { pastePages } from '../../src/lib/server/rooms/pages/commands';
import { listPages } from '../../src/lib/server/rooms/pages/queries/pages';
import { requestedOrder } from '../../src/lib/server/rooms/loads/requested';
import { requestReading, storeReadingLoad } from '../../src/lib/server/rooms/watch/blocks';
import { createWatch } from '../../src/lib/server/rooms/watch/commands';
import { existingWatch } from '../../src/lib/server/rooms/watch/watches';
import { finishJob, leaseJob } from '../../src/lib/server/base/queue/jobs';
import { clientWithSite } from './clients';
import { measuredLoad } from './queue';

type Known = NonNullable<Parameters<typeof measuredLoad>[0]>;

/** @param dbNow the database of the test that runs */
export function useWatches(dbNow: () => Db) {
	function furnish(extra: Partial<v.InferInput<typeof WatchInput>> = {}) {
		const db = dbNow();
		const { clientId, siteId } = clientWithSite(db);
		pastePages(db, siteId, 'https://own.test/\nhttps://own.test/booking');
		const pages = listPages(db, { siteId }, 10).map(({ id }) => id);
		const input = v.parse(WatchInput, { clientId, name: 'Bookings', pages, conditions: ['desktop'], ...extra });
		const id = createWatch(db, { ...input, kind: 'watch' });
		return { db, clientId, siteId, pages, input, id };
	}

	/** Do every job of the open block, as the lab does. @param of what each load shows @returns addresses in order */
	function work(
		of: (url: string, nth: number, order: LoadOrder) => Known | 'failed' = () => ({}),
		most = Infinity
	): string[] {
		const db = dbNow();
		const urls: string[] = [];
		for (let nth = 0; nth < most; nth++) {
			const job = leaseJob(db, 'lab');
			if (!job) break;
			if (job.kind !== 'load') {
				finishJob(db, job, 'lab');
				continue;
			}
			const { version, ...order } = requestedOrder(db, job);
			const shown = of(order.url, nth, order);
			const measured: MeasuredLoad =
				shown === 'failed'
					? {
							record: failedLoad(order, new Date(), { code: 'http-status', message: 'It answered 404.', advice: '' }),
							frames: [],
							picture: null,
							stepPicture: null
						}
					: measuredLoad({ url: order.url, finalUrl: order.url, ...shown });
			db.transaction(() => {
				finishJob(db, job, 'lab');
				storeReadingLoad(db, job, version, measured);
			})();
			urls.push(order.url);
		}
		return urls;
	}

	const read = (id: number, of?: (url: string, nth: number) => Known | 'failed') => {
		requestReading(dbNow(), existingWatch(dbNow(), id, 'watch'), { why: 'demand' });
		return work(of);
	};

	/** So many readings of a page that takes its time, with a little noise. */
	function readMany(id: number, count: number, lcp: number, from = 0): void {
		for (let i = 0; i < count; i++)
			read(id, (url, nth) => ({
				figures: { lcp: (url.includes('/control/') ? 600 : lcp) + ((nth * 37 + (from + i) * 11) % 40) }
			}));
	}

	return { furnish, work, read, readMany };
}
