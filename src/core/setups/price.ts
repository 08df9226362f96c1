/** What a component costs for a client's traffic: tiers with quotas, discounts and hours of set-up. */
import * as v from 'valibot';

const amount = (name: string) =>
	v.pipe(v.number(`${name} is a number.`), v.finite(`${name} is a number.`), v.minValue(0, `${name} is not negative.`));
const MONTHS_A_YEAR = 12;

/** One tier of a component. Amounts in the client's currency. */
export const PriceRule = v.object({
	tier: v.pipe(
		v.string('Name the tier.'),
		v.trim(),
		v.nonEmpty('Name the tier.'),
		v.maxLength(60, 'At most 60 characters.')
	),
	/** For as many sites as it covers, in a month or a year. */
	price: amount('The price'),
	per: v.picklist(['month', 'year'], 'A price is per month or per year.'),
	/** Sites that one price covers; null for any number. */
	sites: v.optional(
		v.nullable(
			v.pipe(amount('The number of sites'), v.integer('Sites are a whole number.'), v.minValue(1, 'At least one site.'))
		),
		1
	),
	/** Visits a month that it covers; null for any number. */
	visits: v.optional(v.nullable(amount('The quota')), null),
	/** What each further thousand visits costs; null where it stops to work beyond its quota. */
	perThousand: v.optional(v.nullable(amount('The price of more visits')), null),
	/** Share off in the first year, 0 to 1. */
	firstYearOff: v.optional(v.pipe(amount('The discount'), v.maxValue(1, 'A discount is at most all of it.')), 0),
	/** Hours that setting it up takes, once. */
	setupHours: v.optional(amount('The hours'), 0)
});
export type PriceRule = v.InferOutput<typeof PriceRule>;

export interface Use {
	/** A month, in the month that is asked for. */
	visits: number;
	sites: number;
	/** Months since it was bought, from 0: the first year is 0 to 11. */
	month: number;
}

/**
 * What it costs in a month, a yearly price as a twelfth of it (common practice); null when its quota is exceeded and
 * more cannot be bought.
 */
export function monthlyPrice(rule: PriceRule, { visits, sites, month }: Use): number | null {
	const more = rule.visits === null ? 0 : Math.max(0, visits - rule.visits);
	if (more > 0 && rule.perThousand === null) return null;
	const bundles = rule.sites === null ? 1 : Math.ceil(sites / rule.sites);
	const base = (rule.per === 'year' ? rule.price / MONTHS_A_YEAR : rule.price) * bundles;
	const off = month < MONTHS_A_YEAR ? rule.firstYearOff : 0;
	return base * (1 - off) + (more / 1000) * (rule.perThousand ?? 0);
}

export interface Outlook {
	/** A month, now. */
	visits: number;
	/** Share by which visits grow from month to month, 0.02 for 2 %. */
	growth: number;
	sites: number;
	/** Of one hour of set-up. */
	hourly: number;
}

export const visitsIn = ({ visits, growth }: Pick<Outlook, 'visits' | 'growth'>, month: number): number =>
	visits * (1 + growth) ** month;

/** Months from now, from 0, in which the visits exceed the quota for the first time; null when that never comes. */
export function monthOfQuota(
	{ visits: quota }: Pick<PriceRule, 'visits'>,
	outlook: Pick<Outlook, 'visits' | 'growth'>
): number | null {
	if (quota === null) return null;
	if (outlook.visits > quota) return 0;
	if (outlook.growth <= 0 || outlook.visits === 0) return null;
	// The smallest whole m with visits (1 + growth)^m > quota.
	const exact = Math.log(quota / outlook.visits) / Math.log(1 + outlook.growth);
	const month = Math.floor(exact + 1e-9) + 1;
	return month > MOST_MONTHS ? null : month;
}

/** Nobody plans further (house). */
export const MOST_MONTHS = 120;

/** Costs of so many months together, with set-up; null when its quota ends before. */
export function costOver(rule: PriceRule, outlook: Outlook, months: number): number | null {
	let all = rule.setupHours * outlook.hourly;
	for (let month = 0; month < months; month++) {
		const price = monthlyPrice(rule, { visits: visitsIn(outlook, month), sites: outlook.sites, month });
		if (price === null) return null;
		all += price;
	}
	return all;
}

/**
 * Months from now after which `to` has cost no more than `from`, set-up and all, and stays cheaper to the end of what
 * is planned; null when that never comes. A tier whose quota has ended costs nothing more and serves nobody: from
 * then on the other one is the cheaper.
 */
export function breakEven(from: PriceRule, to: PriceRule, outlook: Outlook): number | null {
	let [spent, other] = [from, to].map(({ setupHours }) => setupHours * outlook.hourly) as [number, number];
	let since: number | null = null;
	for (let month = 0; month < MOST_MONTHS; month++) {
		const use = { visits: visitsIn(outlook, month), sites: outlook.sites, month };
		const [a, b] = [monthlyPrice(from, use), monthlyPrice(to, use)];
		if (b === null) return since !== null && a === null ? since : null;
		if (a === null) return since ?? month;
		spent += a;
		other += b;
		if (other > spent) since = null;
		else since ??= month + 1;
	}
	return since;
}

/** Visits a month from which `to` costs less than `from`, of tiers at the same moment; null where it never does. */
export function visitsOfBreakEven(from: PriceRule, to: PriceRule, sites = 1): number | null {
	const at = (rule: PriceRule, visits: number) =>
		monthlyPrice(rule, { visits, sites, month: MONTHS_A_YEAR }) ?? Infinity;
	const isCheaper = (visits: number) => at(to, visits) <= at(from, visits);
	if (isCheaper(0)) return 0;
	let [low, high] = [0, MOST_VISITS];
	if (!isCheaper(high)) return null;
	while (high - low > 1) {
		const middle = Math.floor((low + high) / 2);
		if (isCheaper(middle)) high = middle;
		else low = middle;
	}
	return high;
}

const MOST_VISITS = 1_000_000_000;
