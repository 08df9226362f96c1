import { getDb, getSigningKey } from '$lib/server/context';
import { answering, idFrom } from '$lib/server/http/api';
import { existingVersion } from '$lib/server/reports/queries';
import { REPORT_POLICY, wholePage } from '../../../../versionPage';

/** The version as the client sees it, in one file. */
export const GET = ({ params }) =>
	answering(() => {
		const { id } = existingVersion(getDb(), idFrom(params.id, 'report'), idFrom(params.number, 'version'));
		return new Response(wholePage(getDb(), id, getSigningKey().publicKey), {
			headers: { 'content-type': 'text/html; charset=utf-8', 'content-security-policy': REPORT_POLICY }
		});
	});
