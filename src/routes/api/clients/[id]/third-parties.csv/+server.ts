import { csvOf } from '$core/formats/csv';
import { answering, idFrom } from '$lib/server/http/api';
import { csvAnswer } from '$lib/server/http/csv';
import { existingClient } from '$lib/server/rooms/clients/clients';
import { registerOf } from '$lib/server/rooms/loads/register';

const HEAD = [
	'host',
	'owner',
	'purpose',
	'confirmed',
	'pages',
	'loads',
	'last_seen',
	'requests',
	'wire_bytes',
	'blocking_ms',
	'tail_ms',
	'asked_by',
	'ask_because'
];

/** The register of a client's third parties. */
export const GET = ({ locals, params }) =>
	answering(() => {
		const { id } = existingClient(locals.db, idFrom(params.id, 'client'));
		const rows = registerOf(locals.db, id).map((line) => [
			line.host,
			line.owner,
			line.purpose,
			line.confirmedAt,
			line.pages,
			line.loads,
			line.lastSeenAt,
			line.requests,
			line.wireBytes,
			line.blockingMs,
			line.tailMs,
			line.askedBy.join(' '),
			line.reasons.join(' ')
		]);
		return csvAnswer('third-parties.csv', csvOf(HEAD, rows));
	});
