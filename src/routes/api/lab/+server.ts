import { json } from '@sveltejs/kit';
import { getDb } from '$lib/server/context';
import { labSheet } from '$lib/server/labs/sheet';

export const GET = () => json(labSheet(getDb()));
