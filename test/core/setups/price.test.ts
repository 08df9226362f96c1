import { expect } from 'chai';
import * as v from 'valibot';
import { breakEven, costOver, monthlyPrice, monthOfQuota, PriceRule, visitsOfBreakEven } from '$core/setups/price';

const rule = (more: Partial<v.InferInput<typeof PriceRule>>) =>
	v.parse(PriceRule, { tier: 't', price: 0, per: 'month', ...more });
const use = (visits: number, month = 0, sites = 1) => ({ visits, month, sites });

/** Common practice: a free tier with a quota, a paid one by the month or the year, more by the thousand. */
const FREE = rule({ visits: 5000 });
const MONTHLY = rule({ price: 9 });
const YEARLY = rule({ price: 96, per: 'year', firstYearOff: 0.25 });
const BY_VISITS = rule({ price: 10, visits: 10_000, perThousand: 0.5 });

describe('the price of a component', () => {
	it('is a twelfth of a yearly price a month, less in the first year', () => {
		expect(monthlyPrice(YEARLY, use(100))).to.equal(6);
		expect(monthlyPrice(YEARLY, use(100, 11))).to.equal(6);
		expect(monthlyPrice(YEARLY, use(100, 12))).to.equal(8);
	});

	it('ends with its quota, or grows by the thousand beyond it', () => {
		expect(monthlyPrice(FREE, use(5000))).to.equal(0);
		expect(monthlyPrice(FREE, use(5001))).to.equal(null);
		// 10 and 7 thousand more at 0.50.
		expect(monthlyPrice(BY_VISITS, use(17_000))).to.equal(13.5);
	});

	it('is paid for each bundle of sites', () => {
		const three = rule({ price: 30, sites: 3 });
		expect([1, 3, 4].map((sites) => monthlyPrice(three, use(1, 0, sites)))).to.deep.equal([30, 30, 60]);
		expect(monthlyPrice(rule({ price: 30, sites: null }), use(1, 0, 99))).to.equal(30);
	});

	it('of several months counts the set-up once', () => {
		const outlook = { visits: 100, growth: 0, sites: 1, hourly: 50 };
		expect(costOver(rule({ price: 9, setupHours: 2 }), outlook, 12)).to.equal(208);
		expect(costOver(FREE, { ...outlook, visits: 4000, growth: 0.1 }, 12)).to.equal(null);
	});
});

describe('the month in which a quota ends', () => {
	it('is the first with more visits than it covers', () => {
		// 4,000 growing by 10 %: 4,400, 4,840, 5,324 in the third month from now.
		expect(monthOfQuota(FREE, { visits: 4000, growth: 0.1 })).to.equal(3);
		expect(monthOfQuota(FREE, { visits: 5001, growth: 0 })).to.equal(0);
		// 5,000 are still covered: with any growth the next month is too much.
		expect(monthOfQuota(FREE, { visits: 5000, growth: 0.01 })).to.equal(1);
	});

	it('never comes without a quota, or without growth', () => {
		expect(monthOfQuota(MONTHLY, { visits: 1e6, growth: 1 })).to.equal(null);
		expect(monthOfQuota(FREE, { visits: 4000, growth: 0 })).to.equal(null);
		expect(monthOfQuota(FREE, { visits: 4000, growth: -0.1 })).to.equal(null);
	});
});

describe('the break-even of two tiers', () => {
	const outlook = { visits: 20_000, growth: 0, sites: 1, hourly: 60 };

	it('is the month in which the other has made up for its set-up', () => {
		// From 15 a month (10 and 10 thousand more at 0.50) to 9 with two hours at 60: 120 saved at 6 a month is 20 months.
		expect(breakEven(BY_VISITS, rule({ price: 9, setupHours: 2 }), outlook)).to.equal(20);
		expect(breakEven(MONTHLY, rule({ price: 12 }), outlook)).to.equal(null);
	});

	it('is at once where the one that is left ends with its quota', () => {
		expect(breakEven(FREE, MONTHLY, outlook)).to.equal(0);
	});

	it('in visits is where a price that grows with traffic passes one that does not', () => {
		// 10 + 0.50 a thousand beyond 10,000 passes 15 at 20,000 visits.
		expect(visitsOfBreakEven(BY_VISITS, rule({ price: 15 }))).to.equal(20_000);
		expect(visitsOfBreakEven(FREE, MONTHLY)).to.equal(5001);
		expect(visitsOfBreakEven(MONTHLY, BY_VISITS)).to.equal(null);
	});
});
