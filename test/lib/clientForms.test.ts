import { expect } from 'chai';
import { freeMarginRow, houseMargin, withUnit } from '../../src/routes/clients/marginRows';
import { clientFrom, typedClient } from '../../src/lib/server/rooms/clients/form';
import * as v from 'valibot';
import { Colour } from '$core/clients/colour';
import { wordMoney } from '$core/wording/money';
import { countOf, findings } from '../../src/routes/clients/[id]/findings';
import { monthsWords } from '../../src/routes/clients/[id]/money';
import { proposalLink } from '../../src/routes/clients/[id]/sites/[site]/proposalLink';
import { amountWords, pathOf } from '../../src/routes/pages/pageWords';
import { guessColumns } from '$core/pages/traffic';
import { columnsQuery, firstLines, placesOf } from '../../src/lib/parts/tableColumns';
import { newRow } from '../../src/routes/workshop/components/[id]/priceRows';
import { priceRow, priceRuleOf } from '../../src/lib/server/rooms/setups/form';
import { METRICS } from '$core/metrics/catalogue';
import { newClient } from '$core/clients/client';
import { NO_RECOGNITION } from '$core/setups/recognition';

describe('forms of clients and components', () => {
	it('offer each metric once, and none when all have a margin', () => {
		const rows = METRICS.map(({ id }) => ({ metric: id as string }));
		expect(freeMarginRow(rows.slice(1))?.metric).to.equal(METRICS[0]!.id);
		expect(freeMarginRow(rows)).to.equal(null);
	});

	it('take the house’s margin of the metric that is chosen, in its unit', () => {
		for (const { id, margin } of METRICS) {
			const row = houseMargin(id);
			expect(row.absolute).to.equal(margin.absolute);
			expect(row.percent! / 100).to.be.closeTo(margin.relative, 1e-12);
		}
		expect(houseMargin('cls').absolute).to.be.below(1);
	});

	it('name the unit where there is one', () => {
		expect(withUnit('At least', 'lcp')).to.equal('At least, ms');
		expect(withUnit('At least', 'cls')).to.equal('At least');
	});

	it('write margins in per cent and read them back', () => {
		const margins = { tbt: { absolute: 80, relative: 0.075 }, cls: { absolute: 0.01, relative: 0 } };
		const typed = typedClient({ ...newClient('A'), margins });
		expect(typed.margins).to.deep.equal([
			{ metric: 'tbt', absolute: 80, percent: 7.5 },
			{ metric: 'cls', absolute: 0.01, percent: 0 }
		]);
		expect(clientFrom(typed).margins).to.deep.equal(margins);
		const empty = { ...typed, margins: [{ metric: 'lcp', absolute: null, percent: null }] };
		expect(clientFrom(empty).margins).to.deep.equal({ lcp: { absolute: 0, relative: 0 } });
	});

	it('write a client as text', () => {
		const client = { ...newClient('A'), growth: 0.025, hourly: 70, mustSend: [{ name: 'Counting', pattern: '*hit*' }] };
		expect(typedClient(client)).to.include({ growth: '2.5', hourly: '70', mustSend: 'Counting: *hit*', people: '' });
		expect(typedClient(newClient('A'))).to.include({ growth: '', hourly: '' });
		expect(clientFrom(typedClient(client))).to.deep.equal(client);
	});

	it('write tiers as rows; what is left empty is none, or any number', () => {
		const rule = {
			tier: 'paid',
			price: 60,
			per: 'year' as const,
			sites: 1,
			visits: null,
			perThousand: null,
			firstYearOff: 0.25,
			setupHours: 1
		};
		expect(priceRow(rule)).to.include({ percentOff: 25, visits: null });
		expect(priceRuleOf(priceRow(rule))).to.deep.equal(rule);
		expect(priceRuleOf({ ...newRow(), tier: 'x', price: null })).to.include({
			price: 0,
			setupHours: 0,
			firstYearOff: 0
		});
	});

	it('say months and money', () => {
		expect([0, 1, 7, 12, 13, 26].map(monthsWords)).to.deep.equal([
			'from now on',
			'in 1 month',
			'in 7 months',
			'in a year',
			'in a year and 1 month',
			'in 2 years and 2 months'
		]);
		expect(wordMoney(12.5, 'EUR')).to.equal('€12.50');
		expect(wordMoney(12, 'GBP')).to.equal('£12');
	});

	it('take a colour in three digits or six', () => {
		expect(v.parse(Colour, ' #A33 ')).to.equal('#AA3333');
		expect(v.parse(Colour, '#1F6F54')).to.equal('#1F6F54');
		expect(v.safeParse(Colour, '#12').success).to.equal(false);
	});

	it('lead from what was seen in a load to a new component', () => {
		const proposal = {
			name: 'larder',
			recognition: { ...NO_RECOGNITION, paths: ['/larder/'] },
			requests: 1,
			wireBytes: 1,
			examples: []
		};
		expect(proposalLink(proposal)).to.equal(
			'/workshop/components/new?name=larder&kind=plugin&hosts=&paths=%2Flarder%2F'
		);
	});
});

