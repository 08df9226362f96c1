import { exportClient } from '$lib/server/rooms/archive/archive';
import { existingClient } from '$lib/server/rooms/clients/clients';
import { answering, idFrom } from '$lib/server/http/api';

/** A zip with all that is the client's; secrets stay here, and the archive says which. */
export const GET = ({ locals, params }) =>
	answering(async () => {
		const { id, name } = existingClient(locals.db, idFrom(params.id, 'client'));
		const packed = await exportClient(locals.db, id);
		const file = `${name.replace(/[^\w-]+/g, '-').toLowerCase()}-${new Date().toISOString().slice(0, 10)}.zip`;
		return new Response(packed as Uint8Array<ArrayBuffer>, {
			headers: { 'content-type': 'application/zip', 'content-disposition': `attachment; filename="${file}"` }
		});
	});
