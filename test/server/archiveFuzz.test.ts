import Database from 'better-sqlite3';
import { expect } from 'chai';
import { join } from 'node:path';
import { zipSync } from 'fflate';
import { mutated, slim, type Files } from '../support/mutations';
import { startApp, type TestApp } from '../support/app';

/** A sample here; the whole with `npm run test:long`. */
const CASES = process.env.ZAFRA_TEST_LONG ? 2000 : 20;
const SEED = 20261130;

describe('archives of clients, changed at random', function () {
	this.timeout(CASES * 10_000);
	let app: TestApp;
	let files: Files;

	before(async () => {
		app = await startApp({ demo: true, environment: { ZAFRA_RUNNER: 'off' } });
		const [id] = numbers("SELECT id FROM client WHERE name = 'Skerry Line'");
		const packed = await (await fetch(`${app.url}/api/clients/${id}/export`)).arrayBuffer();
		files = slim(new Uint8Array(packed), 6);
	});
	after(() => app.end());

	async function take(packed: Uint8Array): Promise<{ status: number; id: number; words: string }> {
		const answer = await fetch(`${app.url}/api/clients/import`, {
			method: 'POST',
			headers: { 'content-type': 'application/zip', connection: 'close' },
			body: packed as Uint8Array<ArrayBuffer>
		});
		const body = (await answer.json()) as { id: number; error?: { message: string } };
		return { status: answer.status, id: body.id, words: body.error?.message ?? '' };
	}

	function numbers(query: string): number[] {
		const db = new Database(join(app.folder, 'zafra.db'), { readonly: true });
		try {
			return db.prepare(query).pluck().all() as number[];
		} finally {
			db.close();
		}
	}

	/** Every screen on which something of the client stands. */
	function pagesOf(id: number): string[] {
		const of = (table: string, pages: (own: number) => string[]) =>
			numbers(`SELECT id FROM ${table} WHERE client_id = ${id} ORDER BY id LIMIT 4`).flatMap(pages);
		const trials = `trial_id IN (SELECT id FROM trial WHERE client_id = ${id})`;
		const loads = numbers(`SELECT id FROM load WHERE ${trials} OR client_id = ${id} ORDER BY id LIMIT 3`);
		return [
			...['/', '/clients', '/trials', '/loads', '/watch', '/standings', '/field', '/field/visits', '/reports'],
			...['/search?q=page', '/workshop', '/workshop/components'],
			...[`/clients/${id}`, `/clients/${id}/change`, `/api/clients/${id}/export`, `/api/trials?client=${id}`],
			...of('trial', (own) => [`/trials/${own}`, `/api/trials/${own}`, `/api/trials/${own}/loads.csv`]),
			...loads.flatMap((own) => [`/loads/${own}`, `/api/loads/${own}/har`]),
			...of('watch', (own) => [`/watch/${own}`, `/standings/${own}`]),
			...of('site', (own) => [`/field?site=${own}`, `/pages?site=${own}`])
		];
	}

	it('are refused whole in words, or every page answers', async () => {
		const plain = await take(zipSync(files));
		expect(plain.status, plain.words).to.equal(201);
		let taken = 0;
		for (let n = 0; n < CASES; n++) {
			const seed = SEED + n;
			const { status, id, words } = await take(mutated(files, seed));
			expect(status, `seed ${seed}: ${words}`).to.be.oneOf([201, 422]);
			if (status === 422) {
				expect(words, `seed ${seed}`).to.match(
					/^(This archive cannot be taken; nothing was stored|This zip holds no client)/
				);
				continue;
			}
			taken++;
			for (const path of pagesOf(id)) {
				const answer = await fetch(app.url + path, {
					headers: { accept: 'text/html', cookie: `client=${id}`, connection: 'close' }
				});
				await answer.arrayBuffer();
				expect(answer.status, `seed ${seed}: ${path}\n${app.words().slice(-800)}`).to.be.below(500);
			}
			expect((await app.api('DELETE', `/api/clients/${id}`)).status, `seed ${seed}`).to.be.oneOf([200, 204]);
		}
		// What changes nothing that matters is taken: else the pages were never asked.
		expect(taken).to.be.at.least(CASES / 20);
	});
});
