/** What could be saved of the files of an audit: each figure held against another program's, or worked out by hand. */
import { execFileSync } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { brotliDecompressSync } from 'node:zlib';
import { execFile } from 'node:child_process';
import { promisify } from 'node:util';
import { expect } from 'chai';
import sharp from 'sharp';
import { LEAST_LIKENESS } from '$core/findings/bodyFacts';
import { sharedSpans, unusedSpansOfScript, unusedSpansOfSheet } from '$core/load/requests/coverage';
import { facesIn } from '../../src/lib/server/rooms/audits/savings/faces';
import { fontFacts } from '../../src/lab/files/font';
import { likeness, pictureFacts } from '../../src/lab/files/picture';
import { cut, helpersIn, minified, packed, textKind, writesDocument } from '../../src/lab/files/text';
import { neededPixels } from '../../src/lib/server/rooms/audits/savings/uses';

const SCRIPT = `/* The timetable. */
function sailings(list) {
	const later = list.filter((sailing) => sailing.at > Date.now());
	return later.map((sailing) => sailing.name);
}
function neverCalled({ a, b }) {
	return a + b + 'never';
}
sailings([]);
`;

describe('savings of text', () => {
	it('are those of gzip -9 by another program, as near as two searches for repetitions come', async () => {
		const folder = mkdtempSync(join(tmpdir(), 'zafra-savings-'));
		const path = join(folder, 'text');
		const text = readFileSync('src/core/wording/messages/en.ts', 'utf8');
		writeFileSync(path, text);
		// GNU gzip, without name and time. RFC 1951 leaves it to the program which repetitions it finds.
		const other = execFileSync('gzip', ['-9', '-n', '-c', path]);
		rmSync(folder, { recursive: true });
		const own = await packed(text);
		expect(own.plain).to.equal(Buffer.byteLength(text));
		expect(Math.abs(own.gzip - other.length)).to.be.at.most(own.gzip * 0.01);
		expect(own.brotli).to.be.below(own.gzip);
	});

	it('by Brotli read back as the text', async () => {
		// Worked through the standard decoder: the size is of a stream that holds the text.
		const { brotliCompressSync, constants } = await import('node:zlib');
		const text = SCRIPT.repeat(50);
		const stream = brotliCompressSync(text, {
			params: {
				[constants.BROTLI_PARAM_QUALITY]: 11,
				[constants.BROTLI_PARAM_MODE]: constants.BROTLI_MODE_TEXT,
				[constants.BROTLI_PARAM_SIZE_HINT]: Buffer.byteLength(text)
			}
		});
		expect(brotliDecompressSync(stream).toString()).to.equal(text);
		expect((await packed(text)).brotli).to.equal(stream.length);
	});

	it('minify what each kind of text is, and leave its meaning', async () => {
		const small = await minified('script', SCRIPT);
		expect(small.length).to.be.below(SCRIPT.length);
		expect(small).to.not.contain('timetable');
		// It still runs.
		expect(new Function(`${small}; return typeof sailings`)()).to.equal('function');
		expect(await minified('style', 'a { color : #ff0000 ; }\n\n/* x */')).to.equal('a{color:red}');
		expect(await minified('markup', '<p>One   two</p>  <!-- x --> <p>Three</p>')).to.equal(
			'<p>One two</p> <p>Three</p>'
		);
		expect(
			await minified('svg', '<svg xmlns="http://www.w3.org/2000/svg"><!-- x --><g><path d="M0 0h10"/></g></svg>')
		).to.equal('<svg xmlns="http://www.w3.org/2000/svg"><path d="M0 0h10"/></svg>');
		let fault = '';
		await minified('script', 'function (').catch((error: Error) => (fault = error.message));
		expect(fault).to.not.equal('');
	});

	it('cut the insides of functions that never ran, so that the rest still runs, and rules that match nothing', () => {
		const from = SCRIPT.indexOf('function neverCalled');
		const until = SCRIPT.indexOf('sailings([])');
		const left = cut('script', SCRIPT, [[from, until]]);
		expect(left).to.contain('function neverCalled({ a, b }) {}');
		expect(new Function(`${left}; return sailings([{ name: 'Dawn', at: Infinity }])`)()).to.deep.equal(['Dawn']);
		const sheet = 'a{color:red}b{color:blue}i{color:green}';
		expect(cut('style', sheet, [[12, 25]])).to.equal('a{color:red}i{color:green}');
	});

	it('know what is of no use on any page from what is of no use on each', () => {
		// Of 100 characters of a script 20 to 80 never ran, but for an inner 40 to 50 that did.
		const ranges = [
			{ start: 0, end: 100, used: true },
			{ start: 20, end: 80, used: false },
			{ start: 40, end: 50, used: true }
		];
		expect(unusedSpansOfScript(ranges)).to.deep.equal([
			[20, 40],
			[50, 80]
		]);
		expect(unusedSpansOfSheet(30, [{ start: 10, end: 20, used: true }])).to.deep.equal([
			[0, 10],
			[20, 30]
		]);
		expect(
			sharedSpans([
				[
					[0, 10],
					[20, 30]
				],
				[[5, 25]]
			])
		).to.deep.equal([
			[5, 10],
			[20, 25]
		]);
	});

	it('tell kinds by what they are sent as, helpers by name, and a write that ran from one that never did', () => {
		expect([textKind('script', ''), textKind('image', 'image/svg+xml'), textKind('font', 'font/woff2')]).to.deep.equal([
			'script',
			'svg',
			null
		]);
		expect(helpersIn('function _classCallCheck(a){} var my_inherits; var x_inheritsLoose_y')).to.deep.equal([
			'_classCallCheck'
		]);
		const text = 'if (old) { document.write("<b>") }';
		expect(writesDocument(text, [])).to.equal(true);
		expect(writesDocument(text, [[0, text.length]])).to.equal(false);
		expect(writesDocument('myDocument.writeDown(1)', [])).to.equal(false);
	});
});

