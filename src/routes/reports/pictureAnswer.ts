import { error } from '@sveltejs/kit';
import { mediaOf } from '$lib/report/whole';

/** @param cache how long it may be kept */
export function pictureAnswer(bytes: Buffer | null, cache: string): Response {
	if (!bytes) error(404, 'There is no such picture.');
	return new Response(new Uint8Array(bytes), { headers: { 'content-type': mediaOf(bytes), 'cache-control': cache } });
}
