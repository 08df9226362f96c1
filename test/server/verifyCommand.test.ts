import { expect } from 'chai';
import { spawnSync } from 'node:child_process';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { zipSync } from 'fflate';
import { PAGE, REPORT } from '$core/report/bundle';
import { edit, goodBundle, OTHER, OWN, signed, summed } from '../support/bundles';

type Files = Map<string, Uint8Array>;

describe('npm run verify', function () {
	this.timeout(120_000);
	const folder = mkdtempSync(join(tmpdir(), 'zafra-verify-'));
	after(() => rmSync(folder, { recursive: true }));

	function verify(files: Files | Uint8Array | null, ...more: string[]) {
		const path = join(folder, 'bundle.zip');
		if (files) writeFileSync(path, files instanceof Map ? zipSync(Object.fromEntries(files)) : files);
		const { status, stdout, stderr } = spawnSync(process.execPath, [
			'build/verify/verify.mjs',
			...(files ? [path] : []),
			...more
		]);
		return { status, words: `${stdout}${stderr}` };
	}
	const changed = (name: string, by: (text: string) => string) => {
		const files = goodBundle();
		edit(name, by)(files);
		return files;
	};

	it('ends with 0 for a bundle that is whole and signed, and names the key', () => {
		const found = verify(goodBundle());
		expect(found.status, found.words).to.equal(0);
		expect(found.words).to.include('Verified: every figure follows').and.include('Compare it with the key');
		expect(found.words.replace(/\s/g, '')).to.include(OWN.key);
		const pinned = verify(goodBundle(), '--key', OWN.key.replace(/(.{8})/g, '$1 '));
		expect([pinned.status, pinned.words]).to.satisfy(
			([status, words]: [number, string]) => status === 0 && /as this key signed/.test(words)
		);
	});

	it('ends with 1 for what was changed, and says what differs', () => {
		const page = (text: string) => text.replace('It is', 'It was');
		const stale = verify(summed(changed(PAGE, page), 'stale'));
		expect([stale.status, stale.words]).to.satisfy(
			([status, words]: [number, string]) => status === 1 && /report\.html: not as it was signed/.test(words)
		);
		const other = verify(signed(changed(PAGE, page), {}, OTHER), '--key', OWN.key);
		expect(other.status).to.equal(1);
		expect(other.words).to.include('signed by another key');
	});

	it('ends with 3 for what cannot be known here', () => {
		const unsigned = verify(summed(goodBundle(), 'none'));
		expect([unsigned.status, /nobody signed it/.test(unsigned.words)]).to.deep.equal([3, true]);
		const rules = (text: string) => text.replace(/"judge":"[^"]+"/, '"judge":"0"');
		const older = verify(signed(changed(REPORT, rules), { judge: '0' }));
		expect([older.status, /made by rules that this Zafra has not/.test(older.words)]).to.deep.equal([3, true]);
	});

	it('ends with 1 for a zip with two files of one name, or a name that leads elsewhere', () => {
		const odd = goodBundle().set('../evil.sh', new Uint8Array(1));
		expect(verify(odd).status).to.equal(1);
		const packed = Buffer.from(zipSync({ 'a.txt': new Uint8Array(1), 'b.txt': new Uint8Array(1) }));
		for (let at = packed.indexOf('b.txt'); at >= 0; at = packed.indexOf('b.txt')) packed.write('a.txt', at);
		const double = verify(packed);
		expect([double.status, /is there twice/.test(double.words)]).to.deep.equal([1, true]);
	});

	it('ends with 2 for a call that says nothing to check', () => {
		expect(verify(null).status).to.equal(2);
		expect(verify(null, join(folder, 'nothing.zip')).status).to.equal(2);
		expect(verify(Buffer.from('no zip')).status).to.equal(2);
		expect(verify(goodBundle(), '--key', 'short').status).to.equal(2);
		expect(verify(goodBundle(), '--unknown').status).to.equal(2);
	});
});
