import { expect } from 'chai';
import { hostsSeenIn } from '$core/setups/hostsSeen';
import { attribute, NO_RECOGNITION, proposeComponents, recognise } from '$core/setups/recognition';
import { thirdPartyRegister, type HostSeen } from '$core/setups/register';
import { page, box } from '../../support/digests';
import { recordOf, requestOf } from '../../support/records';

const request = (url: string, more: object = {}) =>
	requestOf({ url, host: new URL(url).host, wireBytes: 1000, decodedBytes: 3000, ...more });
const component = (id: number, name: string, recognition: Partial<typeof NO_RECOGNITION>) => ({
	id,
	name,
	recognition: { ...NO_RECOGNITION, ...recognition }
});
const CHAT = component(1, 'Parlour Bell', { hosts: ['parlour-bell.test'] });
const CACHE = component(2, 'Larder', { paths: ['/plugins/larder/*'] });
const HOLDER = component(3, 'Hushbox', { markers: ['var hushbox='] });

describe('a component in a load', () => {
	it('is known by host and all below it, by path, and by what asked for it', () => {
		expect(recognise(request('https://parlour-bell.test/bell.js'), CHAT.recognition)).to.equal('own');
		expect(recognise(request('https://cdn.parlour-bell.test/x.js'), CHAT.recognition)).to.equal('own');
		expect(recognise(request('https://not-parlour-bell.test/x.js'), CHAT.recognition)).to.equal(null);
		expect(recognise(request('https://own.test/plugins/larder/a.css'), CACHE.recognition)).to.equal('own');
		const asked = request('https://faces.test/f.png', { initiatorChain: ['https://parlour-bell.test/bell.js'] });
		expect(recognise(asked, CHAT.recognition)).to.equal('initiated');
	});

	it('costs its requests, inline code and blocking; the rest is unattributed, and nothing counts twice', () => {
		const record = recordOf({
			requests: [
				request('https://own.test/', { type: 'document' }),
				request('https://own.test/plugins/larder/a.css'),
				request('https://parlour-bell.test/bell.js'),
				request('https://faces.test/f.png', { initiatorChain: ['https://parlour-bell.test/bell.js'] })
			],
			page: page('x', {
				inline: [
					{ kind: 'script', start: 'var hushbox=1', bytes: 700 },
					{ kind: 'style', start: 'body{}', bytes: 50 }
				]
			}),
			figures: { fcp: 100 },
			settledMs: 5000,
			longTasks: [{ startMs: 200, durationMs: 150 }],
			longFrames: [
				{
					startMs: 200,
					durationMs: 150,
					blockingMs: 100,
					scripts: [
						{
							url: 'https://parlour-bell.test/bell.js',
							invoker: '',
							functionName: '',
							startMs: 200,
							durationMs: 150,
							layoutMs: 0
						}
					]
				}
			]
		});
		const costs = attribute(record, [CHAT, CACHE, HOLDER], 'unattributed');
		expect(
			costs.map(({ name, requests, initiated, inlineBytes, blockingMs }) => [
				name,
				requests,
				initiated,
				inlineBytes,
				blockingMs
			])
		).to.deep.equal([
			['Parlour Bell', 2, 1, 0, 100],
			['Larder', 1, 0, 0, 0],
			['Hushbox', 0, 0, 700, 0],
			['unattributed', 1, 0, 50, 0]
		]);
		expect(costs.reduce((sum, { requests }) => sum + requests, 0)).to.equal(record.requests.length);
	});

	it('is proposed from addresses that nobody claims: hosts of others, folders of its own', () => {
		const requests = [
			request('https://own.test/', { type: 'document' }),
			request('https://own.test/assets/plugins/larder/a.css'),
			request('https://own.test/assets/plugins/larder/b.css', { wireBytes: 4000 }),
			request('https://own.test/css/site.css'),
			request('https://parlour-bell.test/bell.js')
		];
		const isOwn = (host: string) => host === 'own.test';
		const proposals = proposeComponents(requests, isOwn, [CHAT]);
		expect(proposals).to.deep.equal([
			{
				name: 'larder',
				recognition: { ...NO_RECOGNITION, paths: ['/assets/plugins/larder/'] },
				requests: 2,
				wireBytes: 5000,
				examples: ['https://own.test/assets/plugins/larder/a.css', 'https://own.test/assets/plugins/larder/b.css']
			}
		]);
		expect(proposeComponents(requests, isOwn, []).map(({ name }) => name)).to.include('parlour-bell.test');
	});
});

