/**
 * Databases as released versions left them: small, made up, with trials, loads, frames, evidence and loads outside
 * trials.
 */
import { readdirSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { brotliDecompressSync } from 'node:zlib';

const FOLDER = 'test/server/databases';

/** Schema numbers of which there is a database, in order. */
export const RELEASED_SCHEMAS = readdirSync(FOLDER)
	.map((name) => Number(/^schema-(\d+)\.db\.br$/.exec(name)?.[1]))
	.filter((schema) => schema > 0)
	.sort((a, b) => a - b);

/** Put the database of a schema into a data folder. */
export function placeDatabase(schema: number, folder: string): void {
	writeFileSync(join(folder, 'zafra.db'), brotliDecompressSync(readFileSync(join(FOLDER, `schema-${schema}.db.br`))));
}
