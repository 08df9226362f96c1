/** What a client's sites run on, and what it costs with this client's traffic. */
import { sum } from 'd3-array';
import type { ClientInput } from '$core/clients/client';
import { breakEven, monthlyPrice, monthOfQuota, visitsOfBreakEven, type PriceRule } from '$core/setups/price';
import { exclusiveClashes, type Component } from '$core/trial/design/setup';
import type { Db } from '../../base/db/connection';
import { componentsOfSite, type SiteComponent } from './queries/components';
import { visitsOf } from './queries/view';
import type { Site } from '../clients/view';

export {
	type DeletedComponent,
	componentUses,
	componentsOfSite,
	existingComponent,
	knownComponents,
	listComponents,
	putOnSite,
	restoreComponent,
	saveComponent,
	takeOffSite
} from './queries/components';

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
			const lines = components.map((component) => lineOf(component, client, visits));
			const priced = lines.flatMap(({ monthly }) => monthly ?? []);
			return {
				site: site.name,
				siteId: site.id,
				visits,
				lines,
				monthly: priced.length ? sum(priced) : null,
				clashes: exclusiveClashes({ components: components.map(asSetup) })
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
	const rule = component.prices.find((item) => item.tier === tier) ?? null;
	const outlook = { visits: visits ?? 0, growth, sites: 1, hourly };
	const price = (priceRule: PriceRule, month: number) =>
		monthlyPrice(priceRule, { visits: outlook.visits, sites: 1, month });
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
			.filter((item) => item.tier !== tier)
			.map((item) => ({
				tier: item.tier,
				monthly: price(item, 0),
				breakEven: rule && breakEven(rule, item, outlook),
				fromVisits: rule && visitsOfBreakEven(rule, item)
			}))
	};
}
