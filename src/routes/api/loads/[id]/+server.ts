import { json } from '@sveltejs/kit';
import { answering } from '$lib/server/access/api';
import { loadFrom } from '$lib/server/access/loads';
import { getDb } from '$lib/server/context';

export const GET = ({ params }) => answering(() => json(loadFrom(getDb(), params.id).record));