/** Waves and a sun: what a codec has to work on. */
function scene(width: number, height: number): Promise<Buffer> {
	const waves = Array.from(
		{ length: 40 },
		(_, i) =>
			`<path d="M0 ${i * 20} q 50 ${10 + i} 100 0 t 100 0 100 0 100 0 100 0 100 0 100 0" stroke="hsl(${i * 9} 60% 50%)" fill="none" stroke-width="${1 + (i % 5)}"/>`
	).join('');
	const svg = `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 800 800" width="${width}" height="${height}" preserveAspectRatio="none"><defs><radialGradient id="g"><stop stop-color="#fc6"/><stop offset="1" stop-color="#036"/></radialGradient></defs><rect width="800" height="800" fill="url(#g)"/>${waves}</svg>`;
	return sharp(Buffer.from(svg)).png().toBuffer();
}

describe('savings as the server works them out', () => {
	it('need no more than its own way of loading packages', async () => {
		const photograph = await sharp({
			create: {
				width: 900,
				height: 600,
				channels: 3,
				background: '#258',
				noise: { type: 'gaussian', mean: 128, sigma: 20 }
			}
		})
			.blur(3)
			.jpeg({ quality: 95 })
			.toBuffer();
		const script = `import { pictureFacts } from './src/lab/files/picture.ts';
			const bytes = Buffer.from(process.argv[1], 'base64');
			const { encoded } = await pictureFacts(bytes, () => ({ width: 450, height: 300 }));
			console.log(encoded.length);`;
		const args = ['--import', 'tsx', '--input-type=module', '-e', script, photograph.toString('base64')];
		const { stdout, stderr } = await promisify(execFile)(process.execPath, args);
		expect(Number(stdout), stderr).to.be.above(0);
	}).timeout(60_000);
});

