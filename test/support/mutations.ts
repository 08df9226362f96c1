/** Archives of clients, changed at random: by seed, so that each can be made again. */
import { strFromU8, strToU8, unzipSync, zipSync } from 'fflate';
import { seededRandom } from '$core/stats/random';

type Row = Record<string, unknown>;
interface Head {
	media: Record<string, string>;
	tables: Record<string, Row[]>;
}
export type Files = Record<string, Uint8Array>;

/** Values that doors must expect: of every kind, at every edge. */
const ODD: unknown[] = [
	null,
	'',
	0,
	-1,
	1.5,
	1e15,
	1e308,
	'x'.repeat(5000),
	'\u0000',
	'<script>alert(1)</script>',
	'__proto__',
	'constructor',
	'{}',
	'[]',
	'[[[[]]]]',
	'{"__proto__":1}',
	'null',
	'NaN',
	'javascript:alert(1)',
	'http://[::1]/',
	'2026-13-45T99:99:99Z',
	'+275760-09-13T00:00:00.001Z',
	true,
	[],
	{},
	'trial:1',
	'nobody',
	'0'.repeat(64)
];

class Mutator {
	constructor(private readonly random: () => number) {}

	pick<Value>(list: readonly Value[]): Value {
		return list[Math.floor(this.random() * list.length)]!;
	}

	/** A value in its place: odd, another row's, a neighbour in number, or itself torn. */
	value(old: unknown, column: string, rows: readonly Row[]): unknown {
		const kind = this.random();
		if (kind < 0.3) return this.pick(ODD);
		if (kind < 0.6) return this.pick(rows)[column];
		if (typeof old === 'number') return old + this.pick([-1, 1, 1000, -old, 0.5, old]);
		if (typeof old !== 'string') return this.pick(ODD);
		if (/^[[{]/.test(old)) return this.inside(old);
		const at = Math.floor(this.random() * (old.length + 1));
		return old.slice(0, at) + this.pick(['', 'é', '\n', '"', '%', '\u202e', ' ']) + old.slice(at + 1);
	}

	/** JSON in a column, with one of its values changed. */
	inside(text: string): string {
		const root: unknown = JSON.parse(text);
		const places: [parent: Record<string, unknown>, key: string][] = [];
		const waiting = [root];
		for (let node = waiting.pop(); node !== undefined; node = waiting.pop()) {
			if (typeof node !== 'object' || node === null) continue;
			for (const key of Object.keys(node)) {
				places.push([node as Record<string, unknown>, key]);
				waiting.push((node as Record<string, unknown>)[key]);
			}
		}
		if (places.length === 0) return String(this.pick(ODD));
		const [parent, key] = this.pick(places);
		if (this.random() < 0.2) delete parent[key];
		else parent[key] = this.pick(ODD);
		return JSON.stringify(root);
	}

	change({ tables, media }: Head): void {
		const filled = Object.keys(tables).filter((name) => tables[name]!.length > 0);
		const name = this.pick(filled);
		const rows = tables[name]!;
		const row = this.pick(rows);
		const column = this.pick(Object.keys(row));
		const kind = this.random();
		if (kind < 0.7) row[column] = this.value(row[column], column, rows);
		else if (kind < 0.78) rows.splice(rows.indexOf(row), 1);
		else if (kind < 0.86) rows.push({ ...row, ...(this.random() < 0.5 ? { id: 90_000 } : {}) });
		else if (kind < 0.9) delete row[column];
		else if (kind < 0.93) tables[name] = [];
		else if (kind < 0.96) tables[this.pick(['lab', 'fact', 'agency', 'report', 'x'])] = [{ id: 1 }];
		else media[this.pick(Object.keys(media))] = this.pick(['image/webp', 'text/html', 'application/gzip', '']);
	}
}

/** @param seed the same archive comes of the same seed */
export function mutated(files: Files, seed: number): Uint8Array {
	const random = seededRandom(seed);
	const head = JSON.parse(strFromU8(files['client.json']!)) as Head;
	const mutator = new Mutator(random);
	for (let changes = 1 + Math.floor(random() * 3); changes > 0; changes--) mutator.change(head);
	return zipSync({ ...files, 'client.json': strToU8(JSON.stringify(head)) }, { level: 1 });
}

/** The archive with the pictures and records of its first loads alone: the rest of its rows stay. */
export function slim(packed: Uint8Array, loads: number): Files {
	const files = unzipSync(packed);
	const head = JSON.parse(strFromU8(files['client.json']!)) as Head;
	const kept = new Set(head.tables.load!.slice(0, loads).map(({ id }) => `load:${String(id)}`));
	head.tables.artifact_use = head.tables.artifact_use!.filter(({ owner_kind: kind, owner_id: id }) =>
		kept.has(`${kind}:${id}`)
	);
	const hashes = new Set(head.tables.artifact_use.map(({ sha256 }) => String(sha256)));
	head.media = Object.fromEntries(Object.entries(head.media).filter(([hash]) => hashes.has(hash)));
	const artifacts = [...hashes].map((hash) => [`artifacts/${hash}`, files[`artifacts/${hash}`]!]);
	return { 'client.json': strToU8(JSON.stringify(head)), ...(Object.fromEntries(artifacts) as Files) };
}
