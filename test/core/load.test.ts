import { expect } from 'chai';
import {
	BUILT_IN_CONDITIONS,
	completeConditions,
	describeConditions,
	roundTripOf,
	withoutSecrets
} from '$core/load/conditions/conditions';
import { parseConditions } from '$core/load/conditions/conditionsInput';
import { cacheLifetimeOf, compressionOf, servedFrom, wordLifetime } from '$core/load/requests/delivery';
import { completeRecord, emptyRecord } from '$core/load/record/emptyRecord';
import { ownedTasks, timeByOwner } from '$core/load/vitals/mainThread';
import { ownedRequests } from '$core/load/requests/ownedRequests';
import { ownerOf } from '$core/load/requests/owners';
import type { LoadRecord, RequestRecord } from '$core/load/record/record';
import { EVERYTHING, listRequests, listedRequests, sharesByKind } from '$core/load/requests/requestList';
import { requestsCsv } from '$core/formats/requestsCsv';
import { parseSteps, wordsOfStep } from '$core/load/journey/steps';
import { requestOf } from '../support/records';

describe('steps', () => {
	const problem = (text: string) => {
		try {
			parseSteps(text);
			return null;
		} catch (error) {
			return (error as Error).message;
		}
	};

	it('are read from JSON and worded', () => {
		const steps = parseSteps(
			'[{"open":"/a"},{"click":"#m"},{"type":"x","into":"#i"},{"scroll":"bottom"},{"scroll":400},{"wait":500},{"wait":{"text":"Hi"}},{"expect":{"selector":"h1","title":"Home"},"within":900},{"mark":"end"}]'
		);
		expect(steps.map(wordsOfStep)).to.deep.equal([
			'Open /a',
			'Click #m',
			'Type “x” into #i',
			'Scroll to the bottom',
			'Scroll by 400 px',
			'Wait 500 ms',
			'Wait for the words “Hi”',
			'Expect h1 visible and “Home” in the title',
			'Mark “end”'
		]);
		expect(parseSteps('  ')).to.deep.equal([]);
	});

	it('say which step is wrong, and how', () => {
		expect(problem('[{"click":"#a"},{"clik":"#b"}]')).to.equal(
			'Step 2: A step has one of the verbs: open, click, type, press, scroll, wait, expect, trySend, mark.'
		);
		expect(problem('[{"click":""}]')).to.equal('Step 1 (click): A selector is missing.');
		expect(problem('[{"expect":{}}]')).to.match(/^Step 1 \(expect\): Say what must be there/);
		expect(problem('[{"type":"x"}]')).to.match(/^Step 1 \(into\)/);
		expect(problem('[{"wait":-1}]')).to.match(/^Step 1 \(wait\): “wait” takes a time in ms/);
		expect(problem('[{"click":"#a","within":100}]')).to.match(/^Step 1/);
		expect(problem('{"click":"#a"}')).to.equal('Steps are a JSON list.');
		expect(problem('[oops')).to.match(/^The steps are not JSON/);
		expect(problem(JSON.stringify(Array(51).fill({ mark: 'x' })))).to.equal('At most 50 steps.');
	});
});

