/** What a load keeps of what came: byte for byte what was served, and what the page draws of it. */
import { createHash } from 'node:crypto';
import { readFileSync } from 'node:fs';
import { expect } from 'chai';
import sharp from 'sharp';
import { BUILT_IN_CONDITIONS, type Conditions } from '$core/load/conditions/conditions';
import { Lab } from '../../src/lab/lab';
import { rule, serve, UNWATCHED, type RunningServer } from '../support/world';

const QUICK: Conditions = {
	...BUILT_IN_CONDITIONS[1]!,
	quietMs: 500,
	network: { roundTripMs: 5, downKbps: 40_000, upKbps: 10_000, dnsMs: 0 }
};
const FONT = readFileSync(
	'node_modules/@fontsource-variable/source-sans-3/files/source-sans-3-latin-wght-normal.woff2'
);
const STYLE = `@font-face { font-family: 'Quay'; src: url(/quay.woff2) }
h1 { font-family: 'Quay', serif; text-transform: uppercase }
.hero { width: 300px; height: 200px; background: url(/sea.png) center / cover }
.mark::before { content: '\\2693'; font-family: Icons }
.never { color: red }`;
const SCRIPT = `function called() { document.title = 'Called' }
function never() { return 'never ran' }
called();`;
const PAGE = `<!doctype html><html lang="en"><head><title>X</title><link rel="stylesheet" href="/a.css"></head>
<body><h1>ab</h1><div class="hero"></div><p class="mark">c</p><p hidden>zzz</p><script src="/a.js"></script></body></html>`;

describe('what came with a load', function () {
	this.timeout(60_000);
	let server: RunningServer;
	let lab: Lab;
	const served = new Map<string, [media: string, body: Buffer]>();
	before(async () => {
		const sea = await sharp({ create: { width: 1200, height: 600, channels: 3, background: '#036' } })
			.png()
			.toBuffer();
		served
			.set('/', ['text/html', Buffer.from(PAGE)])
			.set('/a.css', ['text/css', Buffer.from(STYLE)])
			.set('/a.js', ['text/javascript', Buffer.from(SCRIPT)])
			.set('/sea.png', ['image/png', sea])
			.set('/quay.woff2', ['font/woff2', FONT]);
		server = await serve(({ url, headers }, response) => {
			const [media, body] = served.get(url!) ?? ['text/plain', Buffer.from('none')];
			response.writeHead(served.has(url!) ? 200 : 404, { 'content-type': media, 'set-cookie': 'visit=1234567890' });
			asked.push([url!, headers.cookie ?? '']);
			response.end(body);
		});
		lab = new Lab({ calm: UNWATCHED, hostMap: [rule('quay.test', server.port)] });
	});
	const asked: [string, string][] = [];
	after(async () => {
		await lab.close();
		server.close();
	});
	const measure = (bodies: boolean) => lab.measure({ url: 'http://quay.test/', conditions: QUICK, steps: [], bodies });

	it('is kept byte for byte, with what of it was of no use, and with what the page draws', async () => {
		const { record, bodies } = await measure(true);
		expect(record.failure).to.equal(null);
		const { files, drawn } = bodies!.kept;
		const sha = (bytes: Uint8Array) => createHash('sha256').update(bytes).digest('hex');
		expect(files.map(({ url }) => new URL(url).pathname)).to.have.members([...served.keys()]);
		files.forEach(({ url }, i) =>
			expect(sha(bodies!.files[i]!), url).to.equal(sha(served.get(new URL(url).pathname)![1]))
		);
		const unusedOf = (path: string, text: string) =>
			files.find(({ url }) => url.endsWith(path))!.unused.map(([from, to]) => text.slice(from, to).trim());
		expect(unusedOf('/a.js', SCRIPT)).to.deep.equal(["function never() { return 'never ran' }"]);
		expect(unusedOf('/a.css', STYLE).join('')).to.contain('.never { color: red }').and.not.contain('h1');
		// As it is drawn: in capitals. What is hidden is not drawn.
		const signsOf = (family: string) => drawn!.text.find(({ families }) => families[0] === family)?.signs;
		expect([...signsOf('Quay')!].sort().join('')).to.equal('AB');
		expect(signsOf('Icons')).to.equal('\u2693');
		expect(drawn!.text.flatMap(({ signs }) => [...signs])).to.not.include('z');
		expect(drawn!.backgrounds).to.deep.equal([
			{ url: 'http://quay.test/sea.png', selector: 'html > body > div.hero', width: 300, height: 200, fit: 'cover' }
		]);
	});

	it('is not kept unless it is asked for', async () => {
		expect((await measure(false)).bodies).to.equal(undefined);
	});

	it('says how much of what went up were cookies', async () => {
		const { record } = await measure(false);
		for (const { url, sentBytes, cookieBytes } of record.requests) {
			const { pathname } = new URL(url);
			const sent = asked.filter(([path]) => path === pathname).at(-1)![1];
			expect(cookieBytes, pathname).to.equal(sent.length);
			expect(sentBytes, pathname).to.be.above(100 + sent.length);
		}
	});
});
