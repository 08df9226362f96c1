import { json } from '@sveltejs/kit';
import { search } from '$lib/server/desk/search';

export const GET = ({ locals, url }) => json(search(locals.db, url.searchParams.get('q') ?? ''));
