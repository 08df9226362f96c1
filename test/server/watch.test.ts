import { expect } from 'chai';
import { SMTPServer } from 'smtp-server';
import { createHmac } from 'node:crypto';
import { createServer, type IncomingMessage } from 'node:http';
import type { AddressInfo } from 'node:net';
import * as v from 'valibot';
import type { MetricId } from '$core/metrics/catalogue';
import { StandingInput, WatchInput } from '$core/watch/input';
import { failedLoad } from '$core/load/failedLoad';
import type { MeasuredLoad } from '$core/load/record';
import { pastePages } from '../../src/lib/server/pages/commands';
import { listPages } from '../../src/lib/server/pages/queries';
import { requestedOrder } from '../../src/lib/server/loads/requested';
import { deriveRanks, findRanks } from '../../src/lib/server/standings/ranks';
import { standingView } from '../../src/lib/server/standings/view';
import { cancelReading, readingProgress, requestReading, storeReadingLoad } from '../../src/lib/server/watch/blocks';
import { changeWatch, createWatch, deleteWatch, setWatchState } from '../../src/lib/server/watch/commands';
import { deliverDue, hookSecret, signatureOf } from '../../src/lib/server/watch/deliver';
import { requestDueReadings } from '../../src/lib/server/watch/due';
import { deriveHistory, findHistory } from '../../src/lib/server/watch/history';
import { dueDeliveries, unreadNotices } from '../../src/lib/server/watch/notices';
import { watchedPageView } from '../../src/lib/server/watch/pageView';
import { figuresOfReading, openReading, readingsOfWatch } from '../../src/lib/server/watch/readings';
import { watchList, watchRows } from '../../src/lib/server/watch/view';
import { existingWatch, findWatch, pagesOfWatch } from '../../src/lib/server/watch/watches';
import { finishJob, leaseJob } from '../../src/lib/server/work/jobs';
import { insertSite } from '../../src/lib/server/clients/sites';
import { clientWithSite, siteInput } from '../support/clients';
import { measuredLoad, refusal, useQueue } from '../support/queue';

const SILENT = { info: () => undefined, warn: () => undefined, error: () => undefined };
type Known = NonNullable<Parameters<typeof measuredLoad>[0]>;

