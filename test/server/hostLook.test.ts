/** Looking at hosts of the simulated web: its resolver and its register stand in for those outside. */
import { expect } from 'chai';
import { addressOf, startResolver } from '../../demo-web/special/resolver';
import { lookAtHost } from '../../src/lib/server/base/hostLook';
import type { Outward } from '../../src/lib/server/base/outward';
import { hostLookOf, hostLookView, lookAtSite, requestHostLook } from '../../src/lib/server/rooms/pages/hostLook';
import { leaseJob } from '../../src/lib/server/base/queue/jobs';
import { clientWithSite } from '../support/clients';
import { refusal, useQueue } from '../support/queue';
import { freePort, startDemoWeb, type RunningWorld } from '../support/world';

describe('looking at a host', function () {
	this.timeout(30_000);
	const q = useQueue();
	let web: RunningWorld;
	let resolver: Awaited<ReturnType<typeof startResolver>>;
	let outward: Outward;
	const settings = () => ({
		resolvers: [{ name: 'the simulated web', address: `127.0.0.1:${resolver.port}` }],
		rdap: 'https://address-book.test/rdap'
	});
	before(async () => {
		web = await startDemoWeb();
		resolver = await startResolver(0);
		outward = { hostMap: web.rules, trustedKeys: [web.keyHash] };
	});
	after(() => {
		web.close();
		resolver.close();
	});

	it('resolves, connects, shakes hands and names the network', async () => {
		const look = await lookAtHost({ host: 'puffin-ferries.test', isTls: true }, settings(), outward);
		const [resolved] = look.resolved;
		expect(resolved!.addresses).to.deep.equal([addressOf('puffin-ferries.test')]);
		// The stand-in takes its time for a name that it does not know yet, as the shaped look-up of this host does.
		expect(resolved!.firstMs).to.be.at.least(44);
		expect(resolved!.againMs).to.be.below(resolved!.firstMs!);
		expect(look).to.include({ problem: null, address: '127.0.0.1', isMapped: true, tlsVersion: 'TLSv1.3' });
		expect([look.connectMs.length, look.tlsMs.length]).to.deep.equal([3, 3]);
		expect(look.owner).to.have.all.keys('network', 'organisation', 'country');
		expect(look.ownerProblem).to.equal(null);
	});

	it('says of a resolver that does not answer, of a name that nobody knows, and of a register that is not there', async () => {
		const silent = { name: 'silent', address: `127.0.0.1:${await freePort()}` };
		const look = await lookAtHost(
			{ host: 'nowhere.example', isTls: true },
			{ resolvers: [silent, ...settings().resolvers], rdap: '' },
			outward
		);
		expect(look.resolved[0]!.problem).to.match(/^it did not answer/);
		expect(look.resolved[1]!.problem).to.equal('it does not know the host');
		expect(look).to.include({ problem: 'no resolver knows an address', owner: null, connectMs: look.connectMs });
		const noRegister = { ...settings(), rdap: 'https://gone.test/rdap' };
		const other = await lookAtHost({ host: 'skerry-line.test', isTls: true }, noRegister, outward);
		expect(other.ownerProblem).to.match(/the register (does not know the address|did not answer)/);
	});

	it('connects to no private address that the operator does not map', async () => {
		const unmapped = { ...outward, hostMap: [] };
		const look = await lookAtHost({ host: 'localhost', isTls: false }, { resolvers: [], rdap: '' }, unmapped);
		expect(look.connectMs).to.deep.equal([]);
		expect(look.problem).to.match(/private|no resolver/);
	});

	it('is a job of the lab, kept beside the site and shown with its loads', async () => {
		const { siteId } = clientWithSite(q.now.db, 'skerry-line.test');
		requestHostLook(q.now.db, siteId);
		expect(refusal(() => requestHostLook(q.now.db, siteId))).to.match(/^409/);
		expect(leaseJob(q.now.db, 'me')).to.deep.include({ kind: 'gather', order: { what: 'host-look' } });
		expect(hostLookOf(q.now.db, 'skerry-line.test')).to.equal(null);
		await lookAtSite(q.now.db, siteId, {
			settings: settings(),
			outward,
			persist: <Result>(write: () => Result) => Promise.resolve(write())
		});
		expect(hostLookView(q.now.db, siteId)).to.include({ askedAt: null, problem: null });
		expect(hostLookOf(q.now.db, 'skerry-line.test')!.host).to.equal('skerry-line.test');
	});
});
