import { expect } from 'chai';
import type { LoadRecord, PageRecord, RequestRecord } from '$core/load/record/record';
import { practicesOf, type Practice } from '$core/standings/practices';
import { describeCell } from '$core/wording/watch';
import { recordOf, requestOf } from '../../support/records';

const cellOf = (practice: Practice, requests: RequestRecord[], page: object = {}) => {
	const existing = { images: [], fonts: [], ...page } as unknown as PageRecord;
	const record = recordOf({ url: 'https://own.test/', finalUrl: 'https://own.test/', requests, page: existing });
	return practicesOf(record).find((cell) => cell.practice === practice)!;
};
const text = (url: string, coding: string | null) =>
	requestOf({
		url,
		type: 'script',
		mimeType: 'text/javascript',
		decodedBytes: 5000,
		responseHeaders: coding ? [['content-encoding', coding]] : []
	});

describe('what a page does to be fast', () => {
	it('counts text that is compressed, and names what is not', () => {
		const cell = cellOf('compression', [text('https://own.test/a.js', 'br'), text('https://own.test/b.js', null)]);
		expect(cell).to.deep.include({ state: 'partly', evidence: ['https://own.test/b.js'] });
		expect(describeCell(cell)).to.equal('1 of 2, br');
	});

	it('looks for scripts that are put off only where somebody waited on or moved', () => {
		const late = (records: LoadRecord[]) =>
			practicesOf(
				recordOf({ page: { images: [], fonts: [] } as unknown as PageRecord }),
				records.map((record, i) => ({ id: 70 + i, record }))
			).find(({ practice }) => practice === 'late')!;
		const { figures } = recordOf();
		const work = { requests: 2, wireBytes: 1, decodedBytes: 1, scriptMs: 1, figuresWith: figures };
		const script = (name: string, during: 'load' | 'nudge' | 'patience') =>
			requestOf({ url: `https://own.test/${name}.js`, type: 'script', during });
		const waited = recordOf({
			postponed: { ...work, fromMs: 1, untilMs: 2, firstMs: 1 },
			requests: [script('first', 'load'), script('chat', 'patience'), requestOf({ type: 'image', during: 'patience' })]
		});
		const moved = recordOf({ heldBack: { ...work, nudgedAtMs: 1, settledMs: 2 }, requests: [script('first', 'load')] });
		expect(describeCell(late([]))).to.equal('not looked at yet');
		expect(late([moved, waited])).to.deep.include({ state: 'yes', evidence: ['https://own.test/chat.js'], load: 71 });
		// Where there is none, the first of the loads shows that.
		expect(late([moved]).load).to.equal(70);
		expect(late([]).load).to.equal(null);
		expect(describeCell(late([waited, moved]))).to.equal('0 held back, 1 postponed');
		expect([late([moved]).state, describeCell(late([moved]))]).to.deep.equal(['no', 'none']);
	});

	it('tells formats of pictures by their media type', () => {
		const image = (name: string, type: string) =>
			requestOf({ url: `https://own.test/${name}`, mimeType: type, type: 'image' });
		const cell = cellOf('images', [image('a', 'image/avif'), image('b', 'image/jpeg'), image('c', 'image/svg+xml')]);
		expect(describeCell(cell)).to.equal('2 of 3: avif, jpeg, svg');
	});

	it('looks for waiting only below the first screen', () => {
		const image = (candidate: object) => ({
			url: 'https://own.test/i',
			selector: 'img',
			naturalWidth: 1,
			naturalHeight: 1,
			shownWidth: 1,
			shownHeight: 1,
			lazy: false,
			roomReserved: true,
			inView: false,
			...candidate
		});
		const images = [image({ inView: true }), image({ lazy: true }), image({})];
		expect(cellOf('lazy', [], { images })).to.deep.include({ state: 'partly', values: { good: 1, all: 2 } });
		expect(cellOf('lazy', [], { images: [images[0]] }).state).to.equal('none');
	});

	it('takes a week as long in a browser’s cache (RFC 9111 max-age)', () => {
		const file = (url: string, age: number) =>
			requestOf({ url, type: 'image', responseHeaders: [['cache-control', `max-age=${age}`]] });
		const cell = cellOf('caching', [file('https://own.test/a', 604_800), file('https://own.test/b', 604_799)]);
		expect(cell).to.deep.include({ state: 'partly', evidence: ['https://own.test/b'] });
	});

	it('counts outside services by their domain', () => {
		const cell = cellOf('third-parties', [
			requestOf({ url: 'https://a.chat.test/x' }),
			requestOf({ url: 'https://b.chat.test/y' }),
			requestOf({ url: 'https://own.test/z' })
		]);
		expect(cell.state).to.equal('no');
		expect(describeCell(cell)).to.equal('1 service');
	});

	it('reads the protocol off the document', () => {
		expect(cellOf('protocol', [requestOf({ type: 'document', protocol: 'h2' })]).state).to.equal('yes');
		expect(cellOf('protocol', [requestOf({ type: 'document', protocol: 'http/1.1' })]).state).to.equal('no');
		expect(describeCell(cellOf('protocol', []))).to.equal('nothing to do it with');
	});
});
