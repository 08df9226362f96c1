import { json } from '@sveltejs/kit';
import { getDb } from '$lib/server/context';
import { answering } from '$lib/server/http/api';
import { listBin } from '$lib/server/storage/bin';

/** What was deleted in the last thirty days and can be put back. */
export const GET = () => answering(() => json({ bin: listBin(getDb()) }));