describe('delivery', () => {
	const with_ = (headers: [string, string][], more: Partial<RequestRecord> = {}) =>
		requestOf({ responseHeaders: headers, ...more });

	// RFC 9111, sections 4.2.1 and 5.2.2.
	it('reads how long a response may be kept', () => {
		const life = (...headers: [string, string][]) => wordLifetime(cacheLifetimeOf(with_(headers)));
		expect(life(['Cache-Control', 'public, max-age=31536000, immutable'])).to.equal('1 year');
		expect(life(['cache-control', 'max-age=300'])).to.equal('5 minutes');
		expect(life(['cache-control', 'no-store, max-age=300'])).to.equal('not kept');
		expect(life(['cache-control', 'no-cache'])).to.equal('asked for again each time');
		expect(life(['cache-control', 'max-age=0'])).to.equal('asked for again each time');
		expect(life(['expires', 'Thu, 26 Nov 2026 10:00:00 GMT'], ['date', 'Wed, 25 Nov 2026 10:00:00 GMT'])).to.equal(
			'1 day'
		);
		expect(life(['expires', '0'], ['date', 'Wed, 25 Nov 2026 10:00:00 GMT'])).to.equal('asked for again each time');
		expect(life(['cache-control', 's-maxage=600'])).to.equal('not said');
		expect(life()).to.equal('not said');
	});

	it('tells compressed from plain, and what gzip would save', () => {
		expect(compressionOf(with_([['content-encoding', 'br']])).encoding).to.equal('br');
		const plain = with_([], {
			mimeType: 'text/css',
			decodedBytes: 5000,
			body: { hash: 'x', bytes: 5000, gzipBytes: 1200 }
		});
		expect(compressionOf(plain)).to.deep.equal({ encoding: null, expected: true, wouldSave: 3800 });
		expect(compressionOf(with_([], { mimeType: 'image/jpeg', decodedBytes: 5000 })).expected).to.equal(false);
		expect(compressionOf(with_([], { mimeType: 'text/css', decodedBytes: 400 })).expected).to.equal(false);
	});

	it('hears caches on the way', () => {
		expect(servedFrom(with_([['cache-status', 'edge; hit']]))).to.equal('hit');
		expect(servedFrom(with_([['x-cache', 'MISS from edge']]))).to.equal('miss');
		expect(servedFrom(with_([['age', '12']]))).to.equal('hit');
		expect(servedFrom(with_([['age', '0']]))).to.equal(null);
	});
});

describe('main thread', () => {
	const script = (url: string, startMs: number, durationMs: number) => ({
		url,
		invoker: '',
		functionName: '',
		startMs,
		durationMs,
		layoutMs: 0
	});
	const evidence: Pick<LoadRecord, 'longTasks' | 'longFrames' | 'figures' | 'settledMs'> = {
		longTasks: [
			{ startMs: 1000, durationMs: 200 },
			{ startMs: 300, durationMs: 100 }
		],
		longFrames: [
			{
				startMs: 990,
				durationMs: 260,
				blockingMs: 150,
				scripts: [
					script('https://chat.test/a.js', 1000, 120),
					script('https://www.own.test/b.js', 1110, 60),
					script('', 1170, 10)
				]
			}
		],
		figures: { ...emptyRecord('https://own.test/', null, '', null).figures, fcp: 500 },
		settledMs: 5000
	};

	it('gives each moment of a task to one owner, and the rest to the browser', () => {
		const [task] = ownedTasks(evidence, 'own.test');
		expect(task!.blockingMs).to.equal(150);
		expect(task!.shares.map((share) => [share.owner.id, share.durationMs])).to.deep.equal([
			['chat.test', 120],
			['own.test', 50],
			['browser', 10],
			['browser', 20]
		]);
		expect(task!.shares.reduce((sum, share) => sum + share.durationMs, 0)).to.equal(200);
	});

	it('adds blocking time up by owner; tasks before FCP block nothing', () => {
		const times = timeByOwner(ownedTasks(evidence, 'own.test'));
		expect(times.map((time) => [time.owner.id, time.blockingMs])).to.deep.equal([
			['chat.test', 90],
			['own.test', 37.5],
			['browser', 22.5]
		]);
		expect(times.reduce((sum, time) => sum + time.durationMs, 0)).to.equal(300);
	});
});

