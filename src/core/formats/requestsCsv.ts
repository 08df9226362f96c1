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
	const rows = requests.map((one) => [
		one.number,
		one.url,
		one.owner.name,
		one.type,
		one.status,
		one.protocol,
		one.priority,
		one.startMs,
		one.responseMs,
		one.endMs,
		one.timing.queue,
		one.timing.dns,
		one.timing.connect,
		one.timing.tls,
		one.timing.send,
		one.timing.wait,
		one.timing.receive,
		one.wireBytes,
		one.decodedBytes,
		one.unused,
		one.renderBlocking,
		one.fromCache,
		one.fromServiceWorker,
		one.during,
		one.failed,
		one.initiatorUrl ?? one.initiatorType
	]);
	return csvOf(head, rows);
}
