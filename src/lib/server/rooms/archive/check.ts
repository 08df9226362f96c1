/** Whether the rows of an archive can be taken: each by its own schema, then what they say of each other. */
import { armLimits } from '$core/trial/design/log';
import * as v from 'valibot';
import { KINDS } from '$core/trial/design/kinds';
import type { TrialKind } from '$core/trial/types';
import { CLIENT_ROWS } from './clientRows';
import type { RowSchema } from './columns';
import { AUDIT_ROWS } from './auditRows';
import { LOAD_ROWS } from './loadRows';
import type { Tables } from './secrets';
import { ARCHIVE_TABLES, type ArchiveRow, type ArchiveTable } from './tables';
import { TRIAL_ROWS } from './trialRows';

const ROWS: Readonly<Record<string, RowSchema>> = { ...CLIENT_ROWS, ...TRIAL_ROWS, ...LOAD_ROWS, ...AUDIT_ROWS };

/** Tables that an archive must have a row schema for: all but what is computed anew. */
export const ROW_SCHEMAS: readonly string[] = Object.keys(ROWS);

/** Further faults say no more. */
export const MOST_FAULTS = 20;

export class ArchiveFaults {
	readonly list: string[] = [];

	add(where: string, why: string): void {
		if (this.list.length < MOST_FAULTS) this.list.push(`${where}: ${why}`);
	}

	get isFull(): boolean {
		return this.list.length >= MOST_FAULTS;
	}
}

/** @returns the rows as they may be stored; faults are added to the list */
export function checkedTables(tables: Tables, faults: ArchiveFaults): Tables {
	const checked: Tables = {};
	for (const name of Object.keys(tables))
		if (!Object.hasOwn(ROWS, name) && name !== 'derived') faults.add(name.slice(0, 60), 'there is no such table.');
	for (const { name } of ARCHIVE_TABLES) {
		if (!Object.hasOwn(ROWS, name)) continue;
		checked[name] = checkedRows(name, tables[name] ?? [], faults);
		if (faults.isFull) return checked;
	}
	if (faults.list.length === 0) checkReferences(checked, faults);
	if (faults.list.length === 0) checkTogether(checked, faults);
	return checked;
}

function checkedRows(name: string, rows: readonly ArchiveRow[], faults: ArchiveFaults): ArchiveRow[] {
	const good: ArchiveRow[] = [];
	for (const [i, row] of rows.entries()) {
		const read = v.safeParse(ROWS[name]!, row);
		if (read.success) good.push(read.output);
		else {
			const [issue] = read.issues;
			faults.add(`${name}, row ${i + 1}`, `${v.getDotPath(issue) ?? 'the row'}: ${issue.message}`);
			if (faults.isFull) break;
		}
	}
	return good;
}

/** Every number of a row that is named belongs to a row of the file, and none is there twice. */
function checkReferences(tables: Tables, faults: ArchiveFaults): void {
	const ids = new Map<string, Set<number>>();
	for (const { name, isNumbered } of ARCHIVE_TABLES) {
		if (!isNumbered) continue;
		const own = new Set<number>();
		for (const { id } of tables[name] ?? []) {
			if (own.has(Number(id))) faults.add(name, `row ${id} is there twice.`);
			own.add(Number(id));
		}
		ids.set(name, own);
	}
	if (ids.get('client')!.size !== 1) faults.add('client', 'an archive holds one client.');
	for (const table of ARCHIVE_TABLES)
		for (const row of tables[table.name] ?? []) {
			const lost = lostReference(table, row, ids);
			if (lost) faults.add(table.name, `a row names ${lost}, which the file does not have.`);
			if (faults.isFull) return;
		}
}

function lostReference({ refers = {}, names }: ArchiveTable, row: ArchiveRow, ids: ReadonlyMap<string, Set<number>>) {
	for (const [column, target] of Object.entries(refers)) {
		const id = row[column];
		// A trial that is repeated may be another client's, or gone.
		if (id != null && column !== 'repeat_of' && !ids.get(target)!.has(Number(id))) return `${target} ${id}`;
	}
	const [what, id] = names ? [row[`${names}_kind`], row[`${names}_id`]] : ['nobody'];
	return what !== 'nobody' && !ids.get(String(what))?.has(Number(id)) ? `${what} ${id}` : null;
}

