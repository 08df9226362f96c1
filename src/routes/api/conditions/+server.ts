import { json } from '@sveltejs/kit';
import { withoutSecrets } from '$core/load/conditions/conditions';
import { listConditions } from '$lib/server/rooms/conditions/saved';

export const GET = ({ locals }) => json(listConditions(locals.db).map(withoutSecrets));