describe('hosts of others in a load', () => {
	const record = recordOf({
		url: 'https://own.test/',
		finalUrl: 'https://own.test/',
		requests: [
			request('https://own.test/', { type: 'document', startMs: 0, endMs: 300 }),
			request('https://own.test/a.js', { type: 'script', startMs: 300, endMs: 900 }),
			request('https://chat.test/c.js', {
				type: 'script',
				startMs: 400,
				endMs: 1500,
				initiatorChain: ['https://own.test/a.js']
			}),
			request('https://chat.test/f.png', {
				type: 'image',
				startMs: 1500,
				endMs: 1800,
				initiatorChain: ['https://chat.test/c.js']
			}),
			request('https://count.test/hit', { type: 'ping', startMs: 500, endMs: 600 })
		],
		page: page('x', {
			images: [
				{
					url: 'https://chat.test/f.png',
					selector: 'img',
					naturalWidth: 9,
					naturalHeight: 9,
					shownWidth: 40,
					shownHeight: 40,
					lazy: false,
					roomReserved: true,
					inView: true
				}
			]
		}),
		lcp: { atMs: 1, size: 1, selector: '', tag: '', url: null, box: box(1, 1), text: null }
	});

	it('are counted with their tail, who asked for them, and whether something of them is seen', () => {
		expect(hostsSeenIn(record, [])).to.deep.equal([
			{ host: 'chat.test', requests: 2, wireBytes: 2000, blockingMs: 0, tailMs: 900, askedBy: 'site', isSeen: true },
			{ host: 'count.test', requests: 1, wireBytes: 1000, blockingMs: 0, tailMs: 0, askedBy: 'page', isSeen: false }
		]);
		expect(hostsSeenIn(record, ['chat.test']).map(({ host }) => host)).to.deep.equal(['count.test']);
	});
});

describe('the register of third parties', () => {
	const NOW = '2026-11-27T12:00:00.000Z';
	const seen = (host: string, load: number, more: Partial<HostSeen> = {}): HostSeen => ({
		host,
		load,
		page: 'https://own.test/',
		at: '2026-11-26T12:00:00.000Z',
		device: 'phone',
		requests: 1,
		wireBytes: 100 * load,
		blockingMs: 0,
		tailMs: 0,
		askedBy: 'page',
		isSeen: true,
		...more
	});

	it('has a line a host, with medians, pages and who asked', () => {
		const [line] = thirdPartyRegister(
			[seen('a.test', 1), seen('a.test', 2, { page: 'https://own.test/b', askedBy: 'tags.test' }), seen('a.test', 9)],
			[{ host: 'a.test', owner: 'A Ltd', purpose: 'chat', confirmedAt: '2026-11-01T00:00:00.000Z' }],
			NOW
		);
		expect(line).to.include({ host: 'a.test', owner: 'A Ltd', pages: 2, loads: 3, wireBytes: 200 });
		expect([line!.askedBy, line!.reasons]).to.deep.equal([['page', 'tags.test'], []]);
	});

	it('tells what a host costs by device: a phone that is blocked is not averaged away', () => {
		const chat = [0, 0, 0].map((_, i) => seen('chat.test', i + 1, { device: 'desktop' }));
		const onPhones = [390, 400, 410].map((blockingMs, i) => seen('chat.test', i + 4, { blockingMs }));
		const [line] = thirdPartyRegister([...chat, ...onPhones], [], NOW);
		expect(line!.blockingMs).to.equal(400);
		expect(line!.devices.map(({ device, loads, blockingMs }) => [device, loads, blockingMs])).to.deep.equal([
			['phone', 3, 400],
			['desktop', 3, 0]
		]);
	});

	it('asks about hosts that nobody confirmed, that were confirmed long ago, or of which nothing is seen', () => {
		const lines = thirdPartyRegister(
			[seen('never.test', 3), seen('long.test', 2), seen('unseen.test', 1, { isSeen: false })],
			[
				{ host: 'long.test', owner: '', purpose: '', confirmedAt: '2026-04-01T00:00:00.000Z' },
				{ host: 'unseen.test', owner: '', purpose: '', confirmedAt: '2026-11-01T00:00:00.000Z' }
			],
			NOW
		);
		expect(lines.map(({ host, reasons }) => [host, reasons])).to.deep.equal([
			['never.test', ['never-confirmed']],
			['long.test', ['long-unconfirmed']],
			['unseen.test', ['not-seen']]
		]);
	});
});
