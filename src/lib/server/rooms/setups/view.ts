/** What a client's sites run on, and what it costs with this client's traffic. */
import { sum } from 'd3-array';
import type { ClientInput } from '$core/clients/client';
import { breakEven, monthlyPrice, monthOfQuota, visitsOfBreakEven, type PriceRule } from '$core/setups/price';
import { exclusiveClashes, type Component } from '$core/trial/design/setup';
import type { Site } from '../clients/sites';
import { sql, type Db } from '../../base/db/connection';
import { componentsOfSite, type SiteComponent } from './components';

/** Visits a month of a site, as its traffic table says; null without one. */
function visitsOf(db: Db, { id, restVisits }: Site): number | null {
	const row = sql<{ visits: number | null }>(db, 'SELECT sum(visits) AS visits FROM page WHERE site_id = ?').get(id);
	return row?.visits == null ? null : row.visits + restVisits;
}

export function setupsView(
	db: Db,
	client: Pick<ClientInput, 'growth' | 'hourly' | 'currency'>,
	sites: readonly Site[]
) {
	return sites
		.filter(({ role }) => role !== 'competitor')
		.map((site) => {
			const visits = visitsOf(db, site);
			const components = componentsOfSite(db, site.id);
			const lines = components.map((one) => lineOf(one, client, visits));
			const known = lines.flatMap(({ monthly }) => monthly ?? []);
			return {
				site: site.name,
				siteId: site.id,
				visits,
				lines,
				monthly: known.length ? sum(known) : null,
				clashes: exclusiveClashes({ components: components.map(asSetup), features: {}, effortHours: null })
			};
		})
		.filter(({ lines }) => lines.length > 0);
}

export type SetupsView = ReturnType<typeof setupsView>;

const asSetup = ({ component, version }: SiteComponent): Component => ({
	kind: component.kind,
	name: component.name,
	version,
	tier: 'unknown',
	monthlyCost: null,
	jobs: component.jobs,
	settings: ''
});

function lineOf(
	{ component, version, tier }: SiteComponent,
	{ growth, hourly }: Pick<ClientInput, 'growth' | 'hourly'>,
	visits: number | null
) {
	const rule = component.prices.find((one) => one.tier === tier) ?? null;
	const outlook = { visits: visits ?? 0, growth, sites: 1, hourly };
	const price = (one: PriceRule, month: number) => monthlyPrice(one, { visits: outlook.visits, sites: 1, month });
	return {
		id: component.id,
		kind: component.kind,
		name: component.name,
		version,
		tier,
		/** In the first year, and after it; null where the quota is exceeded or no price is known. */
		monthly: rule && price(rule, 0),
		later: rule && price(rule, 12),
		isOver: rule !== null && price(rule, 0) === null,
		quota: rule?.visits ?? null,
		perThousand: rule?.perThousand ?? null,
		quotaEnds: rule && visits !== null ? monthOfQuota(rule, outlook) : null,
		others: component.prices
			.filter((one) => one.tier !== tier)
			.map((one) => ({
				tier: one.tier,
				monthly: price(one, 0),
				breakEven: rule && breakEven(rule, one, outlook),
				fromVisits: rule && visitsOfBreakEven(rule, one)
			}))
	};
}
