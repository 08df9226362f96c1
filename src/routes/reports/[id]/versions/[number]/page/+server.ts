import { answering, idFrom } from '$lib/server/http/api';
import { REPORT_POLICY, wholePage } from '../../../../versionPage';
import { existingVersion } from '$lib/server/rooms/reports/view';

/** The version as the client sees it, in one file. */
export const GET = ({ locals, params }) =>
	answering(() => {
		const { id } = existingVersion(locals.db, idFrom(params.id, 'report'), idFrom(params.number, 'version'));
		return new Response(wholePage(locals.db, id, locals.signingKey().publicKey), {
			headers: { 'content-type': 'text/html; charset=utf-8', 'content-security-policy': REPORT_POLICY }
		});
	});
