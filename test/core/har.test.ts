import { expect } from 'chai';
import { readFileSync } from 'node:fs';
import Ajv from 'ajv';
import * as harSchema from 'har-schema';
import { harOf } from '$core/formats/har';
import { loadOfHar } from '$core/formats/harImport';
import { schemaText, SCHEMA_FILE } from '../../scripts/schema';
import { recordOf, requestOf } from '../support/records';

const record = recordOf({
	startedAt: '2026-11-24T10:00:00.000Z',
	url: 'https://own.test/old',
	finalUrl: 'https://own.test/?a=1',
	figures: { dcl: 400, onload: 700, fcp: 500, lcp: 650 },
	requests: [
		requestOf({
			url: 'https://own.test/old',
			type: 'document',
			status: 301,
			redirectTo: 'https://own.test/?a=1',
			endMs: 60,
			responseMs: 55,
			wireBytes: 180,
			timing: { queue: 2, dns: 10, connect: 20, tls: 9, send: 0.5, wait: 22.5, receive: 5 }
		}),
		requestOf({
			url: 'https://own.test/?a=1',
			type: 'document',
			startMs: 60,
			responseMs: 120,
			endMs: 180,
			wireBytes: 4000,
			decodedBytes: 12_000,
			mimeType: 'text/html',
			timing: { queue: 1, dns: null, connect: null, tls: null, send: 0.2, wait: 58.8, receive: 60 }
		}),
		requestOf({
			url: 'https://chat.test/x.js',
			type: 'script',
			startMs: 200,
			endMs: 500,
			status: null,
			failed: 'net::ERR_FAILED',
			wireBytes: 0
		}),
		requestOf({
			url: 'https://own.test/pic.webp',
			type: 'image',
			startMs: 210,
			endMs: 211,
			fromCache: true,
			mimeType: 'image/webp'
		})
	]
});

const withSchema = () => {
	const ajv = new Ajv({ schemaId: 'auto', unknownFormats: 'ignore' } as Ajv.Options);
	ajv.addMetaSchema(JSON.parse(readFileSync('node_modules/ajv/lib/refs/json-schema-draft-06.json', 'utf8')) as object);
	for (const schema of Object.values(harSchema) as object[])
		if ((schema as { $id?: string }).$id) ajv.addSchema(schema);
	return ajv;
};

describe('HAR', () => {
	const har = JSON.parse(JSON.stringify(harOf(record, '0.0.0'))) as ReturnType<typeof harOf>;

	it('is accepted by har-schema; its parts add up to each time, and what is unknown is -1', () => {
		const ajv = withSchema();
		expect(ajv.validate('har.json', har), ajv.errorsText()).to.equal(true);
		for (const { time, timings } of har.log.entries) {
			const sum = [
				timings.blocked,
				timings.dns,
				timings.connect,
				timings.send,
				timings.wait,
				timings.receive
			].reduce<number>((all, part) => all + Math.max(0, part ?? 0), 0);
			expect(sum).to.be.closeTo(time, 1e-6);
		}
		expect(har.log.entries[1]!.timings.dns).to.equal(-1);
		expect(har.log.entries[2]!.time).to.equal(300);
	});

	it('comes back as it went', () => {
		const back = loadOfHar(JSON.stringify(har));
		expect(back).to.include({
			url: 'https://own.test/old',
			finalUrl: 'https://own.test/?a=1',
			source: 'har',
			conditions: null,
			settledMs: null
		});
		expect(back.redirects).to.deep.equal(['https://own.test/old']);
		expect(back.figures).to.include({
			dcl: 400,
			onload: 700,
			ttfb: 120,
			lcp: null,
			cls: null,
			tbt: null,
			score: null,
			requests: 3,
			wire: 4180
		});
		for (const [i, request] of back.requests.entries()) {
			const { url, type, status, startMs, endMs, wireBytes, failed, fromCache, redirectTo } = record.requests[i]!;
			expect(request).to.include({ url, type, status, startMs, wireBytes, failed, fromCache, redirectTo });
			expect(request.endMs).to.be.closeTo(endMs!, 0.001);
		}
		expect(back.requests[0]!.timing).to.deep.equal(record.requests[0]!.timing);
	});

	it('from elsewhere: what is missing is unknown, never zero', () => {
		const bare = {
			log: {
				version: '1.2',
				creator: { name: 'Some recorder', version: '3' },
				entries: [
					{
						startedDateTime: '2026-11-24T10:00:01.000Z',
						time: 50,
						request: { method: 'GET', url: 'https://b.test/a.css' },
						response: { status: 200, content: { mimeType: 'text/css' } },
						timings: { wait: 40 }
					},
					{
						startedDateTime: '2026-11-24T10:00:00.500Z',
						request: { method: 'GET', url: 'https://b.test/' },
						response: { status: 200, headersSize: 200, bodySize: 1000 }
					}
				]
			}
		};
		const load = loadOfHar(`\uFEFF${JSON.stringify(bare)}`);
		expect(
			load.requests.map((request) => [
				request.type,
				request.startMs,
				request.endMs,
				request.wireBytes,
				request.decodedBytes
			])
		).to.deep.equal([
			['document', 0, null, 1200, null],
			['stylesheet', 500, 550, null, null]
		]);
		expect(load.figures).to.include({ wire: null, decoded: null, onload: null, ttfb: null });
		expect(load.environment).to.include({ browser: 'Some recorder 3' });
		expect(load.startedAt).to.equal('2026-11-24T10:00:00.500Z');
	});

	it('that is none is refused in words', () => {
		const words = (text: string) => {
			try {
				loadOfHar(text);
				return '';
			} catch (error) {
				return (error as Error).message;
			}
		};
		expect(words('hello')).to.match(/not a HAR file: it is no JSON/);
		expect(words('{}')).to.match(/not a HAR 1\.2 file: at log/);
		expect(words('{"log":{"entries":[]}}')).to.match(/log\.entries: holds no requests/);
		expect(
			words(
				'{"log":{"entries":[{"startedDateTime":"yesterday","request":{"method":"GET","url":"https://a.test/"},"response":{"status":200}}]}}'
			)
		).to.match(/log\.entries\.0\.startedDateTime/);
		expect(
			words(
				'{"log":{"entries":[{"startedDateTime":"2026-11-24T10:00:00Z","request":{"method":"GET","url":"data:x"},"response":{"status":200}}]}}'
			)
		).to.match(/no request over HTTP/);
	});
});

describe('published schema', () => {
	it('is what the types say today (npm run schema writes it anew)', () => {
		expect(readFileSync(SCHEMA_FILE, 'utf8')).to.equal(schemaText());
	});
});
