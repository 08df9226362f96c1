import { expect } from 'chai';
import { isMatching } from '$core/load/requests/pattern';
import { emptyPage } from '$core/load/record/emptyRecord';
import { brokenSends, parseMustSend, sendingsOf, sendStates, type Sending } from '$core/trial/design/mustSend';
import { meetsCheck, parsePresence, presenceLine, selectorsOf } from '$core/trial/design/presence';
import { wordMissed, wordSend } from '$core/wording/presence';
import { recordOf, requestOf } from '../../support/records';

describe('patterns of addresses', () => {
	it('are found anywhere, or stand for the whole address where a star is in them', () => {
		expect(isMatching('https://a.test/x/hit?n=1', 'a.test/x')).to.equal(true);
		expect(isMatching('https://a.test/x/hit?n=1', '*a.test/x/hit*')).to.equal(true);
		expect(isMatching('https://a.test/x/hit?n=1', '*a.test/x/hit')).to.equal(false);
		expect(isMatching('https://a.test/a.b', '*/a?b'), 'other signs mean themselves').to.equal(false);
	});
});

describe('presence checks', () => {
	const record = recordOf({
		finalUrl: 'https://own.test/',
		page: { ...emptyPage('Home'), text: 'Welcome aboard the Skerry Line' },
		selectors: [
			{ selector: '#chat', count: 2 },
			{ selector: '#banner', count: 0 },
			{ selector: '##', count: null }
		],
		requests: [
			requestOf({ url: 'https://own.test/', type: 'document', responseHeaders: [['X-Cache', 'HIT, edge']] }),
			requestOf({ url: 'https://chat.test:444/bell.js?mode=1' }),
			requestOf({ url: 'https://late.test/x.js', during: 'patience' })
		]
	});
	const meets = (line: string) => meetsCheck(parsePresence(line)[0]!, record);

	it('are read one a line, and written back as they were', () => {
		const text = 'host chat.test\ngone selector #old .banner\nheader x-cache: HIT\ntext Welcome aboard';
		expect(parsePresence(`\n${text}\n\n`).map(presenceLine).join('\n')).to.equal(text);
		expect(selectorsOf(parsePresence(text))).to.deep.equal(['#old .banner']);
		for (const wrong of ['chat.test', 'hosts chat.test', 'gone', 'host'])
			expect(() => parsePresence(wrong), wrong).to.throw(`“${wrong}” is no check`);
	});

	it('find hosts, addresses, headers, elements and words', () => {
		expect(meets('host chat.test')).to.equal(true);
		expect(meets('address *bell.js*')).to.equal(true);
		expect(meets('header x-cache')).to.equal(true);
		expect(meets('header X-CACHE: hit')).to.equal(true);
		expect(meets('header x-cache: MISS')).to.equal(false);
		expect(meets('selector #chat')).to.equal(true);
		expect(meets('text welcome ABOARD')).to.equal(true);
	});

	it('are met by what is gone where that is wanted', () => {
		expect(meets('gone host chat.test')).to.equal(false);
		expect(meets('gone selector #banner')).to.equal(true);
	});

	it('look at the load itself, not at what came late, and know what they cannot tell', () => {
		expect(meets('host late.test')).to.equal(false);
		expect(meets('selector ##')).to.equal(null);
		expect(meets('selector #never-counted')).to.equal(null);
		expect(meetsCheck({ kind: 'text', value: 'x', wanted: 'present' }, recordOf({ page: null }))).to.equal(null);
	});
});

describe('requests that must still leave', () => {
	const list = parseMustSend('Counting: *count.test/hit*\nOrders: */order');
	const at = (whileLoading: number | null, late: number | null = null): Sending => ({ whileLoading, late });

	it('are read one a line, name first', () => {
		expect(list).to.deep.equal([
			{ name: 'Counting', pattern: '*count.test/hit*' },
			{ name: 'Orders', pattern: '*/order' }
		]);
		expect(() => parseMustSend('count.test/hit')).to.throw('“count.test/hit” cannot be read');
	});

	it('are found in a load by when they first left; one that failed did not', () => {
		const record = recordOf({
			requests: [
				requestOf({ url: 'https://count.test/hit?n=2', startMs: 900 }),
				requestOf({ url: 'https://count.test/hit?n=1', startMs: 700 }),
				requestOf({ url: 'https://own.test/order', startMs: 6000, during: 'nudge' }),
				requestOf({ url: 'https://own.test/order', startMs: 100, failed: 'net::ERR_FAILED' })
			]
		});
		expect(sendingsOf(list, record)).to.deep.equal([at(700), at(null, 6000)]);
	});

	it('are sent, late, only after an input, or never; what nobody asked is unknown', () => {
		const rounds = [
			[at(700), at(null)],
			[at(690), at(null)],
			[at(null), at(null)]
		];
		const states = (patient: Sending[] | null, nudged: Sending[] | null) =>
			sendStates(list, rounds, patient, nudged).map(({ fate }) => fate);
		expect(sendStates(list, rounds, null, null)[0]).to.deep.equal({
			name: 'Counting',
			sent: 2,
			loads: 3,
			fate: 'sent',
			lateMs: null
		});
		expect(states([at(700), at(null, 6000)], null)).to.deep.equal(['sent', 'late']);
		expect(states([at(700), at(null)], [at(700), at(null, 9000)])).to.deep.equal(['sent', 'after-input']);
		expect(states([at(700), at(null)], [at(700), at(null)])).to.deep.equal(['sent', 'never']);
		expect(states(null, null)).to.deep.equal(['sent', 'unknown']);
	});

	it('are broken where the baseline sends them and the variant does not', () => {
		const before = sendStates(list, [[at(700), at(null)]], null, null);
		const after = sendStates(list, [[at(null), at(null)]], null, [at(null, 9000), at(null)]);
		const broken = brokenSends(before, after);
		expect(broken.map(({ name }) => name)).to.deep.equal(['Counting']);
		expect(wordSend('Hushbox', broken[0]!)).to.equal(
			'“Hushbox”: Counting left in 0 of 1 loads while they loaded; only after an interaction.'
		);
		expect(wordMissed('Larder', { check: 'header x-cache: HIT', met: 7, loads: 10 })).to.equal(
			'“Larder”: “header x-cache: HIT” was met in 7 of 10 loads.'
		);
	});
});