describe('savings of pictures', () => {
	const raw = async (bytes: Buffer, width: number, height: number) => ({
		data: new Uint8ClampedArray(
			await sharp(bytes)
				.flatten({ background: '#fff' })
				.resize(width, height, { fit: 'fill' })
				.ensureAlpha()
				.raw()
				.toBuffer()
		),
		width,
		height
	});

	it('are encoded at the needed pixels, and are as like as is asked', async () => {
		const large = await sharp(await scene(1600, 800))
			.jpeg({ quality: 95 })
			.toBuffer();
		const facts = (await pictureFacts(large, (own) => neededPixels(own, [{ width: 800, height: 400, fit: 'exact' }])))!;
		expect(facts).to.include({ format: 'jpeg', width: 1600, height: 800, isAnimated: false });
		expect(facts.encoded.map(({ format }) => format)).to.include.members(['jpeg', 'webp', 'avif']);
		for (const encoded of facts.encoded) {
			expect([encoded.width, encoded.height]).to.deep.equal([800, 400]);
			expect(encoded.bytes).to.be.below(large.length);
		}
	}).timeout(60_000);

	it('leave a picture alone that is small already', async () => {
		const small = await sharp(await scene(400, 400))
			.avif({ quality: 20, effort: 4 })
			.toBuffer();
		const facts = (await pictureFacts(small, () => null))!;
		expect(facts.format).to.equal('avif');
		expect(facts.encoded.filter(({ bytes }) => bytes >= small.length)).to.deep.equal([]);
	}).timeout(60_000);

	it('measure likeness as 1 for the same picture, and as too little for a coarse copy', async () => {
		const own = await raw(await scene(400, 400), 400, 400);
		expect(likeness(own, own)).to.equal(1);
		const coarse = await sharp(await scene(400, 400))
			.jpeg({ quality: 3 })
			.toBuffer();
		expect(likeness(own, await raw(coarse, 400, 400))).to.be.below(LEAST_LIKENESS);
	});

	it('count the pixels of its largest place, worked out by hand', () => {
		const own = { width: 1600, height: 800 };
		// 320 x 160 CSS pixels on a phone with 2.5 of them: 800 x 400.
		expect(neededPixels(own, [{ width: 800, height: 400, fit: 'exact' }])).to.deep.equal({ width: 800, height: 400 });
		// A square box of 500 that it covers: 500 of 800 in height, so 1000 x 500.
		expect(neededPixels(own, [{ width: 500, height: 500, fit: 'cover' }])).to.deep.equal({ width: 1000, height: 500 });
		// That it lies within: 500 of 1600 in width.
		expect(neededPixels(own, [{ width: 500, height: 500, fit: 'contain' }])).to.deep.equal({ width: 500, height: 250 });
		expect(neededPixels(own, [])).to.equal(null);
	});

	it('say of a picture that cannot be decoded that it cannot', async () => {
		let fault = '';
		await pictureFacts(Buffer.from('no picture at all'), () => null).catch((error: Error) => (fault = error.message));
		expect(fault).to.match(/unsupported image format/i);
	});
});

describe('savings of fonts', () => {
	const FONT = readFileSync(
		'node_modules/@fontsource-variable/source-sans-3/files/source-sans-3-latin-wght-normal.woff2'
	);

	it('are subset to the signs that are drawn, which the subset still has', async () => {
		const drawn = new Map([['source sans 3', new Set('Ferry timetable')]]);
		const facts = await fontFacts(FONT, ['Source Sans 3'], drawn);
		// F, e, r, y, space, t, i, m, a, b, l: eleven different signs.
		expect(facts).to.include({ isDrawn: true, isIcons: false, drawnSigns: 11 });
		expect(facts.signs).to.be.above(200);
		expect(facts.subset!).to.be.below(FONT.length * 0.3);
		expect(Math.abs(facts.woff2! - FONT.length)).to.be.below(FONT.length * 0.1);
		expect(await fontFacts(FONT, ['Other'], drawn)).to.include({ isDrawn: false, subset: null });
	});

	it('belong to the family under which style sheets name them (CSS Fonts 4)', () => {
		const css = `@font-face { font-family: "Harbour Sans"; src: local("x"), url(../f/h.woff2) format("woff2"); }
			@font-face { font-family: Other; src: url("https://type.test/o.woff") } a { background: url(no.png) }`;
		expect([...facesIn(css, 'https://own.test/css/a.css')].map(([url, names]) => [url, [...names]])).to.deep.equal([
			['https://own.test/f/h.woff2', ['Harbour Sans']],
			['https://type.test/o.woff', ['Other']]
		]);
	});
});
