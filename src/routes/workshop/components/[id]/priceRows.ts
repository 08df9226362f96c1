/** Tiers as rows of a form. */
import type { PriceRow } from '$lib/server/rooms/setups/form';

export const newRow = (): PriceRow => ({
	tier: '',
	price: 0,
	per: 'month',
	sites: 1,
	visits: null,
	perThousand: null,
	percentOff: null,
	setupHours: null
});
