import { expect } from 'chai';
import { strToU8, zipSync } from 'fflate';
import { unzipWithin, ZipFault, type ZipFaultCode } from '$core/formats/unzip';

const BOUNDS = { entries: 4, entryBytes: 100_000, totalBytes: 150_000 };

function fault(packed: Uint8Array, bounds = BOUNDS): ZipFaultCode | 'none' {
	try {
		unzipWithin(packed, bounds);
		return 'none';
	} catch (error) {
		return (error as ZipFault).code;
	}
}

/** Two archives one after the other, with the list of the second alone (APPNOTE 4.3.12, 4.3.16). */
function hiddenBefore(hidden: Uint8Array, shown: Uint8Array): Uint8Array {
	const before = hidden.subarray(0, listStart(hidden));
	const joined = new Uint8Array(before.length + shown.length);
	joined.set(before);
	joined.set(shown, before.length);
	const view = new DataView(joined.buffer);
	const end = joined.length - 22;
	const start = view.getUint32(end + 16, true) + before.length;
	view.setUint32(end + 16, start, true);
	view.setUint32(start + 42, view.getUint32(start + 42, true) + before.length, true);
	return joined;
}

const listStart = (packed: Uint8Array) =>
	new DataView(packed.buffer, packed.byteOffset).getUint32(packed.length - 22 + 16, true);

/** A zip with one entry of any name, odd ones too: written over a plain one of the same length. */
function zipWithName(name: string): Uint8Array {
	const plain = 'z'.repeat(Buffer.byteLength(name));
	const packed = Buffer.from(zipSync({ [plain]: strToU8('hello') }));
	for (let at = packed.indexOf(plain); at >= 0; at = packed.indexOf(plain)) packed.write(name, at);
	return new Uint8Array(packed);
}

describe('a zip of which nobody knows what is in it', () => {
	const text = strToU8('hello');

	it('is taken apart entry by entry, packed or stored', () => {
		const packed = zipSync({ 'a.json': text, 'artifacts/b': [strToU8('x'.repeat(5000)), { level: 0 }] });
		const entries = unzipWithin(packed, BOUNDS);
		expect([...entries.keys()]).to.deep.equal(['a.json', 'artifacts/b']);
		expect(Buffer.from(entries.get('a.json')!).toString()).to.equal('hello');
		expect(entries.get('artifacts/b')!.length).to.equal(5000);
	});

	it('is bounded in what it unpacks to, whatever sizes it claims', () => {
		const bomb = zipSync({ 'a.json': new Uint8Array(20_000_000) });
		expect(bomb.length).to.be.below(30_000);
		expect(fault(bomb)).to.equal('entry-too-large');
		const claimed = bomb.slice();
		// The size in the header of the entry and in the list: both say 1 byte.
		new DataView(claimed.buffer).setUint32(22, 1, true);
		new DataView(claimed.buffer).setUint32(listStart(claimed) + 24, 1, true);
		expect(fault(claimed)).to.equal('entry-too-large');
		const parts = Object.fromEntries(['a', 'b'].map((name) => [name, new Uint8Array(90_000)]));
		expect(fault(zipSync(parts))).to.equal('too-large');
		const many = Object.fromEntries(Array.from({ length: 5 }, (_, i) => [`f${i}`, text]));
		expect(fault(zipSync(many))).to.equal('too-many');
	});

	it('has plain names, each once', () => {
		for (const name of [
			'../a',
			'/a',
			'a/../b',
			'a\\b',
			'__proto__',
			'a/__proto__',
			'C:a',
			'a b',
			'a//b',
			'a/',
			'.',
			'é'
		])
			expect(fault(zipWithName(name)), name).to.equal('odd-name');
		expect(fault(zipWithName('loads/12-a_b.json'))).to.equal('none');
		expect(fault(hiddenBefore(zipSync({ a: text }), zipSync({ a: text })))).to.equal('double');
	});

	it('holds what its list names', () => {
		expect(fault(hiddenBefore(zipSync({ hidden: text }), zipSync({ a: text })))).to.equal('unlisted');
	});

	it('is whole', () => {
		const packed = zipSync({ 'a.json': strToU8('hello '.repeat(2000)), b: text });
		expect(fault(packed.subarray(0, packed.length / 2))).to.not.equal('none');
		expect(fault(strToU8('no zip at all'))).to.equal('damaged');
		expect(fault(new Uint8Array(0))).to.equal('damaged');
		const torn = packed.slice();
		torn.fill(0xff, 40, 60);
		expect(fault(torn)).to.equal('damaged');
	});
});
