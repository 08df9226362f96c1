import { expect } from 'chai';
import * as v from 'valibot';
import { Block, ReportDraft } from '$core/report/document';
import { StandingInput } from '$core/watch/input';
import { insertSite } from '../../src/lib/server/rooms/clients/queries/sites';
import type { Db } from '../../src/lib/server/base/db/connection';
import { pastePages } from '../../src/lib/server/rooms/pages/commands';
import { listPages } from '../../src/lib/server/rooms/pages/queries/pages';
import { createReport } from '../../src/lib/server/rooms/reports/commands';
import { existingReport } from '../../src/lib/server/rooms/reports/queries/reports';
import { resolveReport } from '../../src/lib/server/rooms/reports/resolve';
import { deriveRanks } from '../../src/lib/server/rooms/standings/ranks';
import { requestReading } from '../../src/lib/server/rooms/watch/blocks';
import { createWatch } from '../../src/lib/server/rooms/watch/commands';
import { deriveHistory } from '../../src/lib/server/rooms/watch/history';
import { existingWatch } from '../../src/lib/server/rooms/watch/watches';
import { clientWithSite, siteInput } from '../support/clients';
import { useQueue } from '../support/queue';
import { useWatches } from '../support/watches';

const NEW = { trial: null, period: null, title: 'Over time', language: null };

describe('reports of watches and standings', () => {
	const q = useQueue();
	const { furnish, work, readMany } = useWatches(() => q.now.db);

	function bodyOf(db: Db, clientId: number, block: v.InferInput<typeof Block>, language: 'en' | 'es' = 'en') {
		const report = existingReport(db, createReport(db, { ...NEW, clientId }));
		const draft = v.parse(ReportDraft, { ...report.draft, language, blocks: [block] });
		return resolveReport(db, { clientId, draft }).view.blocks[0]!.body;
	}

	const watchBlock = (watch: number) => ({ id: 'w', kind: 'watch' as const, watch });

	it('show each step with its interval and the days around it, in the client’s language', () => {
		const { db, id, clientId } = furnish({ metrics: ['lcp'] });
		readMany(id, 9, 2000);
		readMany(id, 3, 3000, 20);
		deriveHistory(db, id);
		const body = bodyOf(db, clientId, watchBlock(id));
		if (body.kind !== 'board') throw new Error(body.kind);
		expect(body.boards).to.have.length(2);
		const [row] = body.boards[0]!.rows;
		expect(row!.word.text).to.equal('slower');
		// 2000 to 3000 ms, and the readings' own spread of 40 ms.
		expect(row!.shift).to.match(/^1\.0\d\ss more \(.* more to .* more\)/);
		const spanish = bodyOf(db, clientId, watchBlock(id), 'es');
		if (spanish.kind !== 'board') throw new Error(spanish.kind);
		expect(spanish.boards[0]!.title).to.match(/entre el \d+ de \w+ de \d{4} y el /);
		expect(spanish.boards[0]!.rows[0]!.baseline.text).to.match(/^2,02\ss$/);
	});

	it('say that nothing moved only of readings that were made', () => {
		const { db, id, clientId } = furnish({ metrics: ['lcp'] });
		expect(bodyOf(db, clientId, watchBlock(id)).kind).to.equal('missing');
		readMany(id, 8, 2000);
		deriveHistory(db, id);
		const body = bodyOf(db, clientId, watchBlock(id));
		if (body.kind !== 'lines') throw new Error(body.kind);
		expect(body.groups[0]!.lines[0]).to.match(/^Nothing moved beyond the noise in 8 readings from /);
	});

	it('of a time tell what moved then, how far and how surely, and what was not read', () => {
		const { db, id, clientId } = furnish({ metrics: ['lcp'] });
		const linesOf = (from: string, until: string) => {
			const body = bodyOf(db, clientId, { id: 'p', kind: 'period', from, until });
			if (body.kind !== 'lines') throw new Error(body.kind);
			return body.groups.find(({ title }) => title === 'Watched pages')!.lines;
		};
		expect(linesOf('2020-01-01', '2030-01-01')).to.deep.equal(['No watched page was read in this time.']);
		readMany(id, 2, 2000);
		deriveHistory(db, id);
		expect(linesOf('2020-01-01', '2030-01-01')[0]).to.match(/^No step was called .* not all have the 7 readings yet/);
		readMany(id, 7, 2000, 2);
		deriveHistory(db, id);
		expect(linesOf('2020-01-01', '2030-01-01')).to.deep.equal([
			'No change beyond the noise was found on a watched page.'
		]);
		readMany(id, 3, 3000, 20);
		deriveHistory(db, id);
		const [line] = linesOf('2020-01-01', '2030-01-01');
		expect(line!.replaceAll('\u00a0', ' ')).to.match(
			/between .* and .*: Largest paint slower, 1\.0\d s more \(.* more to .* more\)\.$/
		);
		expect(linesOf('2020-01-01', '2020-02-01')).to.deep.equal(['No watched page was read in this time.']);
	});

	it('show nothing of another client’s watch', () => {
		const { db, id } = furnish({ metrics: ['lcp'] });
		readMany(id, 8, 2000);
		deriveHistory(db, id);
		const other = clientWithSite(db, 'other.test', 'Other').clientId;
		expect(bodyOf(db, other, watchBlock(id)).kind).to.equal('missing');
	});

	it('show places among competitors as ranges where chance cannot be ruled out', () => {
		const { db, clientId, pages } = furnish();
		const rival = insertSite(db, clientId, siteInput('rival.test', { role: 'competitor' }));
		pastePages(db, rival, 'https://rival.test/a\nhttps://rival.test/b');
		const others = listPages(db, { siteId: rival }, 10).map((page) => page.id);
		const input = v.parse(StandingInput, {
			clientId,
			name: 'Booking',
			pages: [pages[0], ...others],
			conditions: ['desktop'],
			loads: 8,
			metrics: ['lcp']
		});
		const id = createWatch(db, { ...input, kind: 'standing' });
		requestReading(db, existingWatch(db, id, 'standing'), { why: 'demand' });
		// The rival's two pages take turns; the own one is behind both.
		const turns = new Map<string, number>();
		work((url) => {
			const turn = (turns.get(url) ?? 0) + 1;
			turns.set(url, turn);
			if (url.includes('own.test')) return { figures: { lcp: 3000 + turn } };
			return { figures: { lcp: 2000 + (url.endsWith('/a') === (turn % 2 === 0) ? 100 : 0) + turn } };
		});
		deriveRanks(db, id);
		const body = bodyOf(db, clientId, { id: 's', kind: 'standing', watch: id });
		if (body.kind !== 'tables') throw new Error(body.kind);
		const [own, a, b] = body.tables[0]!.rows[0]!.cells.slice(1).map((cell) => cell.split(' · ')[1]);
		expect([own, a, b]).to.deep.equal(['3 of 3', '1–2 of 3', '1–2 of 3']);
		const spanish = bodyOf(db, clientId, { id: 's', kind: 'standing', watch: id }, 'es');
		expect(JSON.stringify(spanish)).to.include('1–2 de 3').and.include('8 rondas');
	});
});