describe('list of requests', () => {
	const requests = ownedRequests(
		[
			requestOf({ url: 'https://own.test/', type: 'document', wireBytes: 2000, endMs: 100 }),
			requestOf({
				url: 'https://own.test/site.css',
				type: 'stylesheet',
				renderBlocking: 'blocking',
				wireBytes: 900,
				unused: 300,
				endMs: 500
			}),
			requestOf({ url: 'https://chat.test/bell.js', type: 'script', wireBytes: 7000, unused: 5000, endMs: null }),
			requestOf({
				url: 'https://chat.test/late.json',
				type: 'fetch',
				wireBytes: null,
				during: 'nudge',
				endMs: 200,
				status: 500
			})
		],
		'own.test'
	);
	const numbers = (wish: Partial<typeof EVERYTHING>) =>
		listRequests(requests, { ...EVERYTHING, ...wish }).map((request) => request.number);

	it('is searched, filtered and ordered', () => {
		expect(numbers({})).to.deep.equal([1, 2, 3, 4]);
		expect(numbers({ search: 'BELL' })).to.deep.equal([3]);
		expect(numbers({ owner: 'chat.test' })).to.deep.equal([3, 4]);
		expect(numbers({ type: 'css' })).to.deep.equal([2]);
		expect(numbers({ special: 'blocking' })).to.deep.equal([2]);
		expect(numbers({ special: 'failed' })).to.deep.equal([3, 4]);
		expect(numbers({ special: 'unused', order: 'unused' })).to.deep.equal([3, 2]);
		expect(numbers({ special: 'late' })).to.deep.equal([4]);
		expect(numbers({ order: 'time' })).to.deep.equal([3, 2, 4, 1]);
		expect(numbers({ order: 'wire' })).to.deep.equal([3, 1, 2, 4]);
	});

	it('is listed with what a row shows, and of its headers those about delivery', () => {
		const whole = [
			requestOf({
				url: 'https://u@own.test:8443/a?b=1',
				status: 404,
				unused: 12,
				fromCache: true,
				responseHeaders: [
					['Cache-Control', 'no-store'],
					['server', 'x']
				],
				body: { hash: 'h', bytes: 1, gzipBytes: 2 }
			})
		];
		const [back] = listedRequests(ownedRequests(whole, 'own.test'));
		const { url, status, unused, fromCache, body, during, endMs } = whole[0]!;
		expect(back).to.deep.include({
			url,
			host: 'own.test:8443',
			status,
			unused,
			fromCache,
			body,
			during,
			endMs,
			responseHeaders: [['Cache-Control', 'no-store']],
			owner: ownerOf('own.test', 'own.test'),
			number: 1
		});
	});

	it('sums by kind and becomes a CSV with gaps for the unknown', () => {
		expect(sharesByKind(requests).map((share) => [share.kind, share.wireBytes])).to.deep.equal([
			['js', 7000],
			['html', 2000],
			['css', 900],
			['data', 0]
		]);
		const lines = requestsCsv(requests).trim().split('\r\n');
		expect(lines).to.have.length(5);
		expect(lines[4]).to.match(/^4,https:\/\/chat\.test\/late\.json,chat\.test,fetch,500,/);
		const head = lines[0]!.split(',');
		expect(lines[4]!.split(',')[head.indexOf('wire')]).to.equal('');
	});
});

describe('conditions', () => {
	const [phone] = BUILT_IN_CONDITIONS;

	it('add the place to the round trip and say what is unusual', () => {
		const far = { ...phone!, place: 'oceania', cache: 'repeat' as const, block: ['*://ads.test/*'] };
		expect(roundTripOf(far)).to.equal(390);
		expect(describeConditions(far)).to.match(
			/390 ms round trip.*from Oceania.*repeat visit; 1 request pattern blocked/
		);
	});

	it('keep their secrets out of records', () => {
		const secret = {
			...phone!,
			headers: [{ name: 'X', value: 'deep' }],
			authentication: { username: 'u', password: 'deeper' }
		};
		expect(JSON.stringify(withoutSecrets(secret))).to.not.match(/deep/);
	});

	it('are checked at the door, in words', () => {
		expect(parseConditions(phone).success).to.equal(true);
		const bad = parseConditions({
			...phone!,
			id: 'No Spaces',
			device: { ...phone!.device, width: 20 },
			capMs: 1,
			headers: [{ name: 'a b', value: '' }],
			place: 'moon'
		});
		expect(bad.issues!.map((issue) => issue.path!.map((part) => part.key).join('.'))).to.include.members([
			'id',
			'device.width',
			'place',
			'headers.0.name',
			'capMs'
		]);
		expect(parseConditions('phone').success).to.equal(false);
	});

	it('from before a field existed are completed', () => {
		const old = { ...phone!, place: undefined, cache: undefined };
		expect(completeConditions(JSON.parse(JSON.stringify(old)) as typeof phone & object)).to.include({
			place: 'near',
			cache: 'first'
		});
		const record = completeRecord({
			url: 'https://a.test/',
			startedAt: '2026-11-24T10:00:00.000Z',
			requests: [{ url: 'x' } as RequestRecord],
			page: { title: 'A' } as LoadRecord['page']
		});
		expect(record).to.deep.include({ steps: [], heldBack: null, source: 'lab' });
		expect(record.requests[0]).to.include({ during: 'load', body: null });
		expect(record.page).to.deep.include({ images: [], text: '' });
	});
});
