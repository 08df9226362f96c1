/** A third party with much of the page’s bytes or main thread, or that keeps it loading long after the site. */
import { sum } from 'd3-array';
import { sharesOf } from '../../load/requests/owners';
import { ownedTasks, timeByOwner } from '../../load/vitals/mainThread';
import { NO_COST, NO_EVIDENCE } from '../finding';
import { ownerResource, type Inspection } from '../inspection';
import type { FindingRule } from '../rule';

/** A tenth of the page's, or half a second of tail (house). */
const MOST_SHARE = 0.1;
const MOST_TAIL_MS = 500;
/** A tenth of next to nothing is nothing (house): as a task must be to be long. */
const LEAST_THREAD_MS = 50;

export const thirdPartyCost: FindingRule = ({ requests, record, leastBytes, ownerOf }: Inspection) => {
	const siteHost = new URL(record.finalUrl || record.url).host;
	const cdnHosts = [...new Set(requests.map(({ host }) => host))].filter((host) => ownerOf(host).kind === 'own-cdn');
	const shares = sharesOf(requests, siteHost, cdnHosts);
	const times = timeByOwner(ownedTasks(record, siteHost, cdnHosts));
	const allBytes = sum(shares, ({ wireBytes }) => wireBytes);
	const allMs = sum(times, ({ durationMs }) => durationMs);
	const ownEnd = Math.max(0, ...shares.filter(({ kind }) => kind !== 'third-party').map(({ lastMs }) => lastMs ?? 0));
	return shares
		.filter(({ kind }) => kind === 'third-party')
		.flatMap((share) => {
			const threadMs = times.find(({ owner }) => owner.id === share.id)?.durationMs ?? 0;
			const tailMs = Math.max(0, (share.lastMs ?? 0) - ownEnd);
			const isHeavy = share.wireBytes > MOST_SHARE * allBytes && share.wireBytes >= leastBytes;
			const isBusy = threadMs > MOST_SHARE * allMs && threadMs >= LEAST_THREAD_MS;
			if (!isHeavy && !isBusy && tailMs <= MOST_TAIL_MS) return [];
			return [
				{
					rule: 'third-party-cost' as const,
					resource: ownerResource(share),
					cost: {
						...NO_COST,
						bytes: share.wireBytes,
						threadMs: threadMs || null,
						metric: threadMs ? ('tbt' as const) : null
					},
					evidence: { ...NO_EVIDENCE, atMs: share.firstMs },
					saving: null,
					limit: { most: MOST_SHARE, unit: 'share' as const },
					values: { bytes: share.wireBytes, n: share.requests, threadMs, tailMs: tailMs > MOST_TAIL_MS ? tailMs : 0 }
				}
			];
		});
};
