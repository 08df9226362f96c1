/** What one load saw of the hosts of others. */
import { max, sum } from 'd3-array';
import { tasksByOwner, timeByOwner } from '../load/vitals/mainThread';
import { ownerOf } from '../load/requests/owners';
import type { LoadRecord, RequestRecord } from '../load/record/record';
import type { HostSeen } from './register';

/** What of a host can be seen on a page: pictures in view, type, style, frames. */
const SHOWN: readonly string[] = ['font', 'stylesheet', 'media'];

export type HostFacts = Omit<HostSeen, 'load' | 'page' | 'at' | 'device'>;

/** Of the load itself; what an input or a timer set off later counts too, since visitors have it. */
export function hostsSeenIn(record: LoadRecord, cdnHosts: readonly string[]): HostFacts[] {
	const siteHost = new URL(record.finalUrl || record.url).host;
	const isForeign = (host: string) => ownerOf(host, siteHost, cdnHosts).kind === 'third-party';
	const byHost = new Map<string, RequestRecord[]>();
	for (const request of record.requests)
		if (isForeign(request.host)) byHost.set(request.host, [...(byHost.get(request.host) ?? []), request]);
	const blocking = blockingByHost(record);
	return [...byHost].map(([host, own]) => ({
		host,
		requests: own.length,
		wireBytes: sum(own, ({ wireBytes }) => wireBytes ?? 0),
		blockingMs: blocking.get(host) ?? 0,
		tailMs: tailOf(record, host),
		askedBy: askedBy(own[0]!, siteHost),
		isSeen: own.some((request) => isShown(request, record))
	}));
}

function blockingByHost(record: LoadRecord): Map<string, number> {
	const ownerOfUrl = (url: string) => {
		const host = URL.canParse(url) ? new URL(url).host : '';
		return { id: host, name: host, kind: 'third-party' as const };
	};
	return new Map(timeByOwner(tasksByOwner(record, ownerOfUrl)).map(({ owner, blockingMs }) => [owner.id, blockingMs]));
}

/** How much later the last response of the load came because of this host. */
function tailOf({ requests }: LoadRecord, host: string): number {
	const ends = requests.filter(({ during, endMs }) => during === 'load' && endMs !== null);
	const last = (some: readonly RequestRecord[]) => max(some, ({ endMs }) => endMs!) ?? 0;
	return Math.max(0, last(ends) - last(ends.filter((request) => request.host !== host)));
}

/** Host of the script that asked for it first; `page` for the document, `site` for a script of its own. */
function askedBy({ initiatorChain }: RequestRecord, siteHost: string): string {
	const script = initiatorChain.find((address) => URL.canParse(address));
	if (!script) return 'page';
	const { host } = new URL(script);
	return ownerOf(host, siteHost).kind === 'third-party' ? host : 'site';
}

function isShown({ type, url, wireBytes, failed }: RequestRecord, { page }: LoadRecord): boolean {
	if (failed !== null || !wireBytes) return false;
	if (type === 'image')
		return page?.images.some((image) => image.url === url && image.inView && image.shownWidth > 1) ?? false;
	return SHOWN.includes(type) || type === 'document';
}