describe('watches', () => {
	const q = useQueue();

	function furnish(extra: Partial<v.InferInput<typeof WatchInput>> = {}) {
		const { db } = q.now;
		const { clientId, siteId } = clientWithSite(db);
		pastePages(db, siteId, 'https://own.test/\nhttps://own.test/booking');
		const pages = listPages(db, { siteId }, 10).map(({ id }) => id);
		const input = v.parse(WatchInput, { clientId, name: 'Bookings', pages, conditions: ['desktop'], ...extra });
		const id = createWatch(db, { ...input, kind: 'watch' });
		return { db, clientId, siteId, pages, input, id };
	}

	/** Do every job of the open block, as the lab does. @param of what each load shows @returns addresses in order */
	function work(of: (url: string, nth: number) => Known | 'failed' = () => ({}), most = Infinity): string[] {
		const { db } = q.now;
		const urls: string[] = [];
		for (let nth = 0; nth < most; nth++) {
			const job = leaseJob(db, 'lab');
			if (!job) break;
			if (job.kind !== 'load') {
				finishJob(db, job, 'lab');
				continue;
			}
			const { version, ...order } = requestedOrder(db, job);
			const shown = of(order.url, nth);
			const measured: MeasuredLoad =
				shown === 'failed'
					? {
							record: failedLoad(order, new Date(), { code: 'http-status', message: 'It answered 404.', advice: '' }),
							frames: [],
							picture: null,
							stepPicture: null
						}
					: measuredLoad({ url: order.url, finalUrl: order.url, ...shown });
			db.transaction(() => {
				finishJob(db, job, 'lab');
				storeReadingLoad(db, job, version, measured);
			})();
			urls.push(order.url);
		}
		return urls;
	}

	const read = (id: number, of?: (url: string, nth: number) => Known | 'failed') => {
		requestReading(q.now.db, existingWatch(q.now.db, id, 'watch'), { why: 'demand' });
		return work(of);
	};

	/** So many readings of a page that takes its time, with a little noise. */
	function readMany(id: number, count: number, lcp: number, from = 0): void {
		for (let i = 0; i < count; i++)
			read(id, (url, nth) => ({
				figures: { lcp: (url.includes('/control/') ? 600 : lcp) + ((nth * 37 + (from + i) * 11) % 40) }
			}));
	}

	it('reads in rounds: every page once and the control twice in each, in an order by chance', () => {
		const { id, db } = furnish();
		const urls = read(id);
		expect(urls).to.have.length(5 * 4);
		const rounds = Array.from({ length: 5 }, (_, i) => urls.slice(i * 4, i * 4 + 4));
		for (const round of rounds) {
			expect(round.filter((url) => url.includes('/control/'))).to.have.length(2);
			expect(new Set(round).size).to.equal(3);
		}
		expect(new Set(rounds.map((round) => round.join())).size).to.be.above(1);
		expect(openReading(db, id)).to.equal(null);
		const [reading] = readingsOfWatch(db, id);
		const figures = figuresOfReading(db, reading!.id);
		expect(figures.map(({ rounds: own }) => own)).to.deep.include.members([
			[1, 2, 3, 4, 5],
			[1, 1, 2, 2, 3, 3, 4, 4, 5, 5]
		]);
	});

	it('loads what failed or was disturbed again in its block, and counts the calm load', () => {
		const { id, db } = furnish();
		let isFirst = true;
		read(id, (url) => {
			if (!url.endsWith('/booking') || !isFirst) return {};
			isFirst = false;
			return 'failed';
		});
		const booking = pagesOfWatch(db, id).find(({ url }) => url.endsWith('/booking'))!;
		const figures = figuresOfReading(db, readingsOfWatch(db, id)[0]!.id).find(
			({ watchedPageId }) => watchedPageId === booking.id
		)!;
		expect(figures.rounds).to.deep.equal([1, 2, 3, 4, 5]);
		expect(figures.trouble!.failed).to.deep.equal([{ code: 'http-status', status: null, loads: 1 }]);
	});

	it('gives a page that is down up after some tries, and says so in the list', () => {
		const { id, db, clientId } = furnish();
		const urls = read(id, (url) => (url.endsWith('/booking') ? 'failed' : {}));
		expect(urls.filter((url) => url.endsWith('/booking')).length).to.be.at.most(5 + 5);
		deriveHistory(db, id);
		const row = watchList(db, clientId, 'month').find(({ url }) => url.endsWith('/booking'))!;
		expect(row.state).to.equal('trouble');
		expect(row.conditions[0]!.trouble).to.include('failed');
		expect(unreadNotices(db, null).map(({ body }) => body.kind)).to.deep.equal(['trouble']);
		// As long as nothing changes it is told once.
		read(id, (url) => (url.endsWith('/booking') ? 'failed' : {}));
		deriveHistory(db, id);
		expect(unreadNotices(db, null)).to.have.length(1);
	});

	it('loads a page that may have moved more often in the same reading, the control with it', () => {
		const { id, db } = furnish({ metrics: ['lcp'] });
		readMany(id, 6, 2000);
		const urls = read(id, (url, nth) => ({
			figures: { lcp: (url.endsWith('/booking') ? 2600 : 2000) + ((nth * 37) % 40) }
		}));
		expect(urls.filter((url) => url.endsWith('/booking'))).to.have.length(20);
		expect(urls.filter((url) => url === 'https://own.test/')).to.have.length(5);
		expect(readingsOfWatch(db, id).at(-1)!.extended).to.have.length(1);
	});

	it('calls a change, tells it once on the Desk and by mail, and shows it on the page’s history', () => {
		const { id, db, clientId } = furnish({ metrics: ['lcp'], notices: { mail: ['ines@own.test'] } });
		readMany(id, 9, 2000);
		readMany(id, 3, 3000, 20);
		deriveHistory(db, id);
		const { changes } = findHistory(db, id)!;
		expect(changes.map(({ metric, verdict }) => [metric, verdict])).to.deep.equal([
			['lcp', 'worse'],
			['lcp', 'worse']
		]);
		expect(unreadNotices(db, clientId)).to.have.length(2);
		expect(dueDeliveries(db, '2100-01-01')).to.have.length(2);
		deriveHistory(db, id);
		expect(dueDeliveries(db, '2100-01-01')).to.have.length(2);
		const booking = pagesOfWatch(db, id).find(({ url }) => url.endsWith('/booking'))!;
		const view = watchedPageView(db, id, booking.id);
		expect(view.conditions[0]!.timelines[0]!.points).to.have.length(12);
		expect(view.conditions[0]!.changes[0]!.title).to.equal('Largest paint of /booking (desktop) got worse');
		expect(watchList(db, clientId, 'start').every(({ state }) => state === 'changed')).to.equal(true);
	});

	it('reads once after a week off, and says how many readings never came', () => {
		const { id, db } = furnish({ schedule: { every: 'day' } });
		const due = new Date(Date.parse(findWatch(db, id)!.nextAt!) + 7 * 86_400_000);
		expect(requestDueReadings(db, due)).to.equal(1);
		expect(requestDueReadings(db, due)).to.equal(0);
		expect(readingsOfWatch(db, id)).to.have.length(1);
		expect(openReading(db, id)!.missed).to.be.within(6, 7);
		expect(Date.parse(findWatch(db, id)!.nextAt!)).to.be.above(due.getTime());
	});

	it('ends early when it is stopped, keeps what was loaded, and refuses two blocks at once', () => {
		const { id, db } = furnish();
		const watch = existingWatch(db, id, 'watch');
		requestReading(db, watch, { why: 'demand' });
		expect(refusal(() => requestReading(db, watch, { why: 'demand' }))).to.include('under way');
		work(() => ({}), 6);
		expect(readingProgress(db, id)).to.deep.equal({ done: 6, total: 20 });
		cancelReading(db, watch);
		expect(readingsOfWatch(db, id)[0]!.state).to.equal('done');
		expect(figuresOfReading(db, readingsOfWatch(db, id)[0]!.id).length).to.be.above(0);
		requestReading(db, watch, { why: 'demand' });
		cancelReading(db, watch);
		expect(readingsOfWatch(db, id)).to.have.length(1);
	});

	it('keeps the history of a page that is taken out, and goes on with it when it comes back', () => {
		const { id, db, input, pages } = furnish();
		read(id);
		changeWatch(db, id, { ...input, kind: 'watch', pages: [pages[0]!] });
		expect(pagesOfWatch(db, id).filter(({ endedAt, role }) => !endedAt && role === 'page')).to.have.length(1);
		expect(watchRows(db, id, null).rows).to.have.length(20);
		changeWatch(db, id, { ...input, kind: 'watch' });
		expect(pagesOfWatch(db, id).filter(({ role }) => role === 'page')).to.have.length(2);
	});

	it('keeps all loads of the newest two readings, and of older ones those that stand for them', () => {
		const { id } = furnish();
		for (let i = 0; i < 4; i++) read(id);
		// Two whole blocks of 20, and two of which the middle load of two pages and the control is left.
		expect(q.now.value('SELECT count(*) FROM load')).to.equal(20 + 20 + 3 + 3);
	});

	it('is deleted with its readings; paused it reads nothing', () => {
		const { id, db } = furnish();
		read(id);
		setWatchState(db, id, 'watch', 'paused');
		expect(findWatch(db, id)!.nextAt).to.equal(null);
		expect(requestDueReadings(db, new Date('2100-01-01'))).to.equal(0);
		deleteWatch(db, id, 'watch');
		expect(q.now.value('SELECT count(*) FROM reading_figure')).to.equal(0);
		expect(q.now.value("SELECT count(*) FROM job WHERE status = 'queued' AND kind = 'load'")).to.equal(0);
	});

	it('refuses pages of another client, unknown conditions and a page that is not there, in words', () => {
		const { db, input, clientId } = furnish();
		const other = clientWithSite(db, 'other.test', 'Other');
		const make = (extra: object) => refusal(() => createWatch(db, { ...input, kind: 'watch', ...extra }));
		expect(make({ clientId: other.clientId })).to.include('belongs to another client');
		expect(make({ conditions: ['moon'] })).to.include('Unknown conditions “moon”');
		expect(make({ clientId, pages: [999] })).to.include('There is no page 999');
	});

	it('ranks a page with those of competitors after a run, with what was down beside them', () => {
		const { db, clientId, pages } = furnish();
		const rival = insertSite(db, clientId, siteInput('rival.test', { role: 'competitor' }));
		pastePages(db, rival, 'https://rival.test/booking\nhttps://rival.test/down');
		const others = listPages(db, { siteId: rival }, 10).map((page) => page.id);
		const input = v.parse(StandingInput, {
			clientId,
			name: 'Booking',
			pages: [pages[0], ...others],
			conditions: ['desktop'],
			loads: 8
		});
		const id = createWatch(db, { ...input, kind: 'standing' });
		requestReading(db, existingWatch(db, id, 'standing'), { why: 'demand' });
		work((url, nth) => {
			if (url.endsWith('/down')) return 'failed';
			const lcp: Partial<Record<MetricId, number>> = { lcp: (url.includes('rival') ? 1500 : 2500) + ((nth * 37) % 40) };
			return { figures: lcp, marks: [{ name: 'hero', atMs: url.includes('rival') ? 900 : 300, durationMs: null }] };
		});
		deriveRanks(db, id);
		const [run] = findRanks(db, id)!.runs;
		expect(run!.ranks.lcp!.map(({ from, to }) => [from, to])).to.deep.equal([
			[2, 2],
			[1, 1],
			[null, null]
		]);
		expect(run!.ranks['timing:hero']!.map(({ from }) => from)).to.deep.equal([1, 2, null]);
		const view = standingView(db, id);
		expect(view.conditions[0]!.rows.find(({ metric }) => metric === 'lcp')!.cells[0]!.words).to.equal('second of two');
		expect(view.conditions[0]!.troubles).to.have.length(1);
	});

	describe('notices to the outside', () => {
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
});
