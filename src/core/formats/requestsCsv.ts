/** The requests of a load as a table. */
import type { OwnedRequest } from '../load/requests/requestList';
import type { RequestRecord } from '../load/record/record';
import { csvOf } from './csv';

/** One row a request; times in ms, sizes in bytes, empty for what is not known. */
export function requestsCsv(requests: readonly (RequestRecord & OwnedRequest)[]): string {
	const head = [
		'number',
		'url',
		'owner',
		'type',
		'status',
		'protocol',
		'priority',
		'start',
		'first_byte',
		'end',
		'queue',
		'dns',
		'connect',
		'tls',
		'send',
		'wait',
		'receive',
		'wire',
		'decoded',
		'unused',
		'blocking',
		'from_cache',
		'from_service_worker',
		'during',
		'failed',
		'asked_for_by'
	];
	const rows = requests.map((request) => [
		request.number,
		request.url,
		request.owner.name,
		request.type,
		request.status,
		request.protocol,
		request.priority,
		request.startMs,
		request.responseMs,
		request.endMs,
		request.timing.queue,
		request.timing.dns,
		request.timing.connect,
		request.timing.tls,
		request.timing.send,
		request.timing.wait,
		request.timing.receive,
		request.wireBytes,
		request.decodedBytes,
		request.unused,
		request.renderBlocking,
		request.fromCache,
		request.fromServiceWorker,
		request.during,
		request.failed,
		request.initiatorUrl ?? request.initiatorType
	]);
	return csvOf(head, rows);
}
