import { expect } from 'chai';
import { BUILT_IN_CONDITIONS } from '$core/load/conditions/conditions';
import type { LoadRecord } from '$core/load/record/record';
import { MOST_WARM_LOADS, warmConditions, warmUp } from '../../src/lab/browser/warm';
import { Lab } from '../../src/lab/lab';
import { rule, serve, UNWATCHED, until } from '../support/world';

const DESKTOP = BUILT_IN_CONDITIONS.find(({ id }) => id === 'desktop')!;

describe('a fresh browser', function () {
	this.timeout(120_000);
	const painted = (fcp: number | null) => ({ status: 'ok', figures: { fcp } }) as unknown as LoadRecord;
	async function loadsUntilWarm(...paints: (number | null)[]): Promise<number> {
		let loads = 0;
		await warmUp(() => Promise.resolve(painted(paints[loads++]!)));
		return loads;
	}

	it('loads the control page until two loads in a row agree, at most three times', async () => {
		expect(await loadsUntilWarm(400, 350, 349)).to.equal(3);
		expect(await loadsUntilWarm(352, 350)).to.equal(2);
		expect(await loadsUntilWarm(400, 300, 200, 100)).to.equal(MOST_WARM_LOADS);
		expect(await loadsUntilWarm(null)).to.equal(1);
	});

	it('takes nothing to it but the device and the line', () => {
		const secret = { ...DESKTOP, headers: [{ name: 'x-key', value: 'secret' }], cookies: [{ name: 'a', value: 'b' }] };
		const warm = warmConditions({ ...secret, authentication: { username: 'u', password: 'p' }, block: ['*.js'] });
		expect(warm).to.deep.include({ headers: [], cookies: [], authentication: null, block: [], hostMap: '' });
		expect(warm).to.deep.include({ device: DESKTOP.device, network: DESKTOP.network });
	});

	it('is warmed before its first load, and renewed between blocks only', async () => {
		const seen: string[] = [];
		const server = await serve((request, response) => {
			const { host } = request.headers;
			if (!request.url?.includes('favicon')) seen.push(host!.startsWith('warm') ? 'warm' : 'page');
			response.writeHead(200, { 'content-type': 'text/html' }).end('<!doctype html><title>x</title><h1>Boats</h1>');
		});
		const lab = new Lab({
			hostMap: [rule('*.test', server.port)],
			calm: UNWATCHED,
			warmUrl: 'http://warm.test/',
			loadsPerBrowser: 2
		});
		const load = async (block: string) => {
			const { record } = await lab.measure({ url: 'http://page.test/', conditions: DESKTOP, steps: [], block });
			expect(record.status).to.equal('ok');
		};
		try {
			await load('trial:1/0/1');
			const first = seen.indexOf('page');
			expect(first).to.be.within(2, MOST_WARM_LOADS);
			expect(seen.slice(0, first).every((item) => item === 'warm')).to.equal(true);
			// The warm loads were two at least: the browser is old by then, and the round goes on in it.
			await load('trial:1/0/1');
			await load('trial:1/0/1');
			expect(seen.slice(first)).to.deep.equal(['page', 'page', 'page']);
			await load('trial:1/0/2');
			expect(seen.slice(first + 3).filter((item) => item === 'warm').length).to.be.within(2, MOST_WARM_LOADS);
		} finally {
			await lab.close();
			server.close();
		}
	});

	it('is started for nobody any more once the lab was told to end while it warmed', async () => {
		let seen = 0;
		const server = await serve((request, response) => {
			if (request.url === '/') seen++;
			// Slow enough to be ended in the middle.
			setTimeout(() => response.writeHead(200, { 'content-type': 'text/html' }).end('<h1>Boats</h1>'), 1500);
		});
		const lab = new Lab({ hostMap: [rule('*.test', server.port)], calm: UNWATCHED, warmUrl: 'http://warm.test/' });
		try {
			const measured = lab.measure({ url: 'http://page.test/', conditions: DESKTOP, steps: [] });
			await until(() => Promise.resolve(seen === 1), 30_000, 'the warm load');
			await lab.abandon();
			const { record } = await measured;
			expect(record.failure?.code).to.equal('browser-killed');
			expect(seen).to.equal(1);
			expect(lab.sandboxed).to.equal(null);
		} finally {
			await lab.close();
			server.close();
		}
	});
});
