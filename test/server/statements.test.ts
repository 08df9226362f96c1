/**
 * Every statement that the server's sources hold, explained (SQLite, EXPLAIN QUERY PLAN): those of commands and of the
 * lab too, which no screen prepares. A table that grows with the years of work is read whole only where it is said why.
 */
import { expect } from 'chai';
import { mkdtempSync, readdirSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import ts from 'typescript';
import { openDatabase } from '../../src/lib/server/base/db/connection';
import { wholeReads } from '../support/wholeReads';

function* sources(folder: string): Generator<string> {
	for (const entry of readdirSync(folder, { withFileTypes: true })) {
		const path = join(folder, entry.name);
		if (entry.isDirectory()) yield* sources(path);
		else if (path.endsWith('.ts')) yield path;
	}
}

/** Strings that a file names at its top, by their names. */
function constantsOf(file: ts.SourceFile): Map<string, string> {
	const byKey = new Map<string, string>();
	for (const statement of file.statements)
		if (ts.isVariableStatement(statement))
			for (const { name, initializer } of statement.declarationList.declarations) {
				const text = initializer && textOf(initializer, byKey);
				if (text != null) byKey.set(name.getText(file), text);
			}
	return byKey;
}

/** Null where it is only known when it runs. */
function textOf(node: ts.Expression, candidate: ReadonlyMap<string, string>): string | null {
	if (ts.isStringLiteral(node) || ts.isNoSubstitutionTemplateLiteral(node)) return node.text;
	if (ts.isIdentifier(node)) return candidate.get(node.text) ?? null;
	if (!ts.isTemplateExpression(node)) return null;
	const spans = node.templateSpans.map(({ expression, literal }) => {
		const value = textOf(expression, candidate);
		return value === null ? null : value + literal.text;
	});
	return spans.includes(null) ? null : node.head.text + spans.join('');
}

interface Found {
	texts: string[];
	/** Places of statements that are put together when they run. */
	open: string[];
}

function statementsIn(path: string): Found {
	const file = ts.createSourceFile(path, readFileSync(path, 'utf8'), ts.ScriptTarget.ES2022, true);
	const existing = constantsOf(file);
	const found: Found = { texts: [], open: [] };
	const visit = (node: ts.Node): void => {
		if (ts.isCallExpression(node) && node.expression.getText(file) === 'sql' && node.arguments[1]) {
			const text = textOf(node.arguments[1], existing);
			if (text === null) found.open.push(path);
			else found.texts.push(text);
		}
		ts.forEachChild(node, visit);
	};
	visit(file);
	return found;
}

/** Tables of the visits' own database. */
const VISITS = readFileSync('src/lib/server/rooms/visits/store.ts', 'utf8');
const OF_VISITS = [...VISITS.matchAll(/CREATE TABLE (\w+)/g)].map(([, name]) => name!);
const isOfVisits = (text: string) =>
	new RegExp(`\\b(FROM|INTO|UPDATE|JOIN) (${OF_VISITS.join('|')})\\b`, 'i').test(text);

describe('what the server asks the database', () => {
	const folder = mkdtempSync(join(tmpdir(), 'zafra-statements-'));
	after(() => rmSync(folder, { recursive: true, force: true }));
	const found = [...sources('src/lib/server')].map(statementsIn);

	it('stands in its sources, but for a few that are put together', () => {
		expect(found.flatMap(({ texts }) => texts).length).to.be.above(280);
		expect(found.flatMap(({ open }) => open)).to.have.length.below(50);
	});

	it('is answered by an index, but where it is said why not', () => {
		const db = openDatabase(folder);
		const texts = [...new Set(found.flatMap((item) => item.texts))].filter((text) => !isOfVisits(text));
		expect(wholeReads(db, texts)).to.deep.equal([]);
		db.close();
	});
});
