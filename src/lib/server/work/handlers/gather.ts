/** Asking a site for its pages: lists, links, and the markup by which templates are known. Between loads. */
import { gatherFor, longestGatherMs, parseGatherOrder } from '../../pages/gathering';
import { finishJob } from '../jobs';
import type { Handler } from '../handlers';

export const gather: Handler = {
	async run(job, at) {
		const order = parseGatherOrder(job.order);
		const siteId = Number(job.subject.replace('site:', ''));
		at.note(job, longestGatherMs(order));
		await gatherFor(at.db, siteId, order, {
			outward: at.outward,
			goesOn: () => at.interrupted() === null,
			persist: (write) => at.persist(write)
		});
		if (at.interrupted() === 'lost') return;
		await at.persist(() => finishJob(at.db, job, at.labId));
	}
};
