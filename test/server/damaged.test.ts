import { expect } from 'chai';
import Database from 'better-sqlite3';
import { spawnSync } from 'node:child_process';
import { closeSync, mkdtempSync, openSync, rmSync, statSync, writeFileSync, writeSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { openDatabase } from '../../src/lib/server/base/db/connection';
import { findDamage } from '../../src/lib/server/base/db/damage';
import { saveLogo } from '../../src/lib/server/rooms/reports/agency';
import { openVisits } from '../../src/lib/server/rooms/visits/store';
import { startApp } from '../support/app';
import { useQueue } from '../support/queue';
import { until } from '../support/world';

const PAGE_BYTES = 4096;

/** Overwrites a page in the middle of a database that nobody has open. */
function damage(file: string): void {
	const middle = Math.floor(statSync(file).size / PAGE_BYTES / 2) * PAGE_BYTES;
	const handle = openSync(file, 'r+');
	writeSync(handle, Buffer.alloc(PAGE_BYTES, 0xa5), 0, PAGE_BYTES, middle);
	closeSync(handle);
}

function fill(folder: string): void {
	const db = openDatabase(folder);
	db.prepare(`INSERT INTO client (name) VALUES ('Skerry Line')`).run();
	const insert = db.prepare(`INSERT INTO fact (name, value) VALUES (?, ?)`);
	db.transaction(() => {
		for (let i = 0; i < 3000; i++) insert.run(`fact ${i}`, 'x'.repeat(300));
	})();
	db.pragma('wal_checkpoint(TRUNCATE)');
	db.close();
}

describe('a data folder in trouble', function () {
	this.timeout(60_000);
	const folder = mkdtempSync(join(tmpdir(), 'zafra-damaged-'));
	after(() => rmSync(folder, { recursive: true }));

	it('with a damaged page in its middle is noticed, and told where people look', async () => {
		const app = await startApp({
			environment: { ZAFRA_RUNNER: 'off' },
			prepare: (own) => {
				fill(own);
				damage(join(own, 'zafra.db'));
			}
		});
		try {
			const health = async () => (await app.api('GET', '/api/health')).body as { ok: boolean; problem?: string };
			await until(async () => (await health()).problem !== undefined, 20_000, 'the damage to be found');
			expect(await health()).to.include({ ok: false });
			expect((await health()).problem).to.match(/zafra\.db is damaged\. Put back a copy/);
			expect(await (await fetch(app.url)).text()).to.include('The database is damaged.');
		} finally {
			await app.end();
		}
	});

	it('that is whole says nothing', () => {
		fill(folder);
		const db = new Database(join(folder, 'zafra.db'));
		expect(findDamage(db)).to.equal(null);
		db.close();
		damage(join(folder, 'zafra.db'));
		const hurt = new Database(join(folder, 'zafra.db'));
		expect(findDamage(hurt)).to.match(/is damaged/);
		hurt.close();
	});

	it('with visits that are none says which file it is and what to do', () => {
		writeFileSync(join(folder, 'visits.db'), 'this is no database '.repeat(500));
		expect(() => openVisits(folder)).to.throw(
			/visits\.db is damaged\. Put back a copy.*Without the file Zafra starts/s
		);
	});

	it('that becomes read-only while it runs says so, and answers again once it is not', async function () {
		const app = await startApp({ environment: { ZAFRA_RUNNER: 'off' } });
		const files = ['zafra.db', 'zafra.db-wal'].map((name) => join(app.folder, name));
		/** Not even those who have it open may write to it then (ext4, as root). */
		const freeze = (sign: '+' | '-') => spawnSync('chattr', [`${sign}i`, ...files]).status === 0;
		try {
			if (!freeze('+')) this.skip();
			const answer = await app.api('POST', '/api/clients', { name: 'Nobody can write' });
			expect(answer.status, JSON.stringify(answer.body)).to.be.within(500, 507);
			expect(answer.body.error.message).to.match(/cannot be used|may not write|Nothing is lost/);
			expect((await app.api('GET', '/api/clients')).status).to.equal(200);
			expect((await fetch(app.url)).status).to.equal(200);
			freeze('-');
			expect((await app.api('POST', '/api/clients', { name: 'Somebody can' })).status).to.equal(201);
		} finally {
			freeze('-');
			await app.end();
		}
	});
});

describe('a full disk', function () {
	this.timeout(60_000);

	it('is told as such by the API and by pages, and what was saved stays', async function () {
		// A disk of its own for the data folder: as root alone.
		let isMounted = false;
		const app = await startApp({
			environment: { ZAFRA_RUNNER: 'off' },
			prepare: (folder) => {
				isMounted = spawnSync('mount', ['-t', 'tmpfs', '-o', 'size=8m', 'none', folder]).status === 0;
			}
		});
		try {
			if (!isMounted) this.skip();
			expect((await app.api('POST', '/api/clients', { name: 'Before' })).status).to.equal(201);
			spawnSync('dd', ['if=/dev/zero', `of=${join(app.folder, 'filling')}`, 'bs=4096']);
			// Until the pages that the database has spare are used up too.
			let answer = await app.api('POST', '/api/clients', { name: 'Client 0', note: 'x'.repeat(2000) });
			for (let i = 1; i < 3000 && answer.status === 201; i++)
				answer = await app.api('POST', '/api/clients', { name: `Client ${i}`, note: 'x'.repeat(2000) });
			expect(answer.status, JSON.stringify(answer.body)).to.equal(507);
			expect(answer.body.error).to.have.keys('message', 'issues');
			expect(answer.body.error.message).to.match(/disk is full.*Make room/);
			rmSync(join(app.folder, 'filling'));
			expect((await app.api('POST', '/api/clients', { name: 'After' })).status).to.equal(201);
			expect(JSON.stringify((await app.api('GET', '/api/clients')).body))
				.to.include('Before')
				.and.include('After');
		} finally {
			await app.stop();
			if (isMounted) spawnSync('umount', [app.folder]);
			await app.end();
		}
	});
});

describe('a logo', () => {
	const q = useQueue();
	const refused = async (svg: string) => {
		try {
			await saveLogo(q.now.db, Buffer.from(svg));
			return 'taken';
		} catch (error) {
			return (error as Error).message;
		}
	};
	const svg = (body: string) =>
		`<svg xmlns="http://www.w3.org/2000/svg" xmlns:xlink="http://www.w3.org/1999/xlink" width="100" height="20">${body}</svg>`;

	it('whose parts repeat parts without end is refused at once', async () => {
		const levels = Array.from(
			{ length: 12 },
			(_, i) => `<g id="l${i + 1}">${`<use xlink:href="#l${i}"/>`.repeat(10)}</g>`
		);
		expect(
			await refused(svg(`<defs><rect id="l0" width="1" height="1"/>${levels.join('')}</defs><use href="#l12"/>`))
		).to.match(/repeats its parts so often/);
		expect(await refused(svg('<g id="a"><use href="#b"/></g><g id="b"><use href="#a"/></g>'))).to.match(/repeats/);
		const pattern = `<pattern id="p" width="2" height="2">${'<rect fill="url(#q)" width="1" height="1"/>'.repeat(200)}</pattern>`;
		const inner = `<pattern id="q" width="2" height="2">${'<rect width="1" height="1"/>'.repeat(200)}</pattern>`;
		expect(await refused(svg(`${pattern}${inner}<rect fill="url(#p)" width="9" height="9"/>`))).to.match(/repeats/);
	});

	it('may repeat a part as programs for drawing do', async () => {
		const dots = '<defs><circle id="dot" r="2"/></defs>' + '<use xlink:href="#dot" x="5" y="5"/>'.repeat(30);
		expect(await refused(svg(dots))).to.equal('taken');
		expect(await refused('<svg')).to.match(/no picture that can be read/);
	});
});
