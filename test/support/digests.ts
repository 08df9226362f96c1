/** Made-up loads of two versions of a page, and what is compared of them. */
import { digestLoad, type LoadDigest } from '$core/compare/digest';
import type { LoadRecord, RequestRecord } from '$core/load/record/record';
import { recordOf, requestOf } from './records';

export const page = (text: string, more: Partial<NonNullable<LoadRecord['page']>> = {}): LoadRecord['page'] => ({
	title: 'Home',
	language: 'en',
	viewport: null,
	elements: 100,
	depth: 8,
	deepestPath: null,
	widestParent: null,
	images: [],
	fonts: [],
	emptySlots: [],
	inline: [],
	text,
	overlay: null,
	consoleErrors: [],
	signature: [],
	...more
});
export const box = (width: number, height: number) => ({ x: 0, y: 0, width, height });

export function load(
	host: string,
	extra: Partial<RequestRecord>[] = [],
	more: Parameters<typeof recordOf>[0] = {}
): LoadRecord {
	return recordOf({
		url: `https://${host}/`,
		finalUrl: `https://${host}/`,
		page: page('Ferries leave at noon'),
		settledMs: 3000,
		lcp: {
			atMs: 1000,
			size: 1,
			selector: 'main > img',
			tag: 'img',
			url: `https://${host}/big.a1b2c3d4e5.jpg`,
			box: null,
			text: null
		},
		requests: [
			requestOf({
				url: `https://${host}/`,
				type: 'document',
				mimeType: 'text/html',
				wireBytes: 4000,
				decodedBytes: 4000,
				startMs: 0,
				responseMs: 200,
				endMs: 260,
				responseHeaders: [['server', 'plain']]
			}),
			requestOf({
				url: `https://${host}/big.a1b2c3d4e5.jpg`,
				type: 'image',
				mimeType: 'image/jpeg',
				wireBytes: 90_000,
				startMs: 350,
				endMs: 800
			}),
			...extra.map((partial) => requestOf(partial))
		],
		...more,
		figures: {
			ttfb: 200,
			fcp: 600,
			lcp: 1000,
			cls: 0,
			tbt: 0,
			si: 900,
			wire: 94_000,
			requests: 2,
			full: 800,
			onload: 800,
			score: 90,
			...more.figures
		}
	});
}

let nextLoad = 1;
export const digest = (record: LoadRecord, armId = 1): LoadDigest =>
	digestLoad(record, { loadId: nextLoad++, armId, conditionId: 'desktop', round: 1 });
export const plain = () => digest(load('skerry.test'));

export const CHAT: Partial<RequestRecord>[] = [
	{ url: 'https://bell.test/bell.js?x=1', type: 'script', wireBytes: 30_000, startMs: 900, endMs: 1400 },
	{ url: 'https://bell.test/face.png', type: 'image', wireBytes: 5000, startMs: 1400, endMs: 1900 }
];
export const chatty = () =>
	digest(
		load('with-chat.skerry.test', CHAT, {
			longTasks: [{ startMs: 1500, durationMs: 250 }],
			longFrames: [
				{
					startMs: 1490,
					durationMs: 280,
					blockingMs: 200,
					scripts: [
						{
							url: 'https://bell.test/bell.js?x=1',
							invoker: '',
							functionName: '',
							startMs: 1500,
							durationMs: 200,
							layoutMs: 0
						}
					]
				}
			],
			shifts: [
				{
					atMs: 1600,
					value: 0.1,
					recentInput: false,
					elements: [
						{ selector: 'main', from: box(100, 300), to: box(100, 300) },
						{ selector: 'footer', from: box(100, 100), to: box(100, 100) }
					]
				}
			],
			figures: { tbt: 200, cls: 0.1, wire: 129_000, requests: 4, full: 1900, score: 70 }
		}),
		2
	);
