import { expect } from 'chai';
import type { Cause, CauseKind } from '$core/compare/causes/cause';
import { describeCause } from '$core/wording/causes';
import { wordMissed, wordSend } from '$core/wording/presence';
import { describeRegressions } from '$core/wording/regressions';
import { reportWordsIn } from '$core/wording/reportWords';

const [english, spanish] = [reportWordsIn('en'), reportWordsIn('es')];
const plain = (text: string) => text.replaceAll('\u00a0', ' ');
const cause = (kind: CauseKind, metric: Cause['metric'], shift: number, values: Cause['values'] = {}): Cause => ({
	kind,
	subject: 'x',
	metric,
	shift,
	values,
	weight: 1
});

const CASES: [Cause, english: string, spanish: string][] = [
	[
		cause('third-party-weight', 'wire', 35_000, { name: 'Parlour Bell', state: 'added', bytes: 35_000, requests: 2 }),
		'Parlour Bell was added: 2 requests and 35.0 kB more.',
		'Parlour Bell se añadió: 2 solicitudes y 35,0 kB más.'
	],
	[
		cause('third-party-blocking', 'tbt', -570, { name: 'Parlour Bell', state: 'gone' }),
		'Parlour Bell is gone: it blocks 570 ms less.',
		'Parlour Bell ya no está: bloquea 570 ms menos.'
	],
	[
		cause('third-party-tail', 'full', 1200, { name: 'Hoarding Row', state: 'changed' }),
		'Hoarding Row changed: the page is complete 1.20 s later for it.',
		'Hoarding Row cambió: por ello la página está completa 1,20 s más tarde.'
	],
	[
		cause('compression', 'wire', 51_000, { files: 1, from: 'br', to: 'none' }),
		'Compression of 1 text file changed from br to none: 51.0 kB more.',
		'La compresión de 1 archivo de texto pasó de br a none: 51,0 kB más.'
	],
	[
		cause('files', 'wire', -200_000, { group: 'images', added: 0, gone: 2, changed: 1 }),
		'Images: 200 kB less (2 gone, 1 changed).',
		'Imágenes: 200 kB menos (retirados: 2, cambiados: 1).'
	],
	[
		cause('cdn', 'lcp', -100, { change: 'on' }),
		'The site’s files come from its CDN now.',
		'Los archivos del sitio llegan ahora desde su CDN.'
	],
	[
		cause('first-byte', 'ttfb', -300, { cache: 'on' }),
		'The document’s first byte comes 300 ms sooner: it comes from a page cache now.',
		'El primer byte del documento llega 300 ms antes: ahora sale de una caché de páginas.'
	],
	[
		cause('discovery', 'lcp', 400),
		'The LCP resource is asked for 400 ms later.',
		'El recurso del LCP se pide 400 ms más tarde.'
	],
	[
		cause('layout', 'cls', 0.12, { element: 'div.banner' }),
		'div.banner moves more: 0.120 of CLS.',
		'div.banner se mueve más: 0,120 de CLS.'
	],
	[
		cause('step-document', 'stepShown', 800),
		'The steps open more whole documents; they take 800 ms longer.',
		'Los pasos abren más documentos enteros; tardan 800 ms más.'
	],
	[
		cause('step-requests', 'stepShown', -400),
		'The steps ask for less; they take 400 ms less.',
		'Los pasos piden menos archivos; tardan 400 ms menos.'
	],
	[
		cause('own-blocking', 'tbt', 90),
		'The site’s own scripts and layout block 90 ms more.',
		'Los scripts y el diseño del propio sitio bloquean 90 ms más.'
	]
];

describe('what evidence says in a report', () => {
	for (const [one, en, es] of CASES)
		it(`is told in both languages: ${one.kind}`, () => {
			expect(plain(describeCause(one, english))).to.equal(en);
			expect(plain(describeCause(one, spanish))).to.equal(es);
		});

	it('has every kind of cause in this table', () => {
		const kinds: Record<CauseKind, true> = Object.fromEntries(CASES.map(([{ kind }]) => [kind, true])) as never;
		expect(Object.keys(kinds)).to.have.length(CASES.length);
		expect(CASES).to.have.length(12);
	});

	it('names what broke and what is no longer sent', () => {
		const broke = {
			newErrors: ['TypeError'],
			newFailures: ['https://a.test/x'],
			steps: { failed: null, before: [1, 1], after: [1, 1] },
			vanished: [],
			pictureShare: null,
			broken: true
		} as unknown as Parameters<typeof describeRegressions>[0];
		expect(describeRegressions(broke, 'Hushbox', spanish)).to.equal(
			'Pero «Hushbox» rompió algo: 1 error nuevo en la consola, 1 solicitud fallida nueva.'
		);
		expect(wordMissed('Larder', { check: 'x-cache: HIT', met: 7, loads: 10 }, spanish)).to.equal(
			'«Larder»: «x-cache: HIT» se cumplió en 7 de 10 cargas.'
		);
		const state = { name: 'Stilewatch', sent: 0, loads: 8, fate: 'late', lateMs: 5200 } as const;
		expect(plain(wordSend('Hushbox', state, spanish))).to.equal(
			'«Hushbox»: Stilewatch salió en 0 de 8 cargas mientras se cargaban; por sí solo, pero a los 5,20 s.'
		);
	});
});
