import { expect } from 'chai';
import { SMTPServer } from 'smtp-server';
import { createHmac } from 'node:crypto';
import { createServer, type IncomingMessage } from 'node:http';
import type { AddressInfo } from 'node:net';
import { deliverDue, hookSecret, signatureOf } from '../../src/lib/server/rooms/watch/deliver';
import { deriveHistory } from '../../src/lib/server/rooms/watch/history';
import { useQueue } from '../support/queue';
import { useWatches } from '../support/watches';

const SILENT = { info: () => undefined, warn: () => undefined, error: () => undefined };

describe('notices of watches to the outside', () => {
	const q = useQueue();
	const { furnish, readMany } = useWatches(() => q.now.db);
	const settings = { publicUrl: 'http://zafra.test', outward: { hostMap: [], trustedKeys: [] }, withinMs: 300 };
	const noMail = { server: '', from: 'zafra@own.test' };

	/** A change that waits to be told to one target. */
	function waiting(notices: { mail?: string[]; hook?: string | null }) {
		const made = furnish({ metrics: ['lcp'], notices });
		readMany(made.id, 9, 2000);
		readMany(made.id, 3, 3000, 20);
		deriveHistory(made.db, made.id);
		// One is enough.
		made.db.exec('DELETE FROM notice_delivery WHERE notice_id <> (SELECT min(notice_id) FROM notice_delivery)');
		return made;
	}

	const deliveryOf = () =>
		q.now.db.prepare('SELECT state, tries, problem FROM notice_delivery').get() as {
			state: string;
			tries: number;
			problem: string | null;
		};

	async function mailbox(refuses: boolean) {
		const letters: string[] = [];
		const server = new SMTPServer({
			authOptional: true,
			disabledCommands: ['STARTTLS', 'AUTH'],
			onRcptTo: (_address, _session, done) =>
				done(refuses ? Object.assign(new Error('No such mailbox'), { responseCode: 550 }) : null),
			onData(stream, _session, done) {
				let text = '';
				stream.on('data', (chunk: Buffer) => (text += chunk.toString()));
				stream.on('end', () => {
					letters.push(text);
					done();
				});
			}
		});
		await new Promise<void>((ready) => server.listen(0, '127.0.0.1', ready));
		const { port } = server.server.address() as AddressInfo;
		return { letters, url: `smtp://127.0.0.1:${port}`, close: () => new Promise<void>((done) => server.close(done)) };
	}

	it('mails what changed, since when, how sure and why', async () => {
		const { db } = waiting({ mail: ['ines@own.test'] });
		const box = await mailbox(false);
		expect(await deliverDue(db, { ...settings, mail: { server: box.url, from: 'zafra@own.test' } }, SILENT)).to.equal(
			1
		);
		await box.close();
		expect(box.letters[0]).to.include('Subject: Zafra: Largest paint of /');
		const text = box.letters[0]!.replace(/=\r\n/g, '');
		expect(text).to.include('got worse, between ').and.to.include('http://zafra.test/watch/');
		expect(text).to.match(/Largest Contentful Paint: .*slower.*: 3\.0.*against 2\.0.*more \(between/);
		expect(text).to.include('at most 5 % of quarters').and.to.include('show no cause');
		expect(deliveryOf()).to.include({ state: 'sent', tries: 1 });
	});

	it('gives a mailbox that refuses up and says so; a server that is down is tried again', async () => {
		const { db } = waiting({ mail: ['nobody@own.test'] });
		const down = { server: 'smtp://127.0.0.1:1', from: 'zafra@own.test' };
		await deliverDue(db, { ...settings, mail: down }, SILENT);
		expect(deliveryOf()).to.include({ state: 'waiting', tries: 1 });
		db.exec("UPDATE notice_delivery SET next_at = '2000-01-01'");
		const box = await mailbox(true);
		await deliverDue(db, { ...settings, mail: { server: box.url, from: 'zafra@own.test' } }, SILENT);
		await box.close();
		expect(deliveryOf().state).to.equal('given-up');
		expect(deliveryOf().problem).to.include('No such mailbox');
	});

	async function receiver(answer: (request: IncomingMessage, body: string) => number | null) {
		const server = createServer((request, response) => {
			let body = '';
			request.on('data', (chunk: Buffer) => (body += chunk.toString()));
			request.on('end', () => {
				const status = answer(request, body);
				if (status === null) return;
				if (status === 302) response.setHeader('location', 'http://127.0.0.1:1/inside');
				response.writeHead(status).end();
			});
		});
		await new Promise<void>((ready) => server.listen(0, '127.0.0.1', ready));
		const { port } = server.address() as AddressInfo;
		const hostMap = [{ pattern: 'hook.test', address: '127.0.0.1', port, tlsPort: null }];
		return {
			outward: { hostMap, trustedKeys: [] },
			close() {
				server.closeAllConnections();
				server.close();
			}
		};
	}

	it('posts to a webhook, signed so that its receiver can check it (HMAC, RFC 2104)', async () => {
		const { db } = waiting({ hook: 'http://hook.test/zafra' });
		let isGood = false;
		const hook = await receiver((request, body) => {
			const moment = String(request.headers['x-zafra-moment']);
			isGood = request.headers['x-zafra-signature'] === signatureOf(hookSecret(db), moment, body);
			expect(JSON.parse(body)).to.include({ kind: 'change', condition: 'desktop' });
			return 204;
		});
		await deliverDue(db, { ...settings, mail: noMail, outward: hook.outward }, SILENT);
		hook.close();
		expect(isGood).to.equal(true);
		expect(deliveryOf().state).to.equal('sent');
	});

	it('signs with HMAC and SHA-256 (RFC 4231, test case 2)', () => {
		// Key "Jefe", data "what do ya want for nothing?": the moment before its dot would change the data.
		const data = 'what do ya want for nothing?';
		const expected = '5bdcc146bf60754e6a042426089575c75a003f089d2739839dec58b964ec3843';
		expect(createHmac('sha256', 'Jefe').update(data).digest('hex')).to.equal(expected);
		const own = createHmac('sha256', 'Jefe').update(`2026.${data}`).digest('hex');
		expect(signatureOf('Jefe', '2026', data)).to.equal(own);
	});

	it('tries a webhook again that fails or does not answer, and asks none that leads elsewhere or inside', async () => {
		const { db } = waiting({ hook: 'http://hook.test/zafra' });
		const answers: (number | null)[] = [500, null, 302];
		const hook = await receiver(() => answers.shift()!);
		const again = () => {
			db.exec("UPDATE notice_delivery SET next_at = '2000-01-01'");
			return deliverDue(db, { ...settings, mail: noMail, outward: hook.outward }, SILENT);
		};
		await again();
		expect(deliveryOf()).to.deep.include({
			state: 'waiting',
			tries: 1,
			problem: 'The address answered with status 500.'
		});
		await again();
		expect(deliveryOf()).to.deep.include({
			state: 'waiting',
			tries: 2,
			problem: 'hook.test did not answer in time.'
		});
		await again();
		hook.close();
		expect(deliveryOf().state).to.equal('given-up');
		expect(deliveryOf().problem).to.include('leads elsewhere');
		db.exec("UPDATE notice_delivery SET state = 'waiting', target = 'hook:http://127.0.0.1:9/'");
		await again();
		expect(deliveryOf().problem).to.include('private network');
	});
});
