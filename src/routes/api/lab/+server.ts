import { json } from '@sveltejs/kit';
import { labSheet } from '$lib/server/desk/labSheet';

export const GET = ({ locals }) => json(labSheet(locals.db));
