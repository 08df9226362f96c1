/** Price rules as rows of a form, and back. */
import type { PriceRule } from '$core/setups/price';

export interface PriceRow {
	tier: string;
	price: number | null;
	per: 'month' | 'year';
	sites: number | null;
	visits: number | null;
	perThousand: number | null;
	percentOff: number | null;
	setupHours: number | null;
}

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

export function priceRowsOf(json: string): PriceRow[] {
	return (JSON.parse(json || '[]') as PriceRule[]).map(({ firstYearOff, ...rule }) => ({
		...rule,
		percentOff: firstYearOff ? Math.round(firstYearOff * 1000) / 10 : null
	}));
}

/** JSON of the rules; what is left empty is none, or any number. */
export function pricesOf(rows: readonly PriceRow[]): string {
	return JSON.stringify(
		rows.map(({ percentOff, ...row }) => ({
			...row,
			price: row.price ?? 0,
			setupHours: row.setupHours ?? 0,
			firstYearOff: (percentOff ?? 0) / 100
		}))
	);
}
