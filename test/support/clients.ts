/** Made-up clients and sites. */
import * as v from 'valibot';
import { newClient } from '$core/clients/client';
import { SiteInput } from '$core/clients/site';
import { createClient } from '../../src/lib/server/rooms/clients/commands';
import { insertSite } from '../../src/lib/server/rooms/clients/queries/sites';
import type { Db } from '../../src/lib/server/base/db/connection';

export const siteInput = (host: string, extra: Partial<v.InferInput<typeof SiteInput>> = {}): SiteInput =>
	v.parse(SiteInput, { host, name: host, role: 'own', ...extra });

/** A client with one site of its own. @returns their numbers */
export function clientWithSite(db: Db, host = 'own.test', name = 'Client'): { clientId: number; siteId: number } {
	const clientId = createClient(db, newClient(name));
	return { clientId, siteId: insertSite(db, clientId, siteInput(host)) };
}
