import { json } from '@sveltejs/kit';
import { answering } from '$lib/server/http/api';
import { listBin } from '$lib/server/base/storage/bin';

/** What was deleted in the last thirty days and can be put back. */
export const GET = ({ locals }) => answering(() => json({ bin: listBin(locals.db) }));
