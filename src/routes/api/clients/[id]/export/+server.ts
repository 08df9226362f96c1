import { exportClient } from '$lib/server/clients/archive';
import { existingClient } from '$lib/server/clients/clients';
import { getDb } from '$lib/server/context';
import { answering, idFrom } from '$lib/server/http/api';

/** A zip with all that is the client's; secrets stay here, and the archive says which. */
export const GET = ({ params }) =>
	answering(async () => {
		const { id, name } = existingClient(getDb(), idFrom(params.id, 'client'));
		const packed = await exportClient(getDb(), id);
		const file = `${name.replace(/[^\w-]+/g, '-').toLowerCase()}-${new Date().toISOString().slice(0, 10)}.zip`;
		return new Response(packed as Uint8Array<ArrayBuffer>, {
			headers: { 'content-type': 'application/zip', 'content-disposition': `attachment; filename="${file}"` }
		});
	});
