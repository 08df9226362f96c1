import { json } from '@sveltejs/kit';
import { getDb } from '$lib/server/context';
import { search } from '$lib/server/search/search';

export const GET = ({ url }) => json(search(getDb(), url.searchParams.get('q') ?? ''));
