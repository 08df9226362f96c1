/** Audits of made-up loads: a client with two pages, and a lab that shows what a test wants. */
import * as v from 'valibot';
import { AuditInput } from '$core/audits/audit';
import type { Target } from '$core/clients/client';
import type { RequestRecord } from '$core/load/record/record';
import { finishJob, leaseJob, type Job } from '../../src/lib/server/base/queue/jobs';
import { storeAuditLoad } from '../../src/lib/server/rooms/audits/commands';
import { deriveFindings } from '../../src/lib/server/rooms/audits/findings';
import { listFindings } from '../../src/lib/server/rooms/audits/queries/findings';
import { existingClient } from '../../src/lib/server/rooms/clients/clients';
import { changeClient } from '../../src/lib/server/rooms/clients/commands';
import { requestedOrder } from '../../src/lib/server/rooms/loads/requested';
import { changePages, pastePages } from '../../src/lib/server/rooms/pages/commands';
import { listPages } from '../../src/lib/server/rooms/pages/queries/pages';
import { clientWithSite } from './clients';
import { measuredLoad, useQueue } from './queue';
import { recordOf, requestOf } from './records';

export type Candidate = NonNullable<Parameters<typeof recordOf>[0]>;

export const plainScript = (): RequestRecord =>
	requestOf({
		type: 'script',
		url: 'https://own.test/app.js',
		mimeType: 'text/javascript',
		wireBytes: 100_000,
		decodedBytes: 100_000,
		endMs: 600,
		responseHeaders: [['cache-control', 'max-age=31536000']],
		body: { hash: 'a', bytes: 100_000, gzipBytes: 30_000 }
	});
export const document = (url = 'https://own.test/a'): RequestRecord =>
	requestOf({ type: 'document', url, wireBytes: 9000 });
export const withScript = (): Candidate => ({ requests: [document(), plainScript()] });
export const clean = (url?: string): Candidate => ({ requests: [document(url)] });

export function useAudits() {
	const q = useQueue();
	const made = { clientId: 0, siteId: 0, pages: [] as number[] };
	beforeEach(() => {
		Object.assign(made, clientWithSite(q.now.db));
		pastePages(q.now.db, made.siteId, '/a\n/b');
		made.pages = listPages(q.now.db, { siteId: made.siteId }, 9).map(({ id }) => id);
		changePages(q.now.db, made.pages, { isChosen: true });
	});
	const lease = (): Job | null => leaseJob(q.now.db, 'me');
	return {
		q,
		made,
		lease,
		input: (extra: v.InferInput<typeof AuditInput> = {}) =>
			v.parse(AuditInput, {
				...{ clientId: made.clientId, pages: made.pages, conditions: ['phone'], loads: 3 },
				...extra
			}),
		/** Works through all loads of audits. @param candidate what a load of a page shows */
		work(candidate: (url: string, n: number) => Candidate): number {
			let n = 0;
			for (let job = lease(); job; job = lease()) {
				finishJob(q.now.db, job, 'me');
				if (job.kind === 'load') {
					const { url, version } = requestedOrder(q.now.db, job);
					storeAuditLoad(q.now.db, job, version, measuredLoad({ url, ...candidate(url, ++n) }));
				} else deriveFindings(q.now.db, job.subject.id);
			}
			return n;
		},
		setTargets(targets: Target[]): void {
			const { id: _id, ...client } = existingClient(q.now.db, made.clientId);
			changeClient(q.now.db, made.clientId, { ...client, targets });
		},
		states: () => listFindings(q.now.db, { clientId: made.clientId }, 99).map(({ rule, state }) => [rule, state])
	};
}
