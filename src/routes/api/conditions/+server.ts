import { json } from '@sveltejs/kit';
import { withoutSecrets } from '$core/load/conditions';
import { getDb } from '$lib/server/context';
import { listConditions } from '$lib/server/conditions/saved';

export const GET = () => json(listConditions(getDb()).map(withoutSecrets));