describe('the lines of a client’s sheet', () => {
	const facts = {
		client: newClient('A'),
		allTrials: 0,
		trials: [],
		setups: [],
		thirdParties: { hosts: 0, candidates: 0, unread: 0 },
		pairs: [],
		field: []
	};

	it('say what there is not yet', () => {
		expect(findings(facts)).to.deep.equal({
			field: 'No page is chosen yet',
			trials: 'No trial',
			setups: 'Not written down yet',
			setupTone: 'plain',
			thirdParties: 'None seen in a load yet',
			competitors: 'None paired yet',
			usual: 'Those of the house'
		});
		expect([0, 1, 3].map((n) => countOf(n, 'page'))).to.deep.equal(['no page', 'one page', '3 pages']);
	});

	it('count what is open, what to ask about, and what passes', () => {
		const field = (['passes', 'does-not'] as const).map((assessment) => ({
			device: 'phone' as const,
			assessment
		}));
		const found = findings({
			...facts,
			client: {
				...newClient('A'),
				targets: [{ metric: 'lcp', conditions: null, value: 1 }],
				margins: { tbt: { absolute: 1, relative: 0 } }
			},
			allTrials: 4,
			trials: [{ status: 'done' }, { status: 'running' }],
			thirdParties: { hosts: 5, candidates: 2, unread: 0 },
			field
		});
		expect(found).to.include({
			trials: '4 trials, 1 of the newest not done',
			thirdParties: '5 hosts, 2 to ask about',
			usual: 'One target, one margin of its own',
			field: 'On phones 1 of 2 pages is good on Core Web Vitals, one misses at least one'
		});
	});
});

describe('a traffic table in the browser', () => {
	it('shows its heading and first line, whatever parts and writes them', async () => {
		const latin = new Blob([Buffer.from('Página;Visitas\n/a;1.200\n/b;3\n', 'latin1')]);
		const isHeading = (cells: readonly string[]) => guessColumns(cells) !== null;
		const { rows, header } = await firstLines(latin, isHeading);
		expect([header, rows[1]]).to.deep.equal([0, ['/a', '1.200']]);
		const places = placesOf(guessColumns(rows[header]!));
		expect(places).to.deep.equal({ address: '0', visits: '1', conversions: '', revenue: '' });
		expect(columnsQuery(places)).to.equal('address=0&visits=1');
	});

	it('is found its heading below what a program writes above it', async () => {
		const above = 'Report of pages\n1 Oct 2026 - 31 Oct 2026\n\n';
		const file = new Blob([`${above}Page,Page views\n/a,12\n`]);
		const { rows, header } = await firstLines(file, (cells) => guessColumns(cells) !== null);
		expect([header, rows[header]]).to.deep.equal([2, ['Page', 'Page views']]);
		const odd = await firstLines(
			new Blob([`${above}What,How often\n/a,12\n`]),
			(cells) => guessColumns(cells) !== null
		);
		expect([odd.header, placesOf(guessColumns(odd.rows[odd.header]!))]).to.deep.equal([2, {}]);
	});

	it('is shown by path and with its numbers parted', () => {
		expect(pathOf('https://a.test/caf%C3%A9?x=1')).to.equal('/café?x=1');
		expect(pathOf('https://a.test/%')).to.equal('/%');
		expect([amountWords(41_820), amountWords(null), amountWords(21_940.5, 0)]).to.deep.equal(['41,820', '', '21,941']);
	});
});