/** What rows say of each other beyond their numbers: a trial that could not be shown is none. */
function checkTogether(tables: Tables, faults: ArchiveFaults): void {
	const armsOf = grouped(tables.arm!, 'trial_id');
	const conditionsOf = grouped(tables.trial_conditions!, 'trial_id');
	const hashes = new Set(tables.conditions_version!.map(({ hash }) => hash));
	for (const trial of tables.trial!) {
		const why =
			armsProblem(trial, armsOf.get(trial.id) ?? []) ?? conditionsProblem(conditionsOf.get(trial.id) ?? [], hashes);
		if (why) faults.add(`trial ${trial.id}`, why);
	}
	const trialOfArm = new Map(tables.arm!.map(({ id, trial_id }) => [id, trial_id]));
	for (const name of ['load', 'trial_place', 'settling'])
		for (const row of tables[name]!) {
			const why = placeProblem(row, trialOfArm, conditionsOf);
			if (why) faults.add(name, why);
		}
	for (const { id, conditions_hash: hash } of tables.load!)
		if (hash !== null && !hashes.has(hash!)) faults.add(`load ${id}`, 'its conditions are not in the file.');
	for (const { watch_id: watch, hash } of tables.watch_conditions!)
		if (!hashes.has(hash!)) faults.add(`watch ${watch}`, 'its conditions are not in the file.');
	const watched = grouped(tables.watched_page!, 'watch_id');
	for (const { id, kind } of tables.watch!) {
		const pages = watched.get(id) ?? [];
		const own = pages.filter(({ role }) => role === 'page').length;
		const others = pages.filter(({ role }) => role === 'competitor').length;
		if (own === 0 || (kind === 'standing' && own + others < 2)) faults.add(`watch ${id}`, 'it has too few pages.');
	}
}

function grouped(rows: readonly ArchiveRow[], column: string): Map<ArchiveRow[string] | undefined, ArchiveRow[]> {
	const groups = new Map<ArchiveRow[string] | undefined, ArchiveRow[]>();
	for (const row of rows) groups.set(row[column], [...(groups.get(row[column]) ?? []), row]);
	return groups;
}

function armsProblem({ kind, options }: ArchiveRow, arms: readonly ArchiveRow[]): string | null {
	if (!Object.hasOwn(KINDS, String(kind))) return 'there is no such kind of trial.';
	const { pages, samePage } = KINDS[kind as TrialKind];
	const design = JSON.parse(String(options)) as { plannedSteps?: number };
	const { leastArms, mostArms } = armLimits(kind as TrialKind, design);
	const compared = arms.filter((arm) => arm.is_reference !== 1);
	const least = samePage ? 2 : leastArms;
	if (compared.length < least || compared.length > mostArms) return `it has ${compared.length} variants.`;
	const places = pages ? [...grouped(compared, 'page').values()] : [compared];
	const isFair = places.every((own) => own.filter((arm) => arm.is_baseline === 1).length === 1);
	return isFair ? null : 'each of its comparisons needs one baseline.';
}

function conditionsProblem(rows: readonly ArchiveRow[], hashes: ReadonlySet<unknown>): string | null {
	if (rows.length === 0) return 'it has no conditions.';
	if (new Set(rows.map(({ id }) => id)).size < rows.length) return 'it names the same conditions twice.';
	return rows.every(({ hash }) => hashes.has(hash)) ? null : 'its conditions are not in the file.';
}

function placeProblem(
	row: ArchiveRow,
	trialOfArm: ReadonlyMap<unknown, unknown>,
	conditionsOf: ReadonlyMap<unknown, ArchiveRow[]>
): string | null {
	if (row.trial_id == null) return row.arm_id == null ? null : 'a variant stands without its trial.';
	if (row.arm_id != null && trialOfArm.get(row.arm_id) !== row.trial_id) return 'a variant is another trial’s.';
	const isKnown = conditionsOf.get(row.trial_id)?.some(({ id }) => id === row.condition_id);
	return isKnown ? null : 'it stands under conditions that its trial does not have.';
}
