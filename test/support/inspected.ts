/** Made-up records for the rules of findings. */
import { BUILT_IN_CONDITIONS } from '$core/load/conditions/conditions';
import { emptyPage } from '$core/load/record/emptyRecord';
import type { ImageFact, LoadRecord, PageRecord, RequestRecord } from '$core/load/record/record';
import { recordOf, requestOf } from './records';

export const [PHONE] = BUILT_IN_CONDITIONS;
export type Candidate = Omit<Partial<LoadRecord>, 'figures' | 'page'> & {
	figures?: Partial<LoadRecord['figures']>;
	page?: Partial<PageRecord>;
};

export const timing = (parts: Partial<RequestRecord['timing']>): RequestRecord['timing'] => ({
	queue: null,
	dns: null,
	connect: null,
	tls: null,
	send: null,
	wait: null,
	receive: null,
	...parts
});
export const document = (extra: Partial<RequestRecord> = {}) =>
	requestOf({
		type: 'document',
		url: 'https://own.test/',
		startMs: 0,
		responseMs: 300,
		endMs: 350,
		wireBytes: 20_000,
		decodedBytes: 60_000,
		timing: timing({ wait: 100 }),
		...extra
	});
export const file = (type: string, path: string, extra: Partial<RequestRecord> = {}) =>
	requestOf({
		type,
		url: path.startsWith('http') ? path : `https://own.test${path}`,
		startMs: 320,
		responseMs: 500,
		endMs: 600,
		wireBytes: 50_000,
		decodedBytes: 150_000,
		responseHeaders: [['cache-control', 'max-age=31536000']],
		...extra
	});
export const image = (url: string, extra: Partial<ImageFact> = {}): ImageFact => ({
	url,
	selector: 'img.hero',
	naturalWidth: 800,
	naturalHeight: 400,
	shownWidth: 320,
	shownHeight: 160,
	lazy: false,
	roomReserved: true,
	inView: true,
	...extra
});
export const recordWith = (requests: RequestRecord[], { page, figures, ...rest }: Candidate = {}): LoadRecord =>
	recordOf({
		conditions: PHONE!,
		requests: [document(), ...requests],
		page: { ...emptyPage('Own'), elements: 400, depth: 9, ...page },
		figures: { ttfb: 300, fcp: 1000, lcp: 1500, ...figures },
		...rest
	});
export const HERO = 'https://own.test/hero.jpg';
export const lcpOf = (url: string | null, atMs = 1500): LoadRecord['lcp'] => ({
	atMs,
	size: 50_000,
	selector: 'img.hero',
	tag: 'img',
	url,
	box: null,
	text: null
});
export const hero = (extra: Partial<RequestRecord> = {}) =>
	file('image', HERO, { mimeType: 'image/jpeg', wireBytes: 200_000, ...extra });
export const withLargest = (request: RequestRecord, candidate: Candidate = {}, others: RequestRecord[] = []) =>
	recordWith([request, ...others], { lcp: lcpOf(HERO), ...candidate });
export const script = (startMs: number, durationMs: number, layoutMs = 0) => ({
	startMs,
	durationMs,
	blockingMs: 0,
	scripts: [{ url: 'https://own.test/app.js', invoker: 'timer', functionName: 'build', startMs, durationMs, layoutMs }]
});
export const shift = (atMs: number, value: number) => ({
	atMs,
	value,
	recentInput: false,
	elements: [{ selector: 'main > p', from: BOX, to: BOX }]
});
export const BOX = { x: 0, y: 0, width: 10, height: 10 };

export function fontsOf(count: number): PageRecord['fonts'] {
	return Array.from({ length: count }, (_, i) => ({
		family: 'Harbour',
		weight: String(100 * (i + 1)),
		status: 'loaded',
		display: 'swap'
	}));
}
export function stepOf(inp: number): LoadRecord['steps'][number] {
	return {
		number: 1,
		kind: 'click',
		words: 'Click #menu',
		status: 'ok',
		message: null,
		atMs: 3000,
		durationMs: 10,
		quietMs: inp,
		awaited: false,
		shownMs: null,
		navigated: false,
		requests: 0,
		wireBytes: 0,
		cls: 0,
		inp
	};
}
export function lateOf(wireBytes: number): LoadRecord['postponed'] {
	const { figures } = recordOf();
	return {
		fromMs: 0,
		untilMs: 1,
		firstMs: null,
		requests: 3,
		wireBytes,
		decodedBytes: wireBytes,
		scriptMs: 0,
		figuresWith: figures
	};
}
